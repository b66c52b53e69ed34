import { Readable } from "node:stream";
import { createConnection } from "mysql2/promise";
import { channelId } from "../src/core/kernel/ids";
import { openDatabase } from "../src/server/adapters/mariadb/database";
import { mariadbEngineStore } from "../src/server/adapters/mariadb/engine-store";
import type { LogRow } from "../src/server/ports/engine-store";
import { type Bench, median, type Row, thousands } from "./row";

const rowsEach = 20_000;

/** Appending chat lines to the log, beside the database's own bulk load of the same rows. */
export async function measure({ startStack }: Bench): Promise<Row[]> {
  const stack = await startStack({ name: "bench" });
  const { env } = stack;
  const at = {
    host: "127.0.0.1",
    port: Number(env["IZZAM_DB_PORT"]),
    user: "izzam",
    password: env["IZZAM_DB_PASSWORD"] ?? "",
    name: env["IZZAM_DB_NAME"] ?? "",
  };
  const db = openDatabase(at);
  const store = mariadbEngineStore(db);
  const raw = await createConnection({ host: at.host, port: at.port, user: at.user, password: at.password, database: at.name });
  try {
    const row = (seq: number): LogRow => ({
      seq,
      atMs: 1_790_000_000_000 + seq,
      kind: "message",
      source: "chat",
      id: `5f0c2b1e-0000-4000-8000-${String(seq).padStart(12, "0")}`,
      viewer: { id: "mossy_teapot", name: "mossy_teapot", roles: ["member"] },
      body: { name: "mossy_teapot", roles: ["member"], text: "that rim! wobblePot wobblePot" },
    });
    for (let run = 0; run < 4; run += 1)
      await db("channels").insert({ id: `ours${run}`, name: "Bench", salt: 1, revision: 1, hushed: false, created_ms: 1 });
    const ours: number[] = [];
    const bulk: number[] = [];
    for (let run = 0; run < 4; run += 1) {
      const rows = Array.from({ length: rowsEach }, (_, i) => row(run * rowsEach + i + 1));
      const from = performance.now();
      for (let i = 0; i < rows.length; i += 1_000) await store.append(channelId(`ours${run}`), rows.slice(i, i + 1_000));
      ours.push(rowsEach / ((performance.now() - from) / 1000));
      const text = rows.map((r) => [run + 1_000, r.atMs, r.seq, 1, 2, (r.body as { text: string }).text].join("\t"));
      const since = performance.now();
      // In the same batches: a batch is what a crash may cost, for both.
      for (let i = 0; i < text.length; i += 1_000)
        await raw.query({
          sql: `LOAD DATA LOCAL INFILE ? INTO TABLE chat_log CHARACTER SET utf8mb4 (channel, at_ms, seq, viewer, roles, body)`,
          values: ["rows"],
          infileStreamFactory: () => Readable.from([Buffer.from(text.slice(i, i + 1_000).join("\n"))]),
        } as never);
      bulk.push(rowsEach / ((performance.now() - since) / 1000));
    }
    const [mine, theirs] = [median(ours), median(bulk)];
    return [
      {
        what: "append to the log, batches of 1,000",
        ours: thousands(mine),
        baseline: thousands(theirs),
        ratio: (mine / theirs).toFixed(2),
        budget: "≥ 0.80 of LOAD DATA",
        met: mine / theirs >= 0.8,
      },
    ];
  } finally {
    await raw.end();
    await db.destroy();
    await stack.stop();
  }
}
