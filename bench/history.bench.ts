import { createConnection } from "mysql2/promise";
import { channelId } from "../src/core/kernel/ids";
import { openDatabase } from "../src/server/adapters/mariadb/database";
import { mariadbEngineStore } from "../src/server/adapters/mariadb/engine-store";
import { checkLedgerOf } from "../src/server/adapters/mariadb/ledger-check";
import type { LogRow } from "../src/server/ports/engine-store";
import { type Bench, median, ms, type Row } from "./row";

const million = 1_000_000;
const words = [
  "that rim!",
  "good evening wobblePot",
  "how hot is it in there?",
  "lol",
  "the glaze is running again 🔥",
  "is this the same clay as on Friday, or the new one?",
];

/** What years of history cost: reading the ledgerView at a million sales, and the room a million chat lines take. */
export async function measure({ startStack, say }: Bench): Promise<Row[]> {
  const stack = await startStack({ name: "bench" });
  const at = {
    host: "127.0.0.1",
    port: Number(stack.env["IZZAM_DB_PORT"]),
    user: "izzam",
    password: stack.env["IZZAM_DB_PASSWORD"] ?? "",
    name: stack.env["IZZAM_DB_NAME"] ?? "",
  };
  const patient = openDatabase(at, 2, true);
  const db = openDatabase(at);
  const id = channelId("bench-history");
  const rows: Row[] = [];
  const raw = await createConnection({ host: at.host, port: at.port, user: at.user, password: at.password, database: at.name });
  try {
    say("  a million sales …");
    await db("channels").insert({ id, name: "Bench", salt: 1, revision: 1, hushed: false, created_ms: 1 });
    const [{ num }] = (await db("channels").where({ id }).select("num")) as [{ num: number }];
    await patient.raw(
      "insert into viewers (channel, ext, name, has_account, balance) select ?, concat('h', seq), concat('h', seq), 1, 1000000 from seq_1_to_50000",
      [num],
    );
    const [{ first }] = (await db("viewers").where({ channel: num }).min("id as first")) as unknown as [{ first: number }];
    // Two years, the newest last: some fourteen hundred a day.
    await patient.raw(
      `insert into sales (channel, seq, at_ms, reward_id, reward_name, viewer, price, held, text, state, show_id, decided_by, times, shown)
       select ?, seq, ? - (1000000 - seq) * 63000, concat('r', seq % 40), 'Reward', ? + seq % 50000, 1, 0, '', 'done', concat('show', floor(seq / 3000)), '', 0, 1
       from seq_1_to_1000000`,
      [num, Date.now(), first],
    );
    await patient.raw(
      "insert into daily_points (channel, day, made, spent, from_seq) select channel, floor(at_ms / 86400000), 0, count(*), min(seq) from sales where channel = ? group by 1, 2",
      [num],
    );
    await patient.raw(
      "insert into show_points (channel, show_id, made, spent, from_seq) select channel, show_id, 0, count(*), min(seq) from sales where channel = ? group by 1, 2",
      [num],
    );
    const store = mariadbEngineStore(db);
    const reads: number[] = [];
    const scans: number[] = [];
    for (let i = 0; i < 7; i += 1) {
      const from = performance.now();
      const ledgerView = await store.ledgerView(id, { showId: "show332", sinceMs: Date.now() - 7 * 86_400_000 });
      reads.push(performance.now() - from);
      if (ledgerView.soldInShow.length === 0 || ledgerView.accounts.length < 50_000) throw new Error("the ledgerView is not all there");
      const since = performance.now();
      await raw.query("select sum(price) from sales where channel = ?", [num]);
      scans.push(performance.now() - since);
    }
    rows.push({
      what: "ledgerView read again, 50,000 accounts, a million sales",
      ours: ms(median(reads)),
      baseline: `${ms(median(scans))} one sum over all sales`,
      ratio: (median(reads) / median(scans)).toFixed(2),
      budget: "< 300 ms",
      met: median(reads) < 300,
    });
    const from = performance.now();
    await checkLedgerOf(patient, id);
    rows.push({ what: "ledger of it checked", ours: ms(performance.now() - from), budget: "told", met: null });

    say("  a million chat lines …");
    const channel = channelId("bench-chat");
    await db("channels").insert({ id: channel, name: "Bench", salt: 1, revision: 1, hushed: false, created_ms: 1 });
    const size = async (): Promise<number> => {
      await raw.query("analyze table chat_log");
      const [[row]] = (await raw.query(
        "select sum(data_length + index_length) as n from information_schema.tables where table_schema = database() and table_name = 'chat_log'",
      )) as unknown as [[{ n: string }]];
      return Number(row.n);
    };
    const before = await size();
    const begun = Date.now() - million * 20;
    for (let i = 0; i < million; i += 1_000)
      await store.append(
        channel,
        Array.from({ length: 1_000 }, (_, k): LogRow => {
          const n = i + k;
          const viewer = { id: `c${(n * 7_919) % 5_000}`, name: `c${(n * 7_919) % 5_000}`, roles: [] };
          return {
            seq: n + 1,
            atMs: begun + n * 20,
            kind: "message",
            source: "chat",
            id: null,
            viewer,
            body: { text: words[n % words.length] },
          };
        }),
      );
    const after = await size();
    rows.push({
      what: "a million chat lines on disk",
      ours: `${Math.round((after - before) / 1e6)} MB`,
      budget: "≤ 150 MB",
      met: after - before <= 150e6,
    });
  } finally {
    await raw.end();
    await Promise.all([db.destroy(), patient.destroy()]);
    await stack.stop();
  }
  return rows;
}
