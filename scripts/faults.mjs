// Kills engine and database at random moments under sales, tips, hits and refunds, and counts what came of it:
//   npm run faults -- --rounds 200 --seed 7
import { randomBytes, createHmac } from "node:crypto";
import { parseArgs } from "node:util";
import { ensureBuilt } from "./build.mjs";
import { backupUnderShow } from "./backup-show.mjs";
import { fullDisk } from "./full-disk.mjs";
import { checkLedger } from "./ledger.mjs";
import { checkAll, payOut } from "./lib/after-kills.mjs";
import { pagesOf } from "./lib/pages.mjs";
import { startStack } from "./lib/stack.mjs";
import { endWith, isMain, say } from "./lib/say.mjs";
import { backupPrograms, databasePrograms, soundPrograms, ensurePackages, ensureSystem } from "./lib/system.mjs";

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
const viewers = ["mossy_teapot", "quietferry", "oatcake_ada", "raku_rita", "otterly_fine"];
/** They buy on their pages alone, so that what is sold to them is what their pages were told. */
const buyers = ["hemlock_hat", "gusset", "fogbank"];
const rewards = ["clay-slap", "bell", "wheel-hum", "drip", "kettle", "tide", "gull", "door", "sherd", "tap"];
const words = ["!slap", "!bell", "!hum", "!drip", "!kettle", "!gull", "!plate", "!creak", "!tide"];

const inWords = (done) =>
  Object.entries(done)
    .map(([what, n]) => `${n} ${what}`)
    .join(", ");

