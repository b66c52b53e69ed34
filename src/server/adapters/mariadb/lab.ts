import { emoteIndex, findEmotes } from "../../../core/chat/emotes";
import { channelId, type ChannelId } from "../../../core/kernel/ids";
import { ok, refused, type Refusal } from "../../../core/kernel/refusal";
import { type EveningRates, type SentKind, sentKinds, thinned } from "../../../core/lab/rates";
import type { LabRow, LabState, LabStore } from "../../ports/lab-store";
import { type Database, fromJson } from "./database";
import { mariadbChatLogs } from "./chat-logs";
import { Keys } from "./keys";
import { type Row, text } from "./rows";

const ownOnly = { marked: false, own: true, emoji: false };
const mostKept = 200;
const mostWaiting = 20;
const mostTries = 3;
/** So many workers may be faster than this one before it rests and asks again. */
const mostAtOnce = 20;
/** What was removed can be brought back for so long. */
const shownRemovedMs = 7 * 86_400_000;
const states: readonly LabState[] = ["waiting", "working", "done", "failed"];
const rowOf = (r: Row): LabRow => ({
  id: text(r["id"]),
  channel: channelId(text(r["channel_id"])),
  name: text(r["name"]),
  ask: fromJson(r["ask"]),
  state: states.find((s) => s === r["state"]) ?? "failed",
  done: Number(r["done"]),
  result: r["result"] === null ? null : fromJson(r["result"]),
  mark: text(r["mark"]),
  why: r["why"] === null ? null : (fromJson(r["why"]) as Refusal),
  askedMs: Number(r["asked_ms"]),
  endedMs: r["ended_ms"] === null ? null : Number(r["ended_ms"]),
  removedMs: r["removed_ms"] === null ? null : Number(r["removed_ms"]),
  by: text(r["asked_by"]),
});

export function mariadbLab(db: Database): LabStore {
  const keys = new Keys(db);
  const of = (channel: ChannelId, id: string) => db("lab_questions").where({ channel_id: channel, id });
  return {
    list: async (channel) =>
      (
        (await db("lab_questions")
          .where({ channel_id: channel })
          .where((b) => b.whereNull("removed_ms").orWhere("removed_ms", ">", Date.now() - shownRemovedMs))
          .orderBy("created_ms", "desc")
          .orderBy("id")
          .limit(mostKept * 2)) as Row[]
      ).map(rowOf),
    one: async (channel, id) => {
      const row = (await of(channel, id).first()) as Row | undefined;
      return row === undefined ? null : rowOf(row);
    },
    add: ({ id, channel, name, ask, by }, nowMs) =>
      db.transaction(async (trx) => {
        await trx("channels").where({ id: channel }).forUpdate().first("id");
        if ((await trx("lab_questions").where({ id }).first("id")) !== undefined) return ok(null);
        const [kept, waiting] = await Promise.all([
          trx("lab_questions").where({ channel_id: channel }).whereNull("removed_ms").count({ n: "*" }).first(),
          trx("lab_questions").where({ channel_id: channel }).whereIn("state", ["waiting", "working"]).count({ n: "*" }).first(),
        ]);
        if (Number(kept?.["n"]) >= mostKept) return refused("lab/too-many", { most: mostKept });
        if (Number(waiting?.["n"]) >= mostWaiting) return refused("lab/too-many-wait", { most: mostWaiting });
        const row = { id, channel_id: channel, name, ask: JSON.stringify(ask), asked_by: by.slice(0, 80) };
        await trx("lab_questions").insert({ ...row, created_ms: nowMs, asked_ms: nowMs });
        return ok(null);
      }),
    again: async (channel, id, ask, nowMs) => {
      const fresh = {
        state: "waiting",
        done: 0,
        stop: false,
        owner: "",
        lease_ms: 0,
        tries: 0,
        why: null,
        ended_ms: null,
        asked_ms: nowMs,
      };
      const changed = await of(channel, id)
        .whereNull("removed_ms")
        .update({ ...fresh, ...(ask === null ? {} : { ask: JSON.stringify(ask) }) });
      return changed > 0 ? ok(null) : refused("lab/unknown");
    },
    rename: async (channel, id, name) => (await of(channel, id).update({ name })) > 0,
    remove: async (channel, id, atMs) => {
      // What nobody wants is not worked on; brought back, it stands as it was.
      if (atMs !== null) await of(channel, id).where({ state: "working" }).update({ stop: true });
      return (await of(channel, id).update({ removed_ms: atMs })) > 0;
    },
    stop: async (channel, id) => {
      const waiting = await of(channel, id)
        .where({ state: "waiting" })
        .update({ state: "failed", why: JSON.stringify({ code: "lab/stopped", facts: {} }) });
      return waiting + (await of(channel, id).where({ state: "working" }).update({ stop: true })) > 0;
    },
    claim: async (owner, nowMs, leaseMs) => {
      // Taken only as it was found, without a lock on the search: such a lock covers every row that it passes.
      for (let n = 0; n < mostAtOnce; n += 1) {
        const row = (await db("lab_questions")
          .whereNull("removed_ms")
          .where((b) => b.where({ state: "waiting" }).orWhere((c) => c.where({ state: "working" }).where("lease_ms", "<", nowMs)))
          .orderBy("asked_ms")
          .first()) as Row | undefined;
        if (row === undefined) return null;
        const asFound = { id: text(row["id"]), state: text(row["state"]), tries: Number(row["tries"]) };
        const tries = asFound.tries + 1;
        // A question that silenced its worker too often would silence every worker.
        const next =
          tries > mostTries
            ? { state: "failed", why: JSON.stringify({ code: "lab/broken", facts: {} }), ended_ms: nowMs }
            : { state: "working", owner, lease_ms: nowMs + leaseMs, tries, done: 0 };
        const taken = await db("lab_questions")
          .where(asFound)
          .whereNull("removed_ms")
          .where((q) => void q.where({ state: "waiting" }).orWhere("lease_ms", "<", nowMs))
          .update(next);
        if (taken > 0 && tries <= mostTries) return rowOf(row);
      }
      return null;
    },
    beat: async (id, owner, done, nowMs, leaseMs) => {
      const mine = await db("lab_questions")
        .where({ id, owner, state: "working" })
        .update({ done, lease_ms: nowMs + leaseMs });
      if (mine === 0) return "gone";
      const row = (await db("lab_questions").where({ id }).first("stop")) as Row | undefined;
      return Number(row?.["stop"]) === 1 ? "stop" : "go-on";
    },
    end: async (id, owner, given, nowMs) => {
      const ended =
        "why" in given
          ? { state: "failed", why: JSON.stringify(given.why) }
          : { state: "done", why: null, result: JSON.stringify(given.result), mark: given.mark };
      await db("lab_questions")
        .where({ id, owner, state: "working" })
        .update({ ...ended, stop: false, owner: "", ended_ms: nowMs });
    },
    ratesOfChat: (channel, id) => mariadbChatLogs(db).rates(channel, id),
    rates: async (channel, shows) => {
      const num = await keys.channel(channel);
      if (num === null) return [];
      const past = (await db("records")
        .where({ channel: num, kind: "show" })
        .whereRaw("coalesce(json_value(body, '$.rehearsal'), 0) not in (1, 'true')")
        .whereRaw("to_ms - from_ms >= 180000")
        .orderBy("from_ms", "desc")
        .limit(shows)
        .select("from_ms", "to_ms")) as Row[];
      const words = ((await db("emotes").where({ channel_id: channel }).whereNull("removed_ms").select("id", "word")) as Row[]).map(
        (r) => ({
          id: text(r["id"]),
          word: text(r["word"]),
        }),
      );
      const index = emoteIndex(words);
      const all: EveningRates[] = [];
      for (const show of past) {
        const rates = await ratesOf(
          db,
          num,
          [Number(show["from_ms"]), Number(show["to_ms"])],
          (said) => findEmotes(said, [], index, ownOnly).length > 0,
        );
        if (rates !== null) all.push(rates);
      }
      return all;
    },
  };
}

