import { z } from "zod";
import type { Choice } from "../words/sentence";

/**
 * What an action asks for, described once: its schema, the form in the rules editor, the buttons of booth and
 * phone, and the number behind a moderator's chat word all follow from it.
 */
export const emoteChoiceSchema = z.object({
  from: z.enum(["most-used", "chosen"]),
  /** Keys of emotes; used when they are chosen. */
  chosen: z.array(z.string().min(1).max(80)).max(50),
});
export type EmoteChoice = z.infer<typeof emoteChoiceSchema>;
/** In a rule, those of the message it answers too. */
export const emoteSourceSchema = emoteChoiceSchema.extend({ from: z.enum(["most-used", "chosen", "message"]) });
export type EmoteSource = z.infer<typeof emoteSourceSchema>;

const mostText = 300;
type Ranged = Readonly<{ label: string; start: number; min: number; most: number }>;
export type Field =
  /** A whole number that a rule may give for every so much of the signal. */
  | (Readonly<{ kind: "amount" }> & Ranged)
  | (Readonly<{ kind: "whole"; unit?: string }> & Ranged)
  /** Milliseconds, shown in seconds. */
  | (Readonly<{ kind: "time" }> & Ranged)
  | Readonly<{ kind: "choice"; label: string; start: string; options: readonly Choice[] }>
  /** `used`: whether those written most may be asked for; they may when left out. */
  | Readonly<{ kind: "emotes"; label: string; start: EmoteChoice; used?: boolean }>
  /**
   * A text; in a rule with the variables of what it answers. With `oneOf` it is picked from a list that the game's own
   * settings hold (`lists` of its definition); `none` says what an empty one means.
   */
  | Readonly<{ kind: "text"; label: string; start: string; oneOf?: Readonly<{ list: string; none: string }> }>
  /** A picture or a sound of the library, by its id; empty for none. */
  | Readonly<{ kind: "prop"; label: string; of: "picture" | "sound"; start: string }>
  /** The number of the signal that is meant; nobody is asked for it. */
  | Readonly<{ kind: "signal"; label?: undefined; start?: undefined }>;
export type Fields = Readonly<Record<string, Field>>;

type ValueOf<F extends Field> = F["kind"] extends "amount" | "whole" | "time"
  ? number
  : F["kind"] extends "choice" | "text" | "prop"
    ? string
    : F["kind"] extends "emotes"
      ? EmoteChoice
      : number | undefined;
/** What an action is given, by its fields. */
export type Input<I extends Fields> = { readonly [K in keyof I]: ValueOf<I[K]> };
/** A command as a game's step reads it, by its actions. */
export type CommandOf<A extends Readonly<Record<string, Readonly<{ input: Fields }>>>> = {
  [K in keyof A & string]: Readonly<{ do: K }> & Input<A[K]["input"]>;
}[keyof A & string];

function schemaOf(field: Field): z.ZodType {
  switch (field.kind) {
    case "amount":
    case "whole":
    case "time":
      return z.int().min(field.min).max(field.most).default(field.start);
    case "choice":
      return z.enum(field.options.map((o) => o.value)).default(field.start);
    case "text":
      return z.string().max(mostText).default(field.start);
    case "prop":
      return z.string().max(26).default(field.start);
    case "emotes":
      return emoteChoiceSchema.default({ ...field.start, chosen: [...field.start.chosen] });
    case "signal":
      return z.int().min(0).optional();
  }
}
/** What is left out begins as the field does; what the fields don't name is dropped. */
export const inputSchema = (fields: Fields): z.ZodObject =>
  z.object(Object.fromEntries(Object.entries(fields).map(([k, f]) => [k, schemaOf(f)])));

export type FormPart = string | Readonly<{ blank: string }>;
/** “Hit {game} by {amount}” in its parts; `game` is which game. */
export const formParts = (form: string): readonly FormPart[] =>
  form
    .split(/(\{[a-zA-Z]+\})/)
    .filter((p) => p !== "")
    .map((p) => (p.startsWith("{") ? { blank: p.slice(1, -1) } : p));
