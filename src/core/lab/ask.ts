import { z } from "zod";
import { gameOf } from "../games/registry";
import { ok, refused, type Result } from "../kernel/refusal";
import { formParts, inputSchema } from "../module/fields";
import type { WordFacts } from "../module/game";
import type { LabInput, LabQuestion, LabUnit } from "../module/lab";
import { moduleOf } from "../modules";
import { firstProblem } from "../words/problem";
import { type Blank, count, counted, valueAt, withValueAt } from "../words/sentence";
import { roomNames, roomsInWords } from "./crowd";
import { type Summary, summarySchema } from "./statistics";

/** On which evenings a question is asked: like the channel's last ones, like one of the ready-made rooms, or like chat from outside. */
export const eveningSchema = z.discriminatedUnion("like", [
  z.object({ like: z.literal("last"), shows: z.int().min(1).max(50) }),
  z.object({ like: z.literal("room"), room: z.enum(roomNames), hours: z.number().min(0.25).max(12) }),
  /** Like past chat that was brought in, as it was called then. */
  z.object({ like: z.literal("log"), log: z.string().min(1).max(40), name: z.string().max(120) }),
]);
export type EveningLike = z.infer<typeof eveningSchema>;

export const mostEvenings = 10_000;
export const labAskSchema = z.object({
  /** Id of the module that is asked about, and which of its questions it is. */
  module: z.string().min(1).max(26),
  question: z.string().min(1).max(40),
  input: z.record(z.string().max(40), z.union([z.number(), z.string().max(300)])),
  evening: eveningSchema,
  /** The same, if this setting were this; null where only that is asked which is. */
  instead: z.object({ path: z.string().min(1).max(120), value: z.union([z.number(), z.string().max(300), z.boolean()]) }).nullable(),
  n: z.int().min(20).max(mostEvenings),
});
export type LabAsk = z.infer<typeof labAskSchema>;

export const labResultSchema = z.object({
  plain: summarySchema,
  instead: summarySchema.nullable(),
  /** In how many evenings the other came to more, and to less: the same evenings, so that only the setting differs. */
  more: z.int(),
  less: z.int(),
  signals: z.number(),
  ms: z.number(),
  /** Of how many past shows the crowd was made; 0 for a ready-made one. */
  shows: z.int(),
  /** It was stopped before all evenings were played. */
  stopped: z.boolean(),
});
export type LabResult = z.infer<typeof labResultSchema>;

/** The question of a kind of module, by its name; null for none. */
export const questionOf = (kind: string, id: string): LabQuestion | null => moduleOf(kind)?.lab?.find((q) => q.id === id) ?? null;

/** What is asked with it, as its fields read it: blanks that are left out begin as they begin. */
export function inputOf(question: LabQuestion, given: LabAsk["input"]): Result<LabInput> {
  const read = inputSchema(question.input).safeParse(given);
  // Fields of questions are numbers, choices and texts.
  return read.success ? ok(read.data as LabInput) : refused("lab/input", { why: firstProblem(read.error) });
}

/** The settings with that one changed; refused where they would not be settings any more, or no blank has this path. */
export function settingsInstead(kind: string, settings: unknown, { path, value }: NonNullable<LabAsk["instead"]>): Result<unknown> {
  const module = moduleOf(kind);
  if (module === null || valueAt(settings, path) === undefined) return refused("lab/no-setting", { path });
  const read = module.settings.safeParse(withValueAt(settings, path, value));
  return read.success ? ok(read.data) : refused("lab/setting", { why: firstProblem(read.error) });
}

/** Settings that may be asked about instead: the blanks of a game's own sentences, but for names and people. */
export function settingsToAsk(kind: string, settings: unknown, facts: WordFacts): readonly Readonly<{ blank: Blank; sentence: string }>[] {
  const sentences = gameOf(kind)?.sentences(settings, facts) ?? [];
  return sentences.flatMap(({ parts }) =>
    parts.flatMap((part) =>
      typeof part === "string" || ["text", "roles", "emotes"].includes(part.field.kind)
        ? []
        : [{ blank: part, sentence: parts.map((p) => (typeof p === "string" ? p : p.text)).join("") }],
    ),
  );
}