const sizeOf: Readonly<Record<Exclude<SentKind, "message" | "follow">, string>> = {
  membership: "months",
  gift: "count",
  tip: "homeMinor",
  reaction: "value",
  raid: "viewers",
  host: "viewers",
};
/** How one show went; null where its log is gone, or never was. */
async function ratesOf(
  db: Database,
  channel: number,
  [fromMs, toMs]: readonly [number, number],
  carries: (text: string) => boolean,
): Promise<EveningRates | null> {
  const hours = Math.max(0.05, Math.min(24, (toMs - fromMs) / 3_600_000));
  const within = (table: "log" | "chat_log") => db(table).where({ channel }).whereBetween("at_ms", [fromMs, toMs]);
  const [counts, said, chat, sales] = await Promise.all([
    within("log")
      .whereIn("kind", [...sentKinds])
      .groupBy("kind")
      .select("kind", db.raw("count(*) as n")) as Promise<Row[]>,
    within("chat_log").count({ n: "*" }).countDistinct({ people: "viewer" }).first() as Promise<Row | undefined>,
    within("chat_log").orderBy("at_ms").limit(400).select("body") as Promise<Row[]>,
    db("sales").where({ channel }).whereBetween("at_ms", [fromMs, toMs]).orderBy("at_ms").limit(4_000).select("reward_id") as Promise<
      Row[]
    >,
  ]);
  const of = (kind: SentKind): number => Number(counts.find((c) => c["kind"] === kind)?.["n"] ?? 0);
  const messages = Number(said?.["n"] ?? 0) + of("message");
  if (messages + counts.reduce((sum, c) => sum + Number(c["n"]), 0) === 0) return null;
  const sizes: Partial<Record<SentKind, number[]>> = {};
  for (const [kind, field] of Object.entries(sizeOf) as [SentKind, string][]) {
    if (of(kind) === 0) continue;
    const rows = (await within("log").where({ kind }).orderBy("at_ms").limit(2_000).select("body")) as Row[];
    const values = rows
      .map((r) => Number((fromJson(r["body"]) as Record<string, unknown>)[field]))
      .filter((v) => Number.isFinite(v) && v >= 0);
    sizes[kind] = thinned(values);
  }
  const perHour = Object.fromEntries(sentKinds.map((kind) => [kind, (kind === "message" ? messages : of(kind)) / hours]));
  return {
    hours,
    chatters: Math.max(1, Math.min(100_000, Number(said?.["people"] ?? 0))),
    perHour: perHour as EveningRates["perHour"],
    emotes: chat.length === 0 ? 0 : chat.filter((r) => carries(text(r["body"]))).length / chat.length,
    sizes,
    buys: sales.length / hours,
    bought: thinned(sales.map((r) => text(r["reward_id"]))),
  };
}
