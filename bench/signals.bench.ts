import { Agent, request as httpRequest } from "node:http";
import { chromium as playwright } from "@playwright/test";
import { createPool } from "mysql2/promise";
import { channelId } from "../src/core/kernel/ids";
import { openDatabase } from "../src/server/adapters/mariadb/database";
import { mariadbEngineStore } from "../src/server/adapters/mariadb/engine-store";
import { sign } from "../src/server/engine/webhook";
import { type Bench, browserArgs, ms, quantile, type Row, type Stack, thousands } from "./row";

const pause = (forMs: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, forMs));
const perSecond = (n: number): string => (n < 10_000 ? `${Math.round(n)}/s` : thousands(n));

/** Sends signed events as fast as asked, over connections that stay open. */
function sender(stack: Stack) {
  const secret = stack.env["IZZAM_PRACTICE_SECRET"] ?? "";
  const agent = new Agent({ keepAlive: true, maxSockets: 256 });
  const url = new URL(`${stack.base}/events/saltmarsh-kiln`);
  let n = 0;
  const event = () => {
    n += 1;
    const viewer = { id: `viewer${n % 5_000}`, name: `viewer${n % 5_000}` };
    return { specversion: "1.0", id: `bench-${n}`, source: "urn:bench", type: "app.izzam.follow.v1", data: { viewer } };
  };
  const send = (count: number): Promise<number> =>
    new Promise((resolve, reject) => {
      const body = JSON.stringify(count === 1 ? event() : Array.from({ length: count }, event));
      const id = `msg_${n}_${Math.random()}`;
      const at = Math.floor(Date.now() / 1000);
      const req = httpRequest(
        url,
        {
          method: "POST",
          agent,
          headers: {
            "content-type": count === 1 ? "application/cloudevents+json" : "application/cloudevents-batch+json",
            "content-length": Buffer.byteLength(body),
            "webhook-id": id,
            "webhook-timestamp": String(at),
            "webhook-signature": sign(secret, id, at, body),
          },
        },
        (res) => {
          res.resume();
          res.on("end", () => (res.statusCode === 200 ? resolve(count) : reject(new Error(`status ${res.statusCode}`))));
        },
      );
      req.on("error", reject);
      req.end(body);
    });
  return { send, close: () => agent.destroy() };
}

async function rate(forS: number, queues: number, work: () => Promise<number>): Promise<number> {
  const until = performance.now() + forS * 1000;
  let done = 0;
  const from = performance.now();
  await Promise.all(
    Array.from({ length: queues }, async () => {
      while (performance.now() < until) {
        // Read after the wait: the queues share the sum.
        const more = await work();
        done += more;
      }
    }),
  );
  return done / ((performance.now() - from) / 1000);
}

/** Signals through endpoint, rules and commit, beside the database's own durable update; then how soon they show. */
export async function measure({ chromium, startStack, say }: Bench): Promise<Row[]> {
  const stack = await startStack({ name: "bench" });
  const { env } = stack;
  const at = { host: "127.0.0.1", port: Number(env["IZZAM_DB_PORT"]), user: "izzam", password: env["IZZAM_DB_PASSWORD"] ?? "" };
  const name = env["IZZAM_DB_NAME"] ?? "";
  const pool = createPool({ ...at, database: name, connectionLimit: 8 });
  const { send, close } = sender(stack);
  const rows: Row[] = [];
  try {
    await pool.query("CREATE TABLE bench_rows (id INT PRIMARY KEY, n BIGINT NOT NULL)");
    await pool.query("INSERT INTO bench_rows VALUES (0,0),(1,0),(2,0),(3,0),(4,0),(5,0),(6,0),(7,0)");
    let k = 0;
    const update = async (): Promise<number> => {
      await pool.execute("UPDATE bench_rows SET n = n + 1 WHERE id = ?", [(k += 1) % 8]);
      return 1;
    };
    await rate(1, 8, update);
    await rate(1, 64, () => send(1));
    // By turns, so that the machine's neighbours disturb both alike.
    const raw: number[] = [];
    const single: number[] = [];
    const batch: number[] = [];
    for (let run = 0; run < 3; run += 1) {
      raw.push(await rate(2.5, 8, update));
      single.push(await rate(2.5, 128, () => send(1)));
      batch.push(await rate(2.5, 8, () => send(100)));
    }
    const [base, one, hundred] = [quantile(raw, 0.5), quantile(single, 0.5), quantile(batch, 0.5)];
    say(`  single-row update ${perSecond(base)}, events ${perSecond(one)}, in hundreds ${perSecond(hundred)}`);
    rows.push({
      what: "events, one a request: verify, rules, commit",
      ours: perSecond(one),
      baseline: perSecond(base),
      ratio: (one / base).toFixed(2),
      budget: "≥ 0.50 of the single-row update",
      met: one / base >= 0.5,
    });
    rows.push({
      what: "events, a hundred a request",
      ours: perSecond(hundred),
      baseline: perSecond(base),
      ratio: (hundred / base).toFixed(2),
      budget: "told",
      met: null,
    });
    const waits: number[] = [];
    const from = performance.now();
    const open: Promise<void>[] = [];
    for (let n = 0; performance.now() - from < 6_000;) {
      const due = ((performance.now() - from) / 1000) * 1_000;
      for (; n < due; n += 1) {
        const sentMs = performance.now();
        open.push(send(1).then(() => void waits.push(performance.now() - sentMs)));
      }
      await pause(2);
    }
    await Promise.all(open);
    rows.push({
      what: "event sent to answered (committed), at 1,000/s: p50, p99",
      ours: `${ms(quantile(waits, 0.5))}, ${ms(quantile(waits, 0.99))}`,
      budget: "p99 < 50 ms",
      met: quantile(waits, 0.99) < 50,
    });
    rows.push(...(await toFrame(stack, chromium, send)));
    rows.push(await recovery(stack, at, name, send));
    return rows;
  } finally {
    close();
    await pool.end();
    await stack.stop();
  }
}

