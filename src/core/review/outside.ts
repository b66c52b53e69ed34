import { z } from "zod";
import { chipsOf, type ChipTone } from "../chips";
import { ok, refused, type Result } from "../kernel/refusal";
import { cut, jsonOrNull } from "../kernel/text";
import { markOf, type TimelineEvent } from "../show/timeline";
import { showFormat, type ShowManifest, showManifestSchema } from "./bundle";

/** A show of another installation, as its ZIP tells it: to be looked at, and nothing more. Whatever is in it was written by others. */
export const outsideShowSchema = z.object({
  manifest: showManifestSchema,
  /** How much was written and how much happened, bin by bin. */
  curve: z.object({ fromMs: z.number(), binMs: z.number(), chat: z.array(z.number()), rest: z.array(z.number()) }),
  moments: z.array(z.object({ atMs: z.number(), toMs: z.number(), name: z.string(), why: z.string(), state: z.enum(["found", "kept"]) })),
  results: z.array(z.object({ atMs: z.number(), game: z.string(), title: z.string(), result: z.string() })),
  /** What stands on its tape; when there are more than fit, the oldest are left out. */
  marks: z.array(
    z.object({
      seq: z.number(),
      atMs: z.number(),
      tone: z.enum(["slate", "brick", "moss", "ochre", "soft"]),
      label: z.string(),
      weight: z.literal([1, 2, 3]),
      game: z.string(),
      turned: z.enum(["on", "off", ""]),
    }),
  ),
  messages: z.number(),
  people: z.number(),
  /** Lines of its log that could not be read. */
  bad: z.number(),
});
export type OutsideShow = z.infer<typeof outsideShowSchema>;
/** A line of it: who, what, and beside it what it led to, in words made when it came in. */
export type OutsideChip = Readonly<{ short: string; words: string; tone: ChipTone }>;
export type OutsideLine = Readonly<{ atMs: number; kind: string; name: string; text: string; chips: readonly OutsideChip[] }>;
/** A row of the log as it was read, for whoever puts it into words. */
export type OutsideRow = Readonly<{ seq: number; atMs: number; kind: string; source: string; name: string; body: unknown }>;

export const mostOutsideLines = 500_000;
const mostBins = 2_000;
const mostText = 500;
const mostMarks = 4_000;
const mostChips = 4;
const mostNames = 200_000;
const dayMs = 86_400_000;

/** What says what is in it. Refused: it is none of ours, of a newer version, or damaged. */
export function readManifest(text: string | null): Result<ShowManifest> {
  const given = text === null ? null : jsonOrNull(text);
  const format = typeof given === "object" && given !== null && "format" in given ? given.format : undefined;
  if (typeof format === "string" && format !== showFormat && /^izzam-show-\d+$/.test(format)) return refused("outside/newer", { format });
  const read = showManifestSchema.safeParse(given);
  if (!read.success) return refused("outside/no-manifest");
  const { from, to } = read.data.show;
  const lasts = Date.parse(to) - Date.parse(from);
  return lasts < 0 || lasts > 7 * dayMs ? refused("outside/no-manifest") : ok(read.data);
}

const lineSchema = z.object({
  at: z.string().max(40),
  kind: z.string().max(40),
  source: z.string().max(40).default(""),
  viewer: z.object({ name: z.string() }).nullish(),
  text: z.string().optional(),
  body: z.record(z.string(), z.unknown()).nullish(),
});

/** Reads a log line by line, however long it is: counts it, and keeps what there is to read. */
export class OutsideLog {
  readonly lines: OutsideLine[] = [];
  readonly marks: TimelineEvent[] = [];
  bad = 0;
  messages = 0;
  private readonly names = new Set<string>();
  private readonly fromMs: number;
  private readonly binMs: number;
  private readonly chat: number[];
  private readonly rest: number[];

  private readonly kinds: ReadonlyMap<string, string>;

  /** `say` puts what happened into words, as it does for shows of one's own. */
  constructor(
    { show, games }: ShowManifest,
    private readonly say: (row: OutsideRow) => string,
  ) {
    this.kinds = new Map(games.map((g): [string, string] => [g.id, g.kind]));
    this.fromMs = Date.parse(show.from);
    const ms = Math.max(1_000, Date.parse(show.to) - this.fromMs);
    this.binMs = Math.max(10_000, Math.ceil(ms / mostBins / 1_000) * 1_000);
    const size = Math.max(1, Math.ceil(ms / this.binMs));
    this.chat = new Array<number>(size).fill(0);
    this.rest = new Array<number>(size).fill(0);
  }

