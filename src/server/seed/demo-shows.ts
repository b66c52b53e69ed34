import { type ChannelId, gameId } from "../../core/kernel/ids";
import { chanceFrom, pick } from "../../core/kernel/chance";
import type { EveningRates } from "../../core/lab/rates";
import type { LabScript } from "../../core/module/lab";
import type { Database } from "../adapters/mariadb/database";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import { readChannel } from "../engine/recall";
import { readLedger } from "../engine/runner";
import { LabChannel } from "../lab/channel";
import type { LogRow } from "../ports/engine-store";

const lines = [
  "that rim is so even",
  "how long was the last firing",
  "is that the celadon from last week",
  "the kiln sounds happy today",
  "mine always crack at the foot",
  "slower on the pull, it wobbles",
  "what clay is this",
  "the cat is asleep on the bats again",
  "is it dry yet",
  "hello from the harbour",
  "look at that glaze run",
  "one more, one more",
  "I would drink tea from that",
  "wax resist or tape",
  "lovely shape",
  "the tall one survived",
];
const evening = (messages: number, chatters: number, tips: number): EveningRates => ({
  hours: 1,
  chatters,
  perHour: { message: messages, follow: 9, membership: 3, gift: 0.8, tip: tips, reaction: 8, raid: 0.3, host: 0.2 },
  emotes: 0.38,
  sizes: {
    membership: [1, 1, 2, 3, 7, 13],
    gift: [1, 1, 5],
    tip: [200, 300, 500, 500, 1_000, 2_000],
    reaction: [5, 10, 25, 50, 100],
    raid: [6, 14, 31],
    host: [4],
  },
  // What was sold in these shows stands in their sales already.
  buys: 0,
  bought: [],
});
/** For four minutes of the newest one nothing came from chat. */
const chatAway = {
  atMs: 67 * 60_000,
  ms: 4 * 60_000 + 12_000,
  body: {
    item: "chat",
    name: "Chat",
    says: "The connection was lost.",
    means: "What is typed in chat reaches no game. Everything else goes on.",
  },
};
/** The last three shows, newest first: a usual one, one with a record raid, a quiet one. */
const shows = [
  { seed: 31, rates: evening(260, 70, 7), raid: null, fault: chatAway },
  { seed: 32, rates: evening(420, 130, 12), raid: { atMin: 52, viewers: 412, name: "harbour_lights" }, fault: null },
  { seed: 33, rates: evening(140, 45, 4), raid: null, fault: null },
] as const;

type Raid = Readonly<{ atMin: number; viewers: number; name: string }>;
/** Somebody comes with many, and they write: for a minute chat is as it never was. */
function* raided({ atMin, viewers, name }: Raid, words: readonly string[]): LabScript {
  const chance = chanceFrom(412);
  const at = atMin * 60_000;
  yield { afterMs: at, signal: { kind: "raid", viewer: { id: name, name, roles: [] }, viewers } };
  for (let ms = 2_000; ms < 75_000; ms += 300 + chance() * (500 + ms / 40)) {
    const who = `harbour_${pick(chance, 60) + 1}`;
    const emote = words[pick(chance, words.length)] ?? "";
    const text = chance() < 0.6 ? `${emote} ${emote}` : `hello from the harbour ${emote}`;
    yield { afterMs: at + ms, signal: { kind: "message", viewer: { id: who, name: who, roles: [] }, text, marks: [] } };
  }
}

const cued = ["kiln-door", "golden-flock", "knock", "bell", "ash-rain", "shake-pot"];
/** What was fired by hand in the course of an evening. */
function* fired(seed: number, ms: number): LabScript {
  const chance = chanceFrom(seed);
  for (let at = 9 * 60_000; at < ms - 300_000; at += (4 + chance() * 14) * 60_000) {
    const by = chance() < 0.6 ? "spongebearer" : "kilnkeeper";
    const cueId = cued[pick(chance, cued.length)] ?? "bell";
    yield { afterMs: Math.round(at), signal: { kind: "cue", cueId, by, via: chance() < 0.7 ? "key" : "click", viewer: null } };
  }
}

/** Full logs of the last shows, played by the odds lab with the channel's own rules from seeds: the same every time. */
export async function fillShows(db: Database, channel: ChannelId, nowMs: number): Promise<void> {
  const store = mariadbEngineStore(db);
  const row = await readChannel(store, channel);
  if (row === null) return;
  const ledger = await readLedger(store, row, nowMs);
  const { num } = (await db("channels").where({ id: channel }).first("num")) as { num: number };
  const past = (await db("records")
    .where({ channel: num, kind: "show" })
    .orderBy("from_ms", "desc")
    .limit(shows.length)) as readonly Readonly<{
    from_ms: number;
    to_ms: number;
  }>[];
  let seq = await store.lastSeq(channel);
  for (const [i, show] of shows.entries()) {
    const at = past[i];
    if (at === undefined) return;
    const [fromMs, toMs] = [Number(at.from_ms), Number(at.to_ms)];
    const rows: LogRow[] = [];
    const { raid, seed } = show;
    // As it was then: nobody was met later.
    const then = { ...ledger, attended: (ledger.attended ?? []).filter((a) => a.lastMs < fromMs) };
    new LabChannel(row, then, fromMs).record({
      seed,
      rates: { ...show.rates, hours: (toMs - fromMs) / 3_600_000 },
      lines,
      by: "kilnkeeper",
      extra: [
        ...fired(seed, toMs - fromMs),
        ...(raid === null
          ? []
          : raided(
              raid,
              row.words.map((w) => w.word),
            )),
      ].sort((a, b) => a.afterMs - b.afterMs),
      onTurn: (turn) => rows.push(...turn.rows),
    });
    // The channel numbers its signals one after another, whenever they were.
    const first = Math.min(...rows.map((r) => r.seq));
    const numbered = rows.filter((r) => r.atMs <= toMs).map((r) => ({ ...r, seq: seq + 1 + r.seq - first }));
    seq = Math.max(seq, ...numbered.map((r) => r.seq));
    const { fault } = show;
    const away = (r: LogRow): boolean =>
      fault !== null && r.source === "chat" && r.atMs >= fromMs + fault.atMs && r.atMs < fromMs + fault.atMs + fault.ms;
    await store.append(
      channel,
      numbered.filter((r) => !away(r)),
    );
    if (fault === null) continue;
    const kept = { kind: "fault", viewer: null, fromMs: fromMs + fault.atMs, toMs: fromMs + fault.atMs + fault.ms, body: fault.body };
    await store.commit(channel, { rows: [], states: [], kept: [{ ...kept, gameId: gameId("show"), seq }] });
  }
}