async function toFrame(stack: Stack, chromium: string, send: (count: number) => Promise<number>): Promise<Row[]> {
  const browser = await playwright.launch({ executablePath: chromium, args: browserArgs });
  try {
    const page = await browser.newPage({ viewport: { width: 1920, height: 1080 } });
    await page.goto(`${stack.base}/sign-in`);
    await page.getByRole("button", { name: "Enter as owner" }).click();
    await page.waitForURL(/prepare/);
    const headers = { origin: stack.base };
    const made = (await (
      await page.request.post(`${stack.base}/api/overlays/main-stage/link`, { headers, data: { do: "copy" } })
    ).json()) as { value: { token: string } };
    await page.addInitScript(() => {
      const seenAt: number[] = [];
      const Real = window.WebSocket;
      class Watched extends Real {
        constructor(url: string | URL) {
          super(url);
          this.addEventListener("message", (event) => {
            const message = JSON.parse(String(event.data)) as { type: string; items?: { game: string }[] };
            const hits = message.items?.filter((i) => i.game === "old-spall").length ?? 0;
            if (hits > 0)
              requestAnimationFrame(() =>
                setTimeout(() => {
                  for (let i = 0; i < hits; i += 1) seenAt.push(performance.timeOrigin + performance.now());
                }),
              );
          });
        }
      }
      Object.assign(window, { WebSocket: Watched, seenAt });
    });
    await page.goto(`${stack.base}/overlay#${made.value.token}`);
    await pause(2_500);
    const sentAt: number[] = [];
    for (let i = 0; i < 120; i += 1) {
      sentAt.push(performance.timeOrigin + performance.now());
      await send(1);
      await pause(40);
    }
    await pause(1_000);
    const seenAt = await page.evaluate(() => (window as unknown as { seenAt: number[] }).seenAt);
    const waits = sentAt.map((sent, i) => (seenAt[i] ?? NaN) - sent).filter(Number.isFinite);
    return [
      {
        what: `event sent to the overlay’s frame, at 20/s, boss and wall together: p50, p99 of ${waits.length}`,
        ours: `${ms(quantile(waits, 0.5))}, ${ms(quantile(waits, 0.99))}`,
        budget: "told",
        met: null,
      },
    ];
  } finally {
    await browser.close();
  }
}

/** Killed as by a power cut with 100,000 signals in the log, until the first one is accepted again. */
async function recovery(
  stack: Stack,
  at: { host: string; port: number; user: string; password: string },
  name: string,
  send: (count: number) => Promise<number>,
): Promise<Row> {
  const db = openDatabase({ ...at, name });
  const store = mariadbEngineStore(db);
  const from = (await store.lastSeq(channelId("saltmarsh-kiln"))) + 1_000;
  for (let i = 0; i < 100_000; i += 1_000)
    await store.append(
      channelId("saltmarsh-kiln"),
      Array.from({ length: 1_000 }, (_, k) => ({
        seq: from + i + k,
        atMs: Date.now(),
        kind: "follow",
        source: "filled",
        id: `filled-${i + k}`,
        viewer: { id: "ada", name: "ada", roles: [] },
        body: {},
      })),
    );
  await db.destroy();
  await stack.kill("engine");
  const begun = performance.now();
  const revived = stack.revive("engine");
  for (;;) {
    try {
      await send(1);
      break;
    } catch {
      await pause(20);
    }
  }
  const took = performance.now() - begun;
  await revived;
  return {
    what: "engine killed, 100,000 signals in the log, until the first is accepted",
    ours: ms(took),
    budget: "< 3 s",
    met: took < 3_000,
  };
}
