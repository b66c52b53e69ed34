import { Zip, ZipDeflate } from "fflate";
import Papa from "papaparse";
import { z } from "zod";
import type { ChannelId } from "../../core/kernel/ids";
import { type ShowFile, showFiles, showFormat, type ShowManifest } from "../../core/review/bundle";
import type { WebServices } from "../composition/web";
import type { ReviewedShow } from "../ports/review-store";
import { factsOf, published } from "./published";
import { airedIn } from "./aired";
import { pastRounds, winnersIn } from "./past-rounds";
import { reviewView, showMoments } from "./review";
import { fileNameOf, titleOf } from "./show-names";

type Web = Pick<WebServices, "store">;
type Cell = string | number;
type Line = Readonly<Record<string, Cell>>;

export const tableSchema = z.object({ what: z.enum(["results", "winners", "aired", "sales", "people"]), as: z.enum(["csv", "json"]) });
const mostPeople = 100_000;
const mostAired = 50_000;
const salesAtOnce = 2_000;
const iso = (ms: number): string => new Date(ms).toISOString();

async function resultsOf(web: Web, channel: ChannelId, { fromMs, toMs }: ReviewedShow): Promise<readonly Line[]> {
  const rounds = await pastRounds(web, channel, "", 10_000, [fromMs, toMs + 60_000]);
  return rounds.map((r) => ({
    when: iso(r.atMs),
    game: r.gameName,
    title: r.title,
    result: r.result,
    viewers: r.people ?? "",
    proof: r.check,
  }));
}
async function winnersOf(web: Web, channel: ChannelId, { fromMs, toMs }: ReviewedShow): Promise<readonly Line[]> {
  const winners = await winnersIn(web, channel, [fromMs, toMs + 60_000]);
  return winners.map((w) => ({ when: iso(w.atMs), game: w.game, title: w.title, viewer: w.viewer, prize: w.prize, proof: w.check }));
}
async function airedOf(web: Web, channel: ChannelId, show: ReviewedShow): Promise<readonly Line[]> {
  const { rows } = await airedIn(web, channel, show, mostAired);
  return rows.map((r) => ({ when: iso(r.atMs), how: r.how, what: r.what, by: r.by, link: r.link }));
}
async function* salesOf({ store }: Web, channel: ChannelId, { fromMs, toMs }: ReviewedShow): AsyncGenerator<readonly Line[]> {
  let after = -Number.MAX_SAFE_INTEGER;
  for (;;) {
    const rows = await store.reviews.sales(channel, { fromMs, toMs, after, limit: salesAtOnce });
    const last = rows.at(-1);
    if (last === undefined) return;
    after = last.seq;
    // Codes and private details are for whoever bought them; they are in no export.
    yield rows.map(({ sale: s }) => ({
      when: iso(s.atMs),
      reward: s.rewardName,
      viewer: s.viewer.name,
      price: s.price,
      text: s.text,
      state: s.state,
      decidedBy: s.decidedBy,
    }));
  }
}
async function peopleOf({ store }: Web, channel: ChannelId, { fromMs, toMs }: ReviewedShow): Promise<readonly Line[]> {
  const people = await store.reviews.people(channel, { fromMs, toMs, limit: mostPeople });
  return people.map((p) => ({ id: p.id, name: p.name, messages: p.messages, given: p.given, first: iso(p.firstMs), last: iso(p.lastMs) }));
}

const tables = { results: resultsOf, winners: winnersOf, aired: airedOf, people: peopleOf } as const;
export type TableFile = Readonly<{ text: string; name: string; type: string }>;
/** One table of a show as a file; null when there is no such show. */
export async function showTable(
  web: Web,
  channel: ChannelId,
  id: number,
  { what, as }: z.infer<typeof tableSchema>,
): Promise<TableFile | null> {
  const show = await web.store.reviews.show(channel, id);
  if (show === null) return null;
  const rows: Line[] = [];
  if (what === "sales") for await (const some of salesOf(web, channel, show)) rows.push(...some);
  else rows.push(...(await tables[what](web, channel, show)));
  const name = `${fileNameOf(show)}-${what}.${as}`;
  return as === "csv"
    ? { text: csv(what, rows), name, type: "text/csv; charset=utf-8" }
    : { text: JSON.stringify(rows, null, 2), name, type: "application/json" };
}
const columns = {
  results: ["when", "game", "title", "result", "viewers", "proof"],
  winners: ["when", "game", "title", "viewer", "prize", "proof"],
  aired: ["when", "how", "what", "by", "link"],
  sales: ["when", "reward", "viewer", "price", "text", "state", "decidedBy"],
  people: ["id", "name", "messages", "given", "first", "last"],
} as const satisfies Readonly<Record<z.infer<typeof tableSchema>["what"], readonly string[]>>;
/**
 * A table without rows has its header all the same: an empty file looks like one that was lost. Names that begin like a
 * formula stay words in every program that opens tables.
 */
