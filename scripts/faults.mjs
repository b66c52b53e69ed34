// Kills engine and database at random moments under sales, tips, hits and refunds, and counts what came of it:
//   npm run faults -- --rounds 200 --seed 7
import { randomBytes, createHmac } from "node:crypto";
import { parseArgs } from "node:util";
import { ensureBuilt } from "./build.mjs";
import { checkLedger } from "./ledger.mjs";
import { startStack } from "./lib/stack.mjs";
import { endWith, isMain, say } from "./lib/say.mjs";
import { databasePrograms, soundPrograms, ensurePackages, ensureSystem } from "./lib/system.mjs";

const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
/** mulberry32: the same seed, the same kills. */
function chanceFrom(seed) {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), a | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
const channel = "saltmarsh-kiln";
const viewers = ["mossy_teapot", "quietferry", "oatcake_ada", "amber_kettle", "hollow_lantern"];
const words = ["!slap", "!bell", "!hum", "!drip", "!kettle", "!gull", "!plate", "!creak", "!tide"];

/** As a part of ./test: a few rounds, another seed each time, which is told so that it can be run again. */
export async function faults() {
  await ensureBuilt();
  const [rounds, seed] = [6, Math.floor(Math.random() * 1e6)];
  const { wrong, sales } = await faultRounds({ rounds, seed });
  for (const what of wrong) say(`✗ ${what}`);
  say(
    `${rounds} rounds of kills, seed ${seed}, ${sales} sales among it: ${wrong.length === 0 ? "nothing lost, nothing doubled" : `${wrong.length} wrong`}`,
  );
  return { passed: wrong.length === 0 ? 1 : 0, failed: wrong.length === 0 ? 0 : 1 };
}