export function eveningInWords(evening: EveningLike): string {
  if (evening.like === "last")
    return evening.shows === 1 ? "an evening like the last one" : `an evening like the last ${count(evening.shows)}`;
  if (evening.like === "log") return `an evening like the chat “${evening.name}”`;
  return `${roomsInWords[evening.room]} of ${evening.hours === 1 ? "an hour" : `${evening.hours} hours`}`;
}

/** A question as it was asked, as one sentence. */
export function askInWords(
  question: LabQuestion,
  ask: Pick<LabAsk, "input" | "evening">,
  names: Readonly<{ game: string; points: string }>,
): string {
  return formParts(question.form)
    .map((part) => {
      if (typeof part === "string") return part;
      const { blank } = part;
      if (blank === "game") return names.game;
      if (blank === "points") return names.points;
      if (blank === "evening") return eveningInWords(ask.evening);
      const field = question.input[blank];
      const value = ask.input[blank] ?? (field !== undefined && "start" in field ? field.start : "");
      if (field?.kind === "choice") return field.options.find((o) => o.value === value)?.words ?? String(value);
      if (field?.kind === "text" && value === "") return field.oneOf?.none ?? "";
      return typeof value === "number" ? count(value) : String(value);
    })
    .join("");
}

/** A value in the unit of its question: 41 min, 1,204 clay, 3 times. */
export function inUnit(unit: LabUnit, value: number, points: string): string {
  switch (unit) {
    case "minutes":
      if (value >= 100) return `${count(Math.floor(value / 60))} h ${Math.round(value % 60)} min`;
      return `${value < 10 ? Number(value.toFixed(1)) : Math.round(value)} min`;
    case "points":
      return `${value < 0 ? "−" : ""}${count(Math.abs(Math.round(value)))} ${points}`;
    case "times":
      return value === 1 ? "once" : value === 0 ? "never" : `${count(Math.round(value))} times`;
    case "people":
      return count(Math.round(value));
    case "waiting":
      return count(Math.round(value));
  }
}
export const percent = (share: number): string => {
  const p = share * 100;
  return `${p > 0 && p < 1 ? p.toFixed(1) : p > 99 && p < 100 ? p.toFixed(1) : Math.round(p)} %`;
};

/** The answer as sentences: the middle case and the two ends, how often never, and how sure that is. */
export function answerInWords(
  question: LabQuestion,
  { n, never, p5, p50, p95, low, high, neverLow, neverHigh }: Summary,
  names: Readonly<{ game: string; points: string }>,
): readonly string[] {
  if (n === 0) return ["No evening was played."];
  const said = (value: number): string => inUnit(question.unit, value, names.points);
  const more = question.never;
  const lines: string[] = [];
  if (p50 === null) lines.push(`In ${percent(never / n)} of evenings ${more ?? "it does not come to pass"}.`);
  else {
    const head = question.middle.replace("{game}", names.game).replace("{value}", said(p50));
    const ends =
      p5 === null || p5 === p95
        ? ""
        : p95 === null
          ? `; in one of twenty evenings already at ${said(p5)}`
          : `; 90 of 100 evenings lie between ${said(p5)} and ${said(p95)}`;
    const not = never === 0 || more === undefined ? "" : `. In ${percent(never / n)} of evenings ${more}`;
    lines.push(`${head} in the middle case${ends}${not}.`);
  }
  const sure = low !== null && high !== null ? `the middle lies between ${said(low)} and ${said(high)}` : "";
  const share = never === 0 || more === undefined ? "" : `the share lies between ${percent(neverLow)} and ${percent(neverHigh)}`;
  const both = [sure, share].filter((s) => s !== "").join(", ");
  lines.push(`By ${counted(n, "evening")}${both === "" ? "" : `: ${both}, with 95 % certainty`}.`);
  return lines;
}
