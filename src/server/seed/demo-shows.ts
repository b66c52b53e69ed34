import type { ChannelId } from "../../core/kernel/ids";
import type { EveningRates } from "../../core/lab/rates";
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
/** The last three shows, newest first: a usual one, one with a record raid, a quiet one. */
const shows = [
  { seed: 31, rates: evening(260, 70, 7), raid: null },
  { seed: 32, rates: evening(420, 130, 12), raid: { atMin: 52, viewers: 412, name: "harbour_lights" } },
  { seed: 33, rates: evening(140, 45, 4), raid: null },
] as const;

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
    new LabChannel(row, ledger, fromMs).record({
      seed,
      rates: { ...show.rates, hours: (toMs - fromMs) / 3_600_000 },
      lines,
      extra:
        raid === null
          ? []
          : [
              {
                afterMs: raid.atMin * 60_000,
                signal: { kind: "raid", viewer: { id: raid.name, name: raid.name, roles: [] }, viewers: raid.viewers },
              },
            ],
      onTurn: (turn) => rows.push(...turn.rows),
    });
    // The channel numbers its signals one after another, whenever they were.
    const first = Math.min(...rows.map((r) => r.seq));
    const numbered = rows.filter((r) => r.atMs <= toMs).map((r) => ({ ...r, seq: seq + 1 + r.seq - first }));
    seq = Math.max(seq, ...numbered.map((r) => r.seq));
    await store.append(channel, numbered);
  }
}