/** Rounds of work with a kill somewhere within; afterwards everything that was answered is there, once. Tells what was wrong. */
export async function faultRounds({ rounds, seed }) {
  const chance = chanceFrom(seed);
  const pick = (list) => list[Math.floor(chance() * list.length)];
  const wrong = [];
  const stack = await startStack({ name: "faults", log: "error" });
  const { createConnection } = await import("mysql2/promise");
  const sql = async (text, values = []) => {
    const connection = await createConnection({
      host: "127.0.0.1",
      port: stack.database.port,
      user: "izzam",
      password: stack.env.IZZAM_DB_PASSWORD,
      database: stack.databaseName,
    });
    try {
      return (await connection.query(text, values))[0];
    } finally {
      await connection.end();
    }
  };
  const key = Buffer.from(stack.env.IZZAM_PRACTICE_SECRET.slice("whsec_".length), "base64");
  /** Sent until it is answered, as a platform does it; each delivery with a name of its own. */
  const event = async (id, type, data) => {
    const body = JSON.stringify({ specversion: "1.0", id, source: "urn:faults", type, data });
    for (let i = 0; i < 400; i += 1) {
      const at = String(Math.floor(Date.now() / 1000));
      const delivery = `f-${randomBytes(8).toString("hex")}`;
      const signature = `v1,${createHmac("sha256", key).update(`${delivery}.${at}.${body}`).digest("base64")}`;
      const status = await fetch(`${stack.base}/events/${channel}`, {
        method: "POST",
        body,
        headers: {
          "content-type": "application/cloudevents+json",
          "webhook-id": delivery,
          "webhook-timestamp": at,
          "webhook-signature": signature,
        },
        signal: AbortSignal.timeout(15_000),
      }).then(
        (r) => r.status,
        () => 0,
      );
      if (status === 200) return true;
      // A sender takes these for final; none of them may come from a fault.
      if (status !== 0 && status !== 503) {
        wrong.push(`${id} was answered with ${status}`);
        return false;
      }
      await wait(150);
    }
    wrong.push(`${id} was never taken`);
    return false;
  };
  const saySomething = (as, text, id) =>
    fetch(`${stack.practice}/say`, { method: "POST", body: JSON.stringify({ as, text, id }) }).catch(() => undefined);
  /** An operator of the demo, signed in by one click. */
  const cookie = async () => {
    const response = await fetch(`${stack.base}/api/demo-sign-in`, {
      method: "POST",
      headers: { "content-type": "application/json", origin: stack.base },
      body: JSON.stringify({ role: "owner" }),
    });
    return (response.headers.get("set-cookie") ?? "").split(";")[0];
  };
  const session = await cookie();
  const command = (game, id, what) =>
    fetch(`${stack.base}/api/games/${game}/command`, {
      method: "POST",
      headers: { "content-type": "application/json", origin: stack.base, cookie: session },
      body: JSON.stringify({ id, command: what }),
      signal: AbortSignal.timeout(15_000),
    })
      .then((r) => r.json())
      .catch(() => null);

  let sales = 0;
  const sent = [];
  const answered = [];
  try {
    for (let round = 0; round < rounds && wrong.length === 0; round += 1) {
      // Those who buy in chat must be heard: after a restart the engine joins again first.
      for (let i = 0; i < 200; i += 1) {
        const state = await fetch(`${stack.practice}/state`)
          .then((r) => r.json())
          .catch(() => ({ connected: 0 }));
        if (state.connected > 0) break;
        await wait(50);
      }
      const jobs = [];
      const send = async (id, type, data) => {
        sent.push(id);
        if (await event(id, type, data)) answered.push(id);
      };
      for (let i = 0; i < 6; i += 1) {
        const viewer = pick(viewers);
        const who = { id: viewer, name: viewer };
        jobs.push(
          chance() < 0.5
            ? send(`${seed}-${round}-${i}`, "app.izzam.tip.v1", {
                viewer: who,
                amountMinor: 100 + Math.floor(chance() * 900),
                currency: "EUR",
              })
            : send(`${seed}-${round}-${i}`, "app.izzam.follow.v1", { viewer: who }),
        );
        jobs.push(saySomething(viewer, pick(words), `m-${seed}-${round}-${i}`));
      }
      jobs.push(command("old-spall", `hit-${seed}-${round}`, { do: "damage", amount: 1 + Math.floor(chance() * 40) }));
      const [sale] = await sql("select seq from sales where state = 'done' order by rand(?) limit 1", [round]).catch(() => []);
      if (sale !== undefined) jobs.push(command("rewards", `back-${seed}-${round}`, { do: "sale", sale: `s${sale.seq}`, what: "refund" }));
      await wait(chance() * 60);
      const target = chance() < 0.6 ? "engine" : "database";
      await stack.kill(target);
      await wait(chance() * 80);
      await stack.revive(target);
      await Promise.all(jobs);
      for (let i = 0; i < 100; i += 1) {
        const [lease] = await sql("select owner from leases l join channels c on c.num = l.channel where c.id = ?", [channel]);
        if (lease?.owner) break;
        await wait(50);
      }
      if (!checkLedger(stack.env, [], true)) wrong.push(`round ${round} (${target} killed): the ledger does not balance`);
      if ((round + 1) % 10 === 0) say(`  ${round + 1} rounds, ${answered.length} of ${sent.length} events answered`);
    }
    await wait(1_500);
    // What was answered is there, and once; what comes again changes nothing.
    const rows = await sql("select body from log where source = 'event' and kind in ('tip', 'follow')");
    const paid = await sql(
      "select count(*) as n from transfers where reason = 'signal' and at_ms >= (select min(at_ms) from log where source = 'event')",
    );
    if (rows.length !== sent.length) wrong.push(`${sent.length} events were sent, ${rows.length} are in the log`);
    // Within what a day allows, each pays once, and its own row says so.
    const earning = rows.filter((r) => r.body.includes('"points/earned"')).length;
    if (Number(paid[0].n) !== earning) wrong.push(`${earning} events paid; ${paid[0].n} payments are written`);
    const twice = await sql("select channel, id, count(*) as n from once group by channel, id having n > 1");
    if (twice.length > 0) wrong.push("an id stands twice");
    for (const id of sent.slice(0, 20)) await event(id, "app.izzam.follow.v1", { viewer: { id: viewers[0], name: viewers[0] } });
    const after = await sql("select body from log where source = 'event' and kind in ('tip', 'follow')");
    if (after.length !== rows.length) wrong.push(`${after.length - rows.length} events were taken a second time`);
    const negative = await sql("select ext, balance from viewers where balance < 0");
    if (negative.length > 0) wrong.push(`below none: ${negative.map((n) => n.ext).join(", ")}`);
    sales = Number((await sql("select count(*) as n from sales where at_ms >= (select min(at_ms) from log where source = 'event')"))[0].n);
    // The boss stands where its blows brought it.
    const blows = await sql("select body from records where game_id = 'old-spall' and kind in ('hit', 'heal', 'undo') order by id");
    for (let i = 1; i < blows.length; i += 1) {
      const [before, now] = [JSON.parse(blows[i - 1].body), JSON.parse(blows[i].body)];
      if (before.after > 0 && now.before !== before.after)
        wrong.push(`blow ${i} begins at ${now.before}, the one before it ended at ${before.after}`);
    }
  } finally {
    await stack.stop();
  }
  return { wrong, sales };
}

if (isMain(import.meta.url)) {
  (async () => {
    const { values } = parseArgs({ options: { rounds: { type: "string", default: "20" }, seed: { type: "string" } } });
    const [rounds, seed] = [Number(values.rounds), Number(values.seed ?? Math.floor(Math.random() * 1e6))];
    await ensureSystem([...databasePrograms, ...soundPrograms]);
    await ensurePackages();
    await ensureBuilt();
    say(`${rounds} rounds, seed ${seed}`);
    const { wrong, sales } = await faultRounds({ rounds, seed });
    for (const what of wrong) say(`✗ ${what}`);
    say(
      wrong.length === 0
        ? `Nothing was lost, and nothing was done twice; ${sales} sales among it.`
        : `${wrong.length} wrong; again with --seed ${seed}`,
    );
    if (wrong.length > 0) process.exitCode = 1;
  })().catch(endWith);
}
