import { randomUUID } from "node:crypto";
import { LRUCache } from "lru-cache";
import Papa from "papaparse";
import { z } from "zod";
import type { ChannelId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { asChapters, asEdl, asJson, asRows, onRecording } from "../../core/review/markers";
import { momentsOf, type Series } from "../../core/review/moments";
import { frameRateIds, frameRateOf } from "../../core/review/timecode";
import { markOf, type TimelineEvent } from "../../core/show/timeline";
import type { WebServices } from "../composition/web";
import type { Bins, KeptMoment, ReviewedShow, ShowFault, ShowNumbers, SoldOf } from "../ports/review-store";
import type { WhoCame } from "../ports/show-store";
import { type AiredRow, airedIn } from "./aired";
import { factsOf, published } from "./published";
import { fileNameOf, titleOf } from "./show-names";
import { type PastRound, pastRounds, wonMeanwhile } from "./past-rounds";

type Web = Pick<WebServices, "store">;
/** Who was away for so long counts as back. */
export const awayDays = 30;
const mostMarks = 4_000;
/** As fine as bins are, and as many as there are at most. */
const fineMs = 10_000;
const mostBins = 2_200;

export type ReviewView = Readonly<{
  show: ReviewedShow;
  numbers: ShowNumbers;
  series: Omit<Series, "emotes">;
  marks: readonly TimelineEvent[];
  /** There are more of them: the oldest are left out, and come when one looks closer. */
  cut: boolean;
  came: WhoCame;
  rounds: readonly PastRound[];
  sold: readonly SoldOf[];
  faults: readonly ShowFault[];
  /** What was put before the audience, newest first; `more`: there was more than comes with it. */
  aired: Readonly<{ rows: readonly AiredRow[]; more: boolean }>;
  games: readonly Readonly<{ id: string; kind: string; name: string }>[];
  points: string;
  home: string;
  /** The shows before and after it; null where there is none. */
  before: number | null;
  after: number | null;
}>;

/** Bins of ten seconds; longer ones where a show lasted longer than anybody stays awake. */
const binMsOf = ({ fromMs, toMs }: ReviewedShow): number => Math.max(fineMs, Math.ceil((toMs - fromMs) / mostBins / 1_000) * 1_000);
/** A show that is over says nothing more: what was read of it once is not read again. */
const emotesRead = new LRUCache<string, readonly number[]>({ max: 60 });
const binsRead = new LRUCache<string, Bins>({ max: 60 });
export async function once<T extends object>(
  read: LRUCache<string, T>,
  channel: ChannelId,
  show: ReviewedShow,
  fetch: () => Promise<T>,
): Promise<T> {
  const key = `${channel} ${show.id} ${show.toMs}`;
  const known = read.get(key) ?? (await fetch());
  read.set(key, known);
  return known;
}
export const binsOf = ({ store }: Web, channel: ChannelId, show: ReviewedShow): Promise<Bins> =>
  once(binsRead, channel, show, () => store.reviews.bins(channel, { ...show, binMs: binMsOf(show) }));
const emotesOf = ({ store }: Web, channel: ChannelId, show: ReviewedShow): Promise<readonly number[]> =>
  once(emotesRead, channel, show, () => store.reviews.emotes(channel, { ...show, binMs: binMsOf(show) }));
const marksOf = async (
  { store }: Web,
  channel: ChannelId,
  show: ReviewedShow,
  kinds: ReadonlyMap<string, string>,
): Promise<Readonly<{ marks: readonly TimelineEvent[]; cut: boolean }>> => {
  const rows = await store.shows.tape(channel, show.fromMs, show.toMs, mostMarks);
  return { marks: rows.flatMap((row) => markOf(row, (game) => kinds.get(game) ?? "") ?? []), cut: rows.length >= mostMarks };
};

/** A past show as it opens; null when there is none. */
export async function reviewView(web: Web, channel: ChannelId, id: number): Promise<ReviewView | null> {
  const { store } = web;
  const show = await store.reviews.show(channel, id);
  if (show === null) return null;
  const games = await store.games.games(channel);
  const kinds = new Map(games.map((g): [string, string] => [g.id, g.kind]));
  const [numbers, series, tape, came, rounds, sold, faults, aired, beside, told] = await Promise.all([
    store.reviews.numbers(channel, show),
    binsOf(web, channel, show),
    marksOf(web, channel, show, kinds),
    store.shows.whoCame(channel, show.fromMs, show.toMs, awayDays),
    pastRounds(web, channel, "", 500, [show.fromMs, show.toMs + 60_000]),
    store.reviews.sold(channel, show),
    store.reviews.faults(channel, show),
    airedIn(web, channel, show),
    store.reviews.beside(channel, show),
    published(web, channel),
  ]);
  const facts = factsOf(told);
  const won = await wonMeanwhile(web, channel, [show.fromMs, show.toMs], rounds);
  return {
    show,
    numbers: { ...numbers, ...saidIn(series) },
    series,
    ...tape,
    came,
    rounds: [...rounds, ...won],
    sold,
    faults,
    aired,
    games: games.map(({ id: game, kind, name }) => ({ id: game, kind, name })),
    points: facts.points,
    home: facts.home,
    ...beside,
  };
}

/** How much was said, and how much in the busiest minute, from its bins. */
export function saidIn({ chat, binMs, people }: Bins): Pick<ShowNumbers, "messages" | "busiest" | "people"> {
  const minute = Math.max(1, Math.round(60_000 / binMs));
  let [messages, inMinute, busiest] = [0, 0, 0];
  for (const [i, n] of chat.entries()) {
    messages += n;
    inMinute += n - (chat[i - minute] ?? 0);
    busiest = Math.max(busiest, inMinute);
  }
  return { messages, busiest, people };
}

/** A moment as it stands: found and not decided, kept or dropped. */
export type ShownMoment = Readonly<{
  id: string;
  atMs: number;
  toMs: number;
  name: string;
  why: string;
  state: "found" | "kept" | "dropped";
  by: string;
}>;
export async function showMoments(web: Web, channel: ChannelId, id: number): Promise<readonly ShownMoment[] | null> {
  const { store } = web;
  const show = await store.reviews.show(channel, id);
  if (show === null) return null;
  const games = await store.games.games(channel);
  const [bins, emotes, { marks }, decided] = await Promise.all([
    binsOf(web, channel, show),
    emotesOf(web, channel, show),
    marksOf(web, channel, show, new Map(games.map((g): [string, string] => [g.id, g.kind]))),
    store.reviews.moments(channel, id),
  ]);
  const known = new Map(decided.map((m): [string, KeptMoment] => [m.id, m]));
  const found = momentsOf({ ...bins, emotes }, marks).flatMap((m): ShownMoment[] => {
    const own = known.get(m.id);
    known.delete(m.id);
    return [own ?? { id: m.id, atMs: m.atMs, toMs: m.toMs, name: m.name, why: m.why, state: "found", by: "" }];
  });
  return [...found, ...known.values()].sort((a, b) => a.atMs - b.atMs || (a.id < b.id ? -1 : 1));
}

const line = z.string().trim().max(120);
const time = z.number().int().min(0).max(8_640_000_000_000);
export const reviewActSchema = z.discriminatedUnion("do", [
  z.object({ do: z.literal("name"), name: line }),
  z.object({ do: z.literal("offset"), offsetMs: z.number().int().min(-86_400_000).max(86_400_000) }),
  z.object({
    do: z.enum(["keep", "drop"]),
    moment: z.object({
      id: z
        .string()
        .min(1)
        .max(40)
        .regex(/^[a-z0-9-]+$/),
      atMs: time,
      toMs: time,
      name: line,
      why: z.string().max(300),
    }),
  }),
  z.object({ do: z.literal("add"), atMs: time, toMs: time, name: line }),
  z.object({ do: z.literal("undecide"), moment: z.string().min(1).max(40) }),
]);
export async function actOnShow(
  { store }: Web,
  at: Readonly<{ channelId: ChannelId; login: string }>,
  id: number,
  act: z.infer<typeof reviewActSchema>,
): Promise<Result<null>> {
  const { channelId: channel, login: by } = at;
  const show = await store.reviews.show(channel, id);
  if (show === null) return refused("review/unknown");
  switch (act.do) {
    case "name":
      await store.reviews.name(channel, id, act.name);
      return ok(null);
    case "offset":
      await store.reviews.offset(channel, id, act.offsetMs);
      return ok(null);
    case "undecide":
      await store.reviews.undecide(channel, id, act.moment);
      return ok(null);
    case "keep":
    case "drop":
    case "add": {
      const given =
        act.do === "add" ? { id: `h${randomUUID().slice(0, 18)}`, why: "", atMs: act.atMs, toMs: act.toMs, name: act.name } : act.moment;
      if (given.toMs < given.atMs || given.toMs < show.fromMs - 60_000 || given.atMs > show.toMs + 60_000) return refused("review/moment");
      const decided = await store.reviews.moments(channel, id);
      if (decided.length >= 500 && !decided.some((m) => m.id === given.id)) return refused("review/moments");
      const name = given.name === "" ? "A moment" : given.name;
      await store.reviews.decide(channel, id, { ...given, name, state: act.do === "drop" ? "dropped" : "kept", by });
      return ok(null);
    }
  }
}

export const outSchema = z.object({
  as: z.enum(["vtt", "csv", "edl", "json"]),
  rate: z.enum(frameRateIds).default("25"),
  which: z.enum(["kept", "all"]).default("kept"),
});
export type OutFile = Readonly<{ text: string; name: string; type: string }>;
/** Moments as a file for editors; null when there is no such show. */
export async function markersOut(web: Web, channel: ChannelId, id: number, asked: z.infer<typeof outSchema>): Promise<OutFile | null> {
  const show = await web.store.reviews.show(channel, id);
  const moments = show === null ? null : await showMoments(web, channel, id);
  if (show === null || moments === null) return null;
  const { fromMs, toMs, offsetMs } = show;
  const wanted = moments.filter((m) => m.state === "kept" || (asked.which === "all" && m.state === "found"));
  const { markers } = onRecording(wanted, { fromMs, offsetMs });
  const rate = frameRateOf(asked.rate);
  const title = titleOf(show);
  const file = fileNameOf(show);
  switch (asked.as) {
    case "vtt":
      return { text: asChapters(markers, toMs - fromMs + offsetMs, title), name: `${file}.vtt`, type: "text/vtt; charset=utf-8" };
    case "csv":
      // What begins like a formula is text, whoever wrote it.
      return {
        text: Papa.unparse([...asRows(markers, rate)], { escapeFormulae: true }),
        name: `${file}.csv`,
        type: "text/csv; charset=utf-8",
      };
    case "edl":
      return { text: asEdl(markers, rate, title), name: `${file}.edl`, type: "text/plain; charset=us-ascii" };
    case "json":
      return {
        text: JSON.stringify(asJson(markers, rate, { name: title, fromMs, toMs, offsetMs }), null, 2),
        name: `${file}.json`,
        type: "application/json",
      };
  }
}