/** As a part of ./test: a few rounds, another seed each time, which is told so that it can be run again. */
export async function faults() {
  await ensureBuilt();
  const [rounds, seed] = [6, Math.floor(Math.random() * 1e6)];
  const { wrong, done } = await faultRounds({ rounds, seed });
  for (const what of wrong) say(`✗ ${what}`);
  say(
    `${rounds} rounds of kills, seed ${seed} (${inWords(done)}): ${wrong.length === 0 ? "nothing lost, nothing doubled" : `${wrong.length} wrong`}`,
  );
  const parts = [await backupUnderShow(), await fullDisk()];
  const sum = (what) => parts.reduce((n, part) => n + part[what], 0);
  return {
    passed: (wrong.length === 0 ? 1 : 0) + sum("passed"),
    failed: (wrong.length === 0 ? 0 : 1) + sum("failed"),
    failures: [...wrong, ...parts.flatMap((part) => part.failures)],
  };
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
  const saySomething = async (as, text, id) => {
    const said = await fetch(`${stack.practice}/say`, { method: "POST", body: JSON.stringify({ as, text, id }) }).then((r) => r.json());
    if (said.ok !== true) wrong.push(`${as} is nobody in the rig's chat`);
  };
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
  /** Asked until it is answered, with one id: a "not yet" is no answer. */
  const command = async (game, id, what) => {
    for (let i = 0; i < 100; i += 1) {
      const said = await fetch(`${stack.base}/api/games/${game}/command`, {
        method: "POST",
        headers: { "content-type": "application/json", origin: stack.base, cookie: session },
        body: JSON.stringify({ id, command: what }),
        signal: AbortSignal.timeout(15_000),
      }).then(
        async (r) => (r.status === 503 ? null : await r.json()),
        () => null,
      );
      if (said !== null) return said;
      await wait(200);
    }
    wrong.push(`${id} was never answered`);
    return null;
  };

  /** What each kind of action came to: a run in which one of them never worked has tested nothing of it. */
  const done = {
    tips: 0,
    follows: 0,
    "bought on pages": 0,
    "bought in chat": 0,
    hits: 0,
    refunds: 0,
    "entries on pages": 0,
    "stakes on pages": 0,
    payouts: 0,
  };
  const { pageOf, buy, act } = await pagesOf({ base: stack.base, channel, prices: () => prices, saySomething, wrong });
  const sent = [];
  const answered = [];
  const fromMs = Date.now();
  let prices = new Map();
  try {
    const [{ settings }] = await sql("select settings from game_versions where game_id = 'kiln-rewards' order by version desc limit 1");
    prices = new Map((typeof settings === "string" ? JSON.parse(settings) : settings).rewards.map((r) => [r.id, r.price]));
    const pages = await Promise.all(buyers.map(pageOf));
    for (const name of [...viewers, ...buyers]) {
      const given = await command("kiln-points", `faults-give-${seed}-${name}`, {
        do: "adjust",
        viewer: name,
        name,
        by: 20_000,
        why: "to spend",
      });
      if (given?.ok !== true) wrong.push(`${name} has nothing to spend: ${given?.refusal?.code}`);
    }
    const draw = await command("weekly-mug", `faults-open-${seed}`, { do: "open" });
    if (draw?.ok !== true) wrong.push(`the draw was not opened: ${draw?.refusal?.code}`);
    const asked = { do: "ask", title: "Will it hold?", outcomes: ["It holds", "It cracks"], openMs: 86_400_000 };
    const question = await command("kiln-prediction", `faults-ask-${seed}`, asked);
    if (question?.ok !== true) wrong.push(`the prediction was not opened: ${question?.refusal?.code}`);
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
      for (const page of pages) {
        // One after the other, as somebody presses them: what is not answered yet is what the page asks for first.
        const outcome = page === pages[0] ? "A" : "B";
        jobs.push(
          act(page, "weekly-mug", "join").then(async (joined) => {
            if (joined) done["entries on pages"] += 1;
            const backed = await act(page, "kiln-prediction", "back", { outcome, amount: String(1 + Math.floor(chance() * 20)) });
            if (backed) done["stakes on pages"] += 1;
          }),
        );
      }
      for (const page of pages)
        jobs.push(
          buy(page, pick(rewards)).then((sold) => {
            if (sold) done["bought on pages"] += 1;
          }),
        );
      jobs.push(
        command("old-spall", `faults-hit-${seed}-${round}`, { do: "damage", amount: 1 + Math.floor(chance() * 40) }).then(
          (hit) => (done.hits += hit?.ok === true ? 1 : 0),
        ),
      );
      const [sale] = await sql("select seq from sales where state = 'done' order by rand(?) limit 1", [round]).catch(() => []);
      if (sale !== undefined)
        jobs.push(
          command("kiln-rewards", `faults-back-${seed}-${round}`, { do: "sale", sale: `s${sale.seq}`, what: "refund" }).then(
            (back) => (done.refunds += back?.ok === true ? 1 : 0),
          ),
        );
      // What chat says while nobody listens is said to nobody: some rounds let it be heard first, the first one surely.
      await wait(round === 0 ? 1_500 : chance() * (round % 2 === 0 ? 400 : 60));
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
    await payOut({ stack, command, sql, wrong, done, seed });
    await wait(1_500);
    await checkAll({ sql, event, wrong, done, sent, buyers, viewers, fromMs });
  } finally {
    await stack.stop();
  }
  return { wrong, done };
}

if (isMain(import.meta.url)) {
  (async () => {
    const { values } = parseArgs({
      options: { rounds: { type: "string", default: "20" }, seed: { type: "string" }, "full-disk": { type: "boolean" } },
    });
    const [rounds, seed] = [Number(values.rounds), Number(values.seed ?? Math.floor(Math.random() * 1e6))];
    await ensureSystem([...databasePrograms, ...backupPrograms, ...soundPrograms]);
    await ensurePackages();
    await ensureBuilt();
    if (values["full-disk"]) {
      const { failed } = await fullDisk();
      if (failed > 0) process.exitCode = 1;
      return;
    }
    say(`${rounds} rounds, seed ${seed}`);
    const { wrong, done } = await faultRounds({ rounds, seed });
    for (const what of wrong) say(`✗ ${what}`);
    say(
      wrong.length === 0
        ? `Nothing was lost, and nothing was done twice: ${inWords(done)}.`
        : `${wrong.length} wrong; again with --seed ${seed}`,
    );
    if (wrong.length > 0) process.exitCode = 1;
  })().catch(endWith);
}
