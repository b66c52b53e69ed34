import { z } from "zod";
import { fold } from "../kernel/fold";
import { pendingSchema, variablesOf } from "../rules/effects";
import { ruleEffectSchema, mostEffects } from "../rules/effect";
import { alertSchema } from "../alerts/alert";
import { roleSchema } from "../signals/signal";
import { roles } from "../signals/names";
import { checkTemplate } from "../words/template";

/** A cue: a named set of effects fired by key, click, trigger address or chat word. On/off cues stay until fired again. */
export const cueSchema = z
  .object({
    id: z.string().min(1).max(26),
    name: z.string().trim().min(1, "A cue needs a name.").max(40),
    /** One key of the booth; empty for none. */
    key: z.string().max(12),
    /** Word with which chat fires it; empty for none. */
    word: z.string().trim().max(40).regex(/^\S*$/u, "A chat word has no spaces."),
    roles: z.array(roleSchema).min(1).max(roles.length),
    cooldownMs: z.int().min(0).max(3_600_000),
    kind: z.enum(["once", "on-off"]),
    effects: z.array(ruleEffectSchema).max(mostEffects),
    /** What an on/off cue does when it is fired again. */
    offEffects: z.array(ruleEffectSchema).max(mostEffects),
  })
  .superRefine((cue, ctx) => {
    for (const effect of [...cue.effects, ...cue.offEffects]) {
      if (!("text" in effect)) continue;
      const checked = checkTemplate(effect.text, variablesOf["cue"] ?? []);
      if (!checked.ok)
        ctx.addIssue({
          code: "custom",
          message:
            checked.refusal.code === "text/unknown-variable"
              ? `“${String(checked.refusal.facts["name"])}” is no variable of a cue. There is: channel.`
              : `The text “${String(checked.refusal.facts["text"])}” has a brace too many or too few.`,
        });
    }
  });
export type Cue = z.infer<typeof cueSchema>;

export const cueBookSchema = z
  .object({
    schema: z.literal(3),
    cues: z.array(cueSchema).max(60, "There are at most 60 cues."),
    hiddenWords: z.array(z.string()).max(0).default([]),
  })
  .superRefine((book, ctx) => {
    const twice = (of: (cue: Cue) => string, what: string): void => {
      const seen = new Set<string>();
      for (const cue of book.cues) {
        const value = of(cue);
        if (value === "") continue;
        if (seen.has(value)) ctx.addIssue({ code: "custom", message: `Two cues have the same ${what}, “${value}”.` });
        seen.add(value);
      }
    };
    twice((c) => c.id, "mark");
    twice((c) => c.key.toLowerCase(), "key");
    twice((c) => fold(c.word), "chat word");
  });
export type CueBook = z.infer<typeof cueBookSchema>;
export const cueBookDefaults: CueBook = { schema: 3, cues: [], hiddenWords: [] };

export const cueBookDurableSchema = z.object({
  /** On/off cues that are on, and what each keeps on the picture. */
  on: z.array(z.object({ cueId: z.string(), sinceMs: z.number(), alerts: z.array(alertSchema) })),
  pending: z.array(pendingSchema),
});
export type CueBookDurable = z.infer<typeof cueBookDurableSchema>;

export const newCue = (id: string, name: string): Cue => ({
  id,
  name,
  key: "",
  word: "",
  roles: ["moderator", "streamer"],
  cooldownMs: 3_000,
  kind: "once",
  effects: [],
  offEffects: [],
});