  add(raw: string): void {
    if (raw.trim() === "") return;
    const read = raw.length > 200_000 || this.lines.length >= mostOutsideLines ? null : lineSchema.safeParse(jsonOrNull(raw));
    const atMs = read?.success === true ? Date.parse(read.data.at) : NaN;
    if (read?.success !== true || Number.isNaN(atMs)) {
      this.bad += 1;
      return;
    }
    const { kind, source, viewer, text, body } = read.data;
    const name = cut(viewer?.name ?? (typeof body?.["by"] === "string" ? body["by"] : ""), 80);
    const row: OutsideRow = { seq: this.lines.length, atMs, kind, source, name, body: { ...body, viewer } };
    const mark = quiet(() => markOf(row, (game) => this.kinds.get(game) ?? ""), null);
    if (mark !== null) this.marks.push({ ...mark, label: cut(mark.label, mostText) });
    if (this.marks.length > mostMarks) this.marks.shift();
    const said = text ?? quiet(() => this.say(row), "");
    const bin = Math.floor((atMs - this.fromMs) / this.binMs);
    const bins = kind === "message" ? this.chat : this.rest;
    if (bin >= 0 && bin < bins.length) bins[bin] = (bins[bin] ?? 0) + 1;
    if (kind === "message") {
      this.messages += 1;
      if (this.names.size < mostNames) this.names.add(name);
    }
    const chips = quiet(() => this.chips(row, body?.["notes"]), []);
    if (said !== "" || chips.length > 0) this.lines.push({ atMs, kind, name, text: cut(said, mostText), chips });
  }

  private chips({ seq, atMs, kind, name }: OutsideRow, notes: unknown): readonly OutsideChip[] {
    const read = z.array(z.object({ game: z.string(), note: z.unknown() })).safeParse(notes);
    if (!read.success || read.data.length === 0) return [];
    const item = { n: seq, seq, atMs, kind, name, viewer: null, text: "", notes: read.data.slice(0, mostChips) };
    return chipsOf(item, (game) => this.kinds.get(game) ?? "").map(({ short, words, tone }) => ({
      short: cut(short, 80),
      words: cut(words, mostText),
      tone,
    }));
  }
  get people(): number {
    return this.names.size;
  }
  get curve(): OutsideShow["curve"] {
    const { fromMs, binMs, chat, rest } = this;
    return { fromMs, binMs, chat, rest };
  }
}

/** Others wrote what is read: what can't be put into words is left out. */
function quiet<T>(make: () => T, otherwise: T): T {
  try {
    return make();
  } catch {
    return otherwise;
  }
}

const momentsSchema = z.array(
  z.object({
    at: z.string(),
    to: z.string(),
    name: z.string().max(200),
    why: z.string().max(400).default(""),
    state: z.string(),
  }),
);
/** Moments of the file; what was dropped there is dropped here, and what can't be read is none. */
export function readMoments(text: string | null): OutsideShow["moments"] {
  const read = momentsSchema.safeParse(text === null ? null : jsonOrNull(text));
  if (!read.success) return [];
  return read.data.flatMap(({ at, to, name, why, state }) => {
    const [atMs, toMs] = [Date.parse(at), Date.parse(to)];
    const known = state === "found" || state === "kept";
    return Number.isNaN(atMs) || Number.isNaN(toMs) || !known ? [] : [{ atMs, toMs, name, why, state }];
  });
}
/** Rows of the results' table, by their columns. */
export function readResults(rows: readonly Readonly<Record<string, string>>[]): OutsideShow["results"] {
  return rows.slice(0, 2_000).flatMap((row) => {
    const of = (key: string): string => (Object.hasOwn(row, key) ? cut(String(row[key]), 300) : "");
    const atMs = Date.parse(of("when"));
    return Number.isNaN(atMs) ? [] : [{ atMs, game: of("game"), title: of("title"), result: of("result") }];
  });
}