const csv = (what: keyof typeof columns, rows: readonly Line[], header = true): string => {
  const cells: Cell[][] = rows.map((row) => columns[what].map((column) => row[column] ?? ""));
  return `${Papa.unparse(header ? [[...columns[what]], ...cells] : cells, { escapeFormulae: true, newline: "\r\n" })}\r\n`;
};

/**
 * The whole show as a ZIP, in pieces as it is read: what is in memory at a time is one page of its log, however long it was.
 * Null when there is no such show. Whoever stops reading ends it.
 */
export async function showBundle(
  web: Web,
  channel: ChannelId,
  channelName: string,
  id: number,
): Promise<Readonly<{ name: string; pieces: AsyncGenerator<Uint8Array> }> | null> {
  const view = await reviewView(web, channel, id);
  const moments = view === null ? null : await showMoments(web, channel, id);
  if (view === null || moments === null) return null;
  const { show, numbers, games } = view;
  const facts = factsOf(await published(web, channel));
  const text = new TextEncoder();

  async function* pieces(): AsyncGenerator<Uint8Array> {
    let ready: Uint8Array[] = [];
    let broken: Error | null = null;
    const zip = new Zip((error, piece) => {
      if (error !== null) broken = error;
      else ready.push(piece);
    });
    const rows = new Map<ShowFile, number>();
    const taken = function* (): Generator<Uint8Array> {
      if (broken !== null) throw broken;
      const some = ready;
      ready = [];
      yield* some;
    };
    async function* file(name: string, parts: AsyncIterable<string> | Iterable<string>): AsyncGenerator<Uint8Array> {
      const entry = new ZipDeflate(name, { level: 6 });
      entry.mtime = new Date(show.toMs);
      zip.add(entry);
      for await (const part of parts) {
        entry.push(text.encode(part));
        yield* taken();
      }
      entry.push(new Uint8Array(0), true);
      yield* taken();
    }
    async function* log(): AsyncGenerator<string> {
      let n = 0;
      for await (const some of web.store.reviews.log(channel, show)) {
        n += some.length;
        yield some.map((row) => `${JSON.stringify(row)}\n`).join("");
      }
      rows.set("log.ndjson", n);
    }
    async function* sales(): AsyncGenerator<string> {
      let n = 0;
      for await (const some of salesOf(web, channel, show)) {
        yield csv("sales", some, n === 0);
        n += some.length;
      }
      if (n === 0) yield csv("sales", []);
      rows.set("sales.csv", n);
    }
    const results = await resultsOf(web, channel, show);
    const people = await peopleOf(web, channel, show);
    const winners = await winnersOf(web, channel, show);
    const aired = await airedOf(web, channel, show);
    rows.set("results.csv", results.length);
    rows.set("winners.csv", winners.length);
    rows.set("aired.csv", aired.length);
    rows.set("people.csv", people.length);
    yield* file("log.ndjson", log());
    yield* file("numbers.json", [JSON.stringify(numbers, null, 2)]);
    yield* file("moments.json", [
      JSON.stringify(
        moments?.map(({ atMs, toMs, name, why, state }) => ({ at: iso(atMs), to: iso(toMs), name, why, state })),
        null,
        2,
      ),
    ]);
    yield* file("results.csv", [csv("results", results)]);
    yield* file("winners.csv", [csv("winners", winners)]);
    yield* file("aired.csv", [csv("aired", aired)]);
    yield* file("sales.csv", sales());
    yield* file("people.csv", [csv("people", people)]);
    const manifest: ShowManifest = {
      format: showFormat,
      madeBy: "Izzam",
      channel: channelName,
      show: { name: titleOf(show), from: iso(show.fromMs), to: iso(show.toMs), recordingOffsetMs: show.offsetMs },
      points: facts.points,
      currency: facts.home,
      games: games.slice(0, 500),
      files: Object.entries(showFiles).map(([name, about]) => ({ name, about, rows: rows.get(name as ShowFile) ?? null })),
    };
    // Last, since only now it is known how much is in each.
    yield* file("manifest.json", [JSON.stringify(manifest, null, 2)]);
    zip.end();
    yield* taken();
  }
  return { name: `${fileNameOf(show)}.zip`, pieces: pieces() };
}
