import { createPool } from "mysql2/promise";
import { prediction } from "../src/core/games/prediction/definition";
import { raffle } from "../src/core/games/raffle/definition";
import { channelId } from "../src/core/kernel/ids";
import { pointsDefaults } from "../src/core/points/settings";
import { showDefaults } from "../src/core/show/settings";
import { inProcessBus } from "../src/server/adapters/bus/in-process";
import { openDatabase } from "../src/server/adapters/mariadb/database";
import { mariadbEngineStore } from "../src/server/adapters/mariadb/engine-store";
import { checkLedgerOf } from "../src/server/adapters/mariadb/ledger-check";
import { readLedger, Runner } from "../src/server/engine/runner";
import { type Bench, ms, quantile, type Row } from "./row";

const pause = (forMs: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, forMs));
const backers = 50_000;
const line = (name: string, text: string) => ({ id: null, viewerId: name, name, roles: [], text, marks: [], target: "#bench" });

/** Fifty thousand backers are paid, and ten thousand a minute enter a draw: the engine's own runner on the real database. */
export async function stakes(env: Readonly<Record<string, string | undefined>>, { say }: Pick<Bench, "say">): Promise<Row[]> {
  const at = { host: "127.0.0.1", port: Number(env["IZZAM_DB_PORT"]), user: "izzam", password: env["IZZAM_DB_PASSWORD"] ?? "" };
  const name = env["IZZAM_DB_NAME"] ?? "";
  const pool = createPool({ ...at, database: name, connectionLimit: 8 });
  const db = openDatabase({ ...at, name });
  // The check of the ledger reads all of it, which may take longer than anything that somebody waits for.
  const patient = openDatabase({ ...at, name }, 1, true);
  const id = channelId("bench-stakes");
  const rows: Row[] = [];
  try {
    await db("channels").insert({ id, name: "Bench", salt: 1, revision: 1, hushed: false, created_ms: 1 });
    for (const [kind, settings] of [
      ["prediction", { ...prediction.defaults, least: 1, answers: "nothing", openMs: 3_600_000 }],
      ["raffle", { ...raffle.defaults, shake: false, answers: "nothing" }],
      ["points", { ...pointsDefaults, presence: { ...pointsDefaults.presence, points: 0 } }],
      ["show", showDefaults],
    ] as const) {
      const part = `s-${kind}`;
      await db("games").insert({ id: part, channel_id: id, kind, name: kind, draft: JSON.stringify(settings), version: 1, created_ms: 1 });
      await db("game_versions").insert({ game_id: part, version: 1, settings: JSON.stringify(settings), by: "x", at_ms: 1 });
    }
    const store = mariadbEngineStore(db);
    const row = await store.channel(id);
    if (row === null) throw new Error("no channel");
    const bus = inProcessBus();
    const told: number[] = [];
    bus.subscribe((_, p) => void (p.kind === "state" && p.game === "s-raffle" && told.push(performance.now())));
    const now = Date.now;
    const runner = new Runner({ store, clock: { now }, bus }, row, 0, await readLedger(store, row, now()));
    let k = 0;
    const command = (game: string, what: object) => runner.requests.command(game, "bench", `bench-${(k += 1)}-command`, what as never);
    const settled = async (): Promise<void> => {
      while (runner.busy) await pause(2);
    };
    const people = Array.from({ length: backers }, (_, i) => `b${i}`);
    for (let from = 0; from < backers; from += 1_000)
      await command("points", {
        do: "take-in",
        key: `s${from}`,
        why: "bench",
        viewers: people.slice(from, from + 1_000).map((v) => ({ id: v, name: v, by: 1_000 })),
      });
    say("  50,000 back an outcome …");
    await command("s-prediction", { do: "open", template: "" });
    const backedFrom = performance.now();
    for (const [i, who] of people.entries()) {
      runner.inbox.message(line(who, `!back ${i % 50 === 0 ? "B" : "A"} ${1 + (i % 90)}`));
      if (i % 500 === 0) await pause(1);
    }
    await settled();
    const backedMs = performance.now() - backedFrom;
    await command("s-prediction", { do: "lock" });
    // Somebody else meanwhile: a correction of points, asked → committed.
    const idle: number[] = [];
    const beside: number[] = [];
    const probe = async (into: number[], until: () => boolean): Promise<void> => {
      while (!until()) {
        const sent = performance.now();
        await command("points", { do: "adjust", viewer: "probe", name: "probe", by: 1, why: "bench" });
        into.push(performance.now() - sent);
        await pause(4);
      }
    };
    let stop = false;
    setTimeout(() => (stop = true), 2_000);
    await probe(idle, () => stop);
    const phase = (): unknown => runner.standing().games.find((g) => g.id === "s-prediction")?.view["phase"];
    let paid = false;
    const from = performance.now();
    await command("s-prediction", { do: "result", outcome: "A" });
    await Promise.all([
      probe(beside, () => paid),
      (async () => {
        while (phase() !== "done") await pause(5);
        await settled();
        paid = true;
      })(),
    ]);
    const paidMs = performance.now() - from;
    // The naive way: a transaction for each, of which some are measured.
    await pool.query("CREATE TABLE bench_paid (id INT PRIMARY KEY AUTO_INCREMENT, v INT, amount BIGINT)");
    await pool.query("CREATE TABLE bench_balance (v INT PRIMARY KEY, balance BIGINT)");
    await pool.query("INSERT INTO bench_balance VALUES (0,0)");
    const one = await pool.getConnection();
    const loopFrom = performance.now();
    const some = 400;
    for (let i = 0; i < some; i += 1) {
      await one.beginTransaction();
      await one.execute("UPDATE bench_balance SET balance = balance + 1 WHERE v = 0");
      await one.execute("INSERT INTO bench_paid (v, amount) VALUES (0, 1)");
      await one.commit();
    }
    one.release();
    const loopMs = ((performance.now() - loopFrom) / some) * (backers - backers / 50);
    rows.push(
      { what: "50,000 stakes in chat, one after another, committed", ours: ms(backedMs), budget: "told", met: null },
      {
        what: "50,000 backers gone through, 49,000 of them paid, in parts",
        ours: ms(paidMs),
        baseline: `${ms(loopMs)} row by row`,
        ratio: (loopMs / paidMs).toFixed(1),
        budget: "≥ 10 × faster than the row loop",
        met: loopMs / paidMs >= 10,
      },
      {
        what: "a correction of points meanwhile, p99, against idle",
        ours: ms(quantile(beside, 0.99)),
        baseline: ms(quantile(idle, 0.99)),
        ratio: (quantile(beside, 0.99) / quantile(idle, 0.99)).toFixed(1),
        budget: "≤ 2.5",
        met: quantile(beside, 0.99) / quantile(idle, 0.99) <= 2.5,
      },
    );
    say("  10,000 a minute enter a draw …");
    await command("s-raffle", { do: "open" });
    const sent: number[] = [];
    told.length = 0;
    const enterFrom = performance.now();
    for (let i = 0; i < 3_000; i += 1) {
      const early = enterFrom + i * 6 - performance.now();
      if (early > 1) await pause(early);
      sent.push(performance.now());
      runner.inbox.message(line(`e${i}`, "!in"));
    }
    await settled();
    const waits = sent.map((s, i) => (told[i] ?? Infinity) - s);
    rows.push({
      what: "10,000 entrants a minute: entry → committed and told to overlays",
      ours: `p50 ${ms(quantile(waits, 0.5))}, p99 ${ms(quantile(waits, 0.99))}`,
      budget: "p99 < 50 ms",
      met: quantile(waits, 0.99) < 50,
    });
    await runner.stop();
    const report = await checkLedgerOf(patient, id);
    rows.push({
      what: "ledger and pools after it all",
      ours: `${report.faults.length} faults`,
      budget: "0",
      met: report.faults.length === 0,
    });
    return rows;
  } finally {
    await pool.end();
    await Promise.all([db.destroy(), patient.destroy()]);
  }
}
