import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { chatReader, defaultDialect } from "../../core/chat/dialect";
import { escapeTag, parseLine } from "../../core/chat/line";
import { chanceFrom } from "../../core/kernel/chance";
import { channelId, gameId } from "../../core/kernel/ids";
import { stranger } from "../../core/kernel/strangers";
import { cut, viewerId, wellFormed } from "../../core/kernel/text";
import { pointsDefaults } from "../../core/points/settings";
import { newReward, type Reward } from "../../core/rewards/settings";
import { showDefaults } from "../../core/show/settings";
import { inProcessBus } from "../adapters/bus/in-process";
import type { Database } from "../adapters/mariadb/database";
import { ownCodes } from "../adapters/mariadb/lean-tables";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import { checkLedgerOf, rebuildBalances } from "../adapters/mariadb/ledger-check";
import type { EngineStore } from "../ports/engine-store";
import type { Publication } from "../ports/bus";
import { said } from "../testing/channel";
import { testDatabase } from "../testing/database";
import { readLedger, Runner } from "./runner";

/** The economy on the real database: whatever goes wrong, the ledger balances to the point. */
let db: Database;
let end: () => Promise<void>;
let n = 0;
beforeAll(async () => void ({ db, end } = await testDatabase("economy")));
afterAll(() => end());

const reward = (id: string, part: Partial<Reward> = {}): Reward => ({
  ...newReward(id, id, 100),
  words: [`!${id}`],
  effects: [{ do: "say", text: `{viewer} has ${id}` }],
  ...part,
});
const viewer = (name: string) => ({ id: name, name, roles: [] });

/** What is written of an account: a viewer's, or one of the channel's own. */
async function balanceOf(id: string, account: string): Promise<number> {
  const { num } = (await db("channels").where({ id }).first("num")) as { num: number };
  const row = account.startsWith("v:")
    ? await db("viewers")
        .where({ channel: num, ext: account.slice(2) })
        .first("balance")
    : await db("own_accounts")
        .where({ channel: num, account: ownCodes[account as "held"] })
        .first("balance");
  return Number((row as { balance: number } | undefined)?.balance ?? 0);
}

type Shop = Awaited<ReturnType<typeof shop>>;
/** A channel with points and these rewards, on air unless said otherwise. */
async function shop(rewards: Reward[], over: Partial<EngineStore> = {}) {
  n += 1;
  const id = channelId(`shop${n}`);
  const games = [
    ["rewards", { schema: 3, rewards }],
    ["points", { ...pointsDefaults, name: "clay", dailyMost: 0 }],
    ["show", showDefaults],
  ] as const;
  await db("channels").insert({ id, name: "Saltmarsh Kiln", salt: 1, revision: 1, hushed: false, created_ms: 1 });
  for (const [kind, settings] of games) {
    const part = `${kind}-${id}`;
    await db("games").insert({ id: part, channel_id: id, kind, name: kind, draft: JSON.stringify(settings), version: 1, created_ms: 1 });
    await db("game_versions").insert({ game_id: part, version: 1, settings: JSON.stringify(settings), by: "x", at_ms: 1 });
  }
  const store: EngineStore = { ...mariadbEngineStore(db), ...over };
  const time = { nowMs: 1_000_000_000 };
  const says: string[] = [];
  let chatWorks = true;
  const heard: Publication[] = [];
  const bus = inProcessBus();
  bus.subscribe((_, p) => heard.push(p));
  let inFlight: Promise<unknown> = Promise.resolve();
  let living = 0;
  const start = async (): Promise<Runner> => {
    const own = (living += 1);
    // A process that was killed sends nothing more; what the database was doing for it, it ends.
    const mine: EngineStore = {
      ...store,
      commit: (to, commit, fence) => {
        if (own !== living) return new Promise(() => undefined);
        const done = store.commit(to, commit, fence);
        // One that died in the middle never hears the end of it.
        inFlight = Promise.race([done.catch(() => undefined), new Promise((r) => setTimeout(r, 1_000))]);
        return done;
      },
    };
    const row = (await store.channel(id))!;
    const ledgerView = await readLedger(store, row, time.nowMs);
    return new Runner(
      { store: mine, clock: { now: () => time.nowMs }, bus, say: (t) => chatWorks && says.push(t) > 0 },
      row,
      await store.lastSeq(id),
      ledgerView,
    );
  };
  let runner = await start();
  let k = 0;
  const part = (kind: string) => gameId(`${kind}-${id}`);
  const command = (kind: string, what: Record<string, unknown>) =>
    runner.requests.command(part(kind), "maria", `command-${(k += 1)}-${id}`, what as never);
  const give = (name: string, by: number) => command("points", { do: "adjust", viewer: name, name, by, why: "for the test" });
  const say = (name: string, text: string) => runner.inbox.message(said(text, null, name));
  const purchase = (name: string, which: string, price = 100, requestId = `w${(k += 1)}`) =>
    runner.requests.purchase(viewer(name), { id: requestId, reward: which, text: "", price });
  const settled = async () => {
    for (let i = 0; i < 2_000 && runner.busy; i += 1) await new Promise((r) => setTimeout(r, 5));
  };
  return {
    id,
    store,
    time,
    says,
    heard,
    command,
    give,
    say,
    purchase,
    settled,
    get runner() {
      return runner;
    },
    silence: () => (chatWorks = false),
    onAir: () => command("show", { do: "show", what: "on-air" }),
    /** As after kill −9: nothing is told to stop, all is read anew. */
    restart: async () => {
      const old = runner;
      living += 1;
      await inFlight;
      runner = await start();
      void old.stop();
      return runner;
    },
    sales: async () =>
      (
        (await db("sales as s")
          .join("channels as c", "c.num", "s.channel")
          .join("viewers as v", "v.id", "s.viewer")
          .where("c.id", id)
          .orderBy("s.seq")
          .select("s.*", "v.ext")) as { seq: number; state: string; ext: string; shown: number; code: string }[]
      ).map((r) => ({ id: `s${r.seq}`, state: r.state, viewer: r.ext, shown: r.shown, code: r.code })),
    balance: async (name: string) => balanceOf(id, `v:${name}`),
    /** The ledger balances, and what the engine believes is what is written. */
    sound: async () => {
      const report = await checkLedgerOf(db, id);
      expect(report.faults).toEqual([]);
      for (const [account, balance] of runner.ledgerView.balances())
        expect([account, await balanceOf(id, account)]).toEqual([account, balance]);
      return report;
    },
  };
}
let open: Shop | null = null;
const opened = async (...args: Parameters<typeof shop>): Promise<Shop> => (open = await shop(...args));
beforeEach(async () => {
  await open?.runner.stop();
  open = null;
});
afterAll(async () => void (await open?.runner.stop()));

describe("points and rewards on the real database", () => {
  test("earned, bought by chat word, refused within the cooldown with what is left, given back: everything is written", async () => {
    const s = await opened([reward("roar", { sharedRestMs: 30_000 })]);
    await s.runner.inbox.platform([{ id: "f1", signal: { kind: "follow", viewer: viewer("ada") } }]);
    await s.give("ada", 150);
    s.say("ada", "!ROAR");
    await s.settled();
    expect(s.says).toEqual(["@ada roar for 100; 150 clay left", "ada has roar"]);
    s.time.nowMs += 12_000;
    s.say("ada", "!roar");
    await s.settled();
    expect(s.says.at(-1)).toBe("@ada roar is on cooldown for 18 s more");
    const [sale] = await s.sales();
    expect(await s.command("rewards", { do: "sale", sale: sale!.id, what: "refund" })).toMatchObject({ ok: true });
    expect(await s.balance("ada")).toBe(250);
    // A second refund changes nothing, and says so.
    const twice = await s.command("rewards", { do: "sale", sale: sale!.id, what: "refund" });
    expect(twice.ok && twice.value[0]?.refusal?.code).toBe("sale/refunded-already");
    expect(await s.balance("ada")).toBe(250);
    await s.sound();
  });
  test("a storm on one last item: one has it, all others keep their points", async () => {
    const s = await opened([reward("last", { stock: 1 })]);
    const names = Array.from({ length: 200 }, (_, i) => `v${i}`);
    for (const name of names) await s.give(name, 100);
    const done = await Promise.all(names.map((name, i) => (i % 2 === 0 ? s.purchase(name, "last") : (s.say(name, "!last"), null))));
    await s.settled();
    const sales = await s.sales();
    expect(sales).toHaveLength(1);
    expect(s.says.filter((t) => t.endsWith("has last"))).toHaveLength(1);
    expect(done.filter((d) => d !== null && d.ok)).toHaveLength(1);
    const balances = await Promise.all(names.map((name) => s.balance(name)));
    expect(balances.filter((b) => b === 0)).toHaveLength(1);
    expect(balances.filter((b) => b === 100)).toHaveLength(199);
    await s.sound();
  });
  test("one viewer from chat and page at once pays for what the points are enough for", async () => {
    const s = await opened([reward("roar")]);
    await s.give("ada", 250);
    const waits = [s.purchase("ada", "roar"), s.purchase("ada", "roar")];
    s.say("ada", "!roar");
    s.say("ada", "!roar");
    const done = await Promise.all(waits);
    await s.settled();
    expect(await s.sales()).toHaveLength(2);
    expect(done.every((d) => d.ok)).toBe(true);
    expect(s.says).toContain("@ada roar costs 100; you have 50 clay, 50 too few");
    // The same press of a button, sent twice, is one request.
    const twice = await Promise.all([s.purchase("ada", "roar", 100, "same"), s.purchase("ada", "roar", 100, "same")]);
    expect(twice[0]).toEqual(twice[1]);
    await s.sound();
  });
  test("a commit that fails: nobody paid, nothing was shown, and it can be asked for again", async () => {
    let fail = false;
    const real = mariadbEngineStore(db);
    const s = await opened([reward("roar", { stock: 3 })], {
      commit: async (id, commit) => {
        if (fail) throw Object.assign(new Error("gone"), { code: "ECONNRESET" });
        return real.commit(id, commit);
      },
    });
    await s.give("ada", 300);
    fail = true;
    const done = await Promise.all([s.purchase("ada", "roar"), s.purchase("ada", "roar")]);
    expect(done.map((d) => (d.ok ? "" : d.refusal.code))).toEqual(["store/away", "store/away"]);
    fail = false;
    await s.settled();
    expect(s.says).toEqual([]);
    expect(s.runner.ledgerView.balance("ada")).toBe(300);
    expect(s.runner.ledgerView.sold("roar")).toBe(0);
    expect((await s.purchase("ada", "roar")).ok).toBe(true);
    await s.sound();
  });
  test("a commit whose answer is lost: what was written counts, once", async () => {
    let lose = false;
    const real = mariadbEngineStore(db);
    const s = await opened([reward("roar", { perViewerShow: 1 })], {
      commit: async (id, commit) => {
        const done = await real.commit(id, commit);
        // Only the sale's: the round of presence that is begun beside it has commits of its own.
        if (lose && (commit.booked ?? []).length > 0) throw Object.assign(new Error("the answer is lost"), { code: "ECONNRESET" });
        return done;
      },
    });
    await s.onAir();
    await s.give("ada", 300);
    lose = true;
    await s.purchase("ada", "roar");
    lose = false;
    await s.settled();
    expect(await s.balance("ada")).toBe(200);
    const again = await s.purchase("ada", "roar");
    expect(again.ok ? "" : again.refusal.code).toBe("reward/own-limit");
    await s.sound();
  });
  test("an id that is in the log already, among four others': it is answered as the first time, and they go through", async () => {
    const s = await opened([reward("roar")]);
    for (const name of ["ada", "bo", "cy", "dee", "eve"]) await s.give(name, 300);
    const first = await s.purchase("ada", "roar", 100, "lost-answer");
    await s.restart();
    const all = await Promise.all([
      s.purchase("bo", "roar"),
      s.purchase("cy", "roar"),
      s.purchase("ada", "roar", 100, "lost-answer"),
      s.purchase("dee", "roar"),
      s.purchase("eve", "roar"),
    ]);
    expect(all.map((d) => d.ok)).toEqual([true, true, true, true, true]);
    expect(all[2]).toEqual(first);
    expect(await s.sales()).toHaveLength(5);
    expect(await s.balance("ada")).toBe(200);
    // The same id of somebody else is another request.
    expect((await s.purchase("bo", "roar", 100, "lost-answer")).ok).toBe(true);
    await s.sound();
  });
  test("a purchase in chat that the server sends again after a restart: once paid, said once, and no neighbour is refused", async () => {
    const s = await opened([reward("roar")]);
    for (const name of ["ada", "bo"]) await s.give(name, 300);
    s.runner.inbox.message(said("!roar", "msg-1", "ada"));
    await s.settled();
    await s.restart();
    s.says.length = 0;
    s.runner.inbox.message(said("!roar", "msg-1", "ada"));
    s.runner.inbox.message(said("!roar", "msg-2", "bo"));
    await s.settled();
    expect(s.says).toEqual(["@bo roar for 100; 200 clay left", "bo has roar"]);
    expect([await s.balance("ada"), await s.balance("bo")]).toEqual([200, 200]);
    await s.sound();
  });
  test("who buys by chat word while the database is away is told so, and nothing is taken", async () => {
    let away = false;
    const real = mariadbEngineStore(db);
    const gone = async <T>(work: () => Promise<T>): Promise<T> => {
      if (away) throw Object.assign(new Error("gone"), { code: "ECONNREFUSED" });
      return work();
    };
    const s = await opened([reward("roar")], {
      commit: (id, commit) => gone(() => real.commit(id, commit)),
      channel: (id) => gone(() => real.channel(id)),
    });
    await s.give("ada", 300);
    away = true;
    s.says.length = 0;
    s.say("ada", "!roar");
    s.say("ada", "hello");
    s.say("ada", "!roar");
    for (let i = 0; i < 100 && s.says.length === 0; i += 1) await new Promise((r) => setTimeout(r, 10));
    away = false;
    await s.settled();
    expect(s.says).toEqual(["@ada the clay can’t be reached at the moment; nothing was taken. Try again in a minute."]);
    expect(await s.balance("ada")).toBe(300);
    await s.sound();
  });
  test("a row that can't be stored is refused by itself; who came before, beside and after it is not", async () => {
    const real = mariadbEngineStore(db);
    const s = await opened([reward("roar", { text: { how: "may", asks: "" } })], {
      commit: async (id, commit) => {
        if (commit.booked?.some((b) => b.booking.sales.some((x) => x.text === "poison")) === true)
          throw new Error("Incorrect string value");
        return real.commit(id, commit);
      },
    });
    for (const name of ["ada", "bo", "cy"]) await s.give(name, 300);
    const ask = (name: string, text: string) =>
      s.runner.requests.purchase(viewer(name), { id: `p-${name}-${text}`, reward: "roar", text, price: 100 });
    const waits = [ask("ada", "one"), ask("bo", "poison"), ask("cy", "two")];
    await new Promise((r) => setTimeout(r, 1));
    const later = ask("ada", "three");
    const all = await Promise.all([...waits, later]);
    expect(all.map((d) => (d.ok ? "sold" : d.refusal.code))).toEqual(["sold", "store/unfit", "sold", "sold"]);
    expect([await s.balance("ada"), await s.balance("bo"), await s.balance("cy")]).toEqual([100, 300, 200]);
    expect(s.runner.standing().unfit).toBe(1);
    expect(s.runner.ledgerView.sold("roar")).toBe(3);
    // It may be asked for again, in other words.
    expect((await ask("bo", "sound")).ok).toBe(true);
    await s.sound();
  });
  test("killed between the sale and its showing: it is told as paid and not shown, and played again or given back", async () => {
    let dies = false;
    const real = mariadbEngineStore(db);
    const seenEffect: Reward["effects"] = [
      {
        do: "show",
        picture: "",
        sound: "",
        volume: 100,
        text: "roar",
        ms: 4_000,
        queue: "",
        look: { x: 0.5, y: 0.5, size: 0.3, entrance: "fade" },
      },
    ];
    const s = await opened([reward("roar", { effects: seenEffect }), reward("said")], {
      commit: async (id, commit, fence) => {
        const done = await real.commit(id, commit, fence);
        // It is written, and the process is gone before anybody hears of it.
        return dies ? new Promise(() => undefined) : done;
      },
    });
    for (const name of ["ada", "bo", "cy"]) await s.give(name, 300);
    expect((await s.purchase("ada", "said")).ok).toBe(true);
    dies = true;
    void s.purchase("bo", "roar");
    await new Promise((r) => setTimeout(r, 300));
    dies = false;
    await s.restart();
    expect(s.heard.some((p) => p.kind === "alert")).toBe(false);
    expect(s.runner.standing().sales.unshown).toEqual([]);
    s.time.nowMs += 31_000;
    expect(s.runner.standing().sales.unshown.map((x) => `${x.viewer} ${x.reward}`)).toEqual(["bo roar"]);
    // Played once more: now a page shows it, and says so; that is known after a restart too.
    const [owed] = s.runner.standing().sales.unshown;
    expect(await s.command("rewards", { do: "sale", sale: owed!.id, what: "play", seen: "done" })).toMatchObject({ ok: true });
    expect(s.runner.standing().sales.unshown).toEqual([]);
    expect(s.heard.filter((p) => p.kind === "alert").map((p) => p.alert.sale)).toEqual([owed!.id]);
    s.runner.shown([owed!.id, "s999999", "__proto__"]);
    await new Promise((r) => setTimeout(r, 200));
    s.time.nowMs += 60_000;
    await s.restart();
    expect(s.runner.standing().sales.unshown).toEqual([]);
    // One that no page shows is owed until somebody decides.
    await s.purchase("cy", "roar");
    s.time.nowMs += 31_000;
    await s.restart();
    const [again] = s.runner.standing().sales.unshown;
    expect(again).toMatchObject({ viewer: "cy" });
    await s.command("rewards", { do: "sale", sale: again!.id, what: "refund", seen: "done" });
    expect(s.runner.standing().sales.unshown).toEqual([]);
    expect([await s.balance("bo"), await s.balance("cy")]).toEqual([200, 300]);
    await s.sound();
  });
  test("two decide at once: the first does, the second hears who it was, and nothing is done twice", async () => {
    const s = await opened([reward("mug", { approval: true })]);
    await s.give("ada", 300);
    await s.purchase("ada", "mug");
    const [sale] = await s.sales();
    const decide = (by: string, what: "done" | "refund") =>
      s.runner.requests.command(gameId("rewards"), by, `decide-${by}-${what}`, { do: "sale", sale: sale!.id, what, seen: "waiting" });
    const [first, second] = await Promise.all([decide("maria", "done"), decide("jo", "refund")]);
    expect(first).toMatchObject({ ok: true, value: [{ did: "reward/done" }] });
    expect(second).toMatchObject({ ok: true, value: [{ refusal: { code: "sale/decided-by", facts: { by: "maria", state: "done" } } }] });
    expect(await s.balance("ada")).toBe(200);
    // Who sees that it was done may still give it back.
    expect(
      await s.runner.requests.command(gameId("rewards"), "jo", "decide-jo-later", {
        do: "sale",
        sale: sale!.id,
        what: "refund",
        seen: "done",
      }),
    ).toMatchObject({
      value: [{ did: "reward/refunded" }],
    });
    await s.sound();
  });
  test("presence is paid to everyone who is there, whatever they are called", async () => {
    const s = await opened([]);
    await s.onAir();
    const names = ["__proto__", "constructor", "toString", "1", "ada", "áda"];
    for (const name of names) s.say(name, "hello");
    for (let i = 0; i < 40 && (await s.balance("ada")) === 0; i += 1) {
      s.time.nowMs += 120_000;
      s.runner.reload(s.runner.row);
      await new Promise((r) => setTimeout(r, 40));
    }
    expect(await Promise.all(names.map((name) => s.balance(name)))).toEqual(names.map(() => 10));
    await s.sound();
  });
  test("strangers by every way in: nothing is refused that can be kept, nobody's points are lost, and all of it survives a restart", async () => {
    const s = await opened([reward("roar", { price: 1, text: { how: "may", asks: "" } })]);
    await s.onAir();
    const chance = chanceFrom(8);
    const read = chatReader(defaultDialect);
    let sent = 0;
    const ids = new Set<string>();
    for (let i = 0; i < 400; i += 1) {
      const [who, text] = [stranger(chance), stranger(chance)];
      const id = viewerId(who);
      if (id === "" || chance() < 0.4) {
        const line = parseLine(`@account=${escapeTag(wellFormed(who))};msgid=m${i} :nick!u@h PRIVMSG #x :${wellFormed(text)}`);
        const heard = line === null ? null : read(line);
        if (heard !== null) s.runner.inbox.message(heard);
        continue;
      }
      ids.add(id);
      sent += 1;
      const taken = await s.runner.inbox.platform([
        { id: `e${i}`, signal: { kind: "follow", viewer: { id, name: wellFormed(who) || "x", roles: [] } } },
      ]);
      expect(taken).toEqual({ ok: true, value: ["taken"] });
      if (chance() < 0.5) {
        const request = { id: `w${i}-${cut(wellFormed(text), 20)}`, reward: "roar", text: cut(wellFormed(text), 300), price: 1 };
        expect((await s.runner.requests.purchase({ id, name: id, roles: [] }, request)).ok).toBe(true);
      }
    }
    await s.settled();
    expect(sent).toBeGreaterThan(100);
    expect(s.runner.standing().unfit).toBe(0);
    await s.sound();
    const before = s.runner.ledgerView.balances();
    await s.restart();
    expect(new Map([...s.runner.ledgerView.balances()].filter(([, b]) => b !== 0))).toEqual(
      new Map([...before].filter(([, b]) => b !== 0)),
    );
    for (const id of ids) expect(s.runner.ledgerView.balance(id)).toBeGreaterThan(0);
  });
  test("killed in the middle, again and again: ledger, stock and limits hold", async () => {
    const s = await opened([reward("pot", { stock: 25, approval: true }), reward("roar", { price: 7 })]);
    await s.onAir();
    const names = Array.from({ length: 40 }, (_, i) => `k${i}`);
    for (const name of names) await s.give(name, 220);
    for (let round = 0; round < 8; round += 1) {
      for (const name of names) {
        s.say(name, "!roar");
        if (round % 2 === 0) s.say(name, "!pot");
      }
      // Somewhere within the commits.
      await new Promise((r) => setTimeout(r, round * 2));
      const runner = await s.restart();
      expect(runner.ledgerView.sold("pot")).toBeLessThanOrEqual(25);
    }
    await s.settled();
    await s.restart();
    const sales = await s.sales();
    expect(sales.filter((x) => x.state === "waiting").length).toBeLessThanOrEqual(25);
    const report = await s.sound();
    expect(report.entries).toBeGreaterThan(40);
    for (const name of names) expect(await s.balance(name)).toBeGreaterThanOrEqual(0);
    // Every point that left a viewer is spent or held.
    const own = (await Promise.all(["issued", "spent", "held"].map((a) => balanceOf(s.id, a)))).reduce((a, b) => a + b);
    const theirs = (await Promise.all(names.map((name) => s.balance(name)))).reduce((a, b) => a + b);
    expect(own + theirs).toBe(0);
  });
  test("asked for, given back all at once, taken again after a slip, done: held and spent agree", async () => {
    const s = await opened([reward("mug", { approval: true })]);
    for (const name of ["ada", "bo", "cy"]) {
      await s.give(name, 120);
      s.say(name, "!mug");
    }
    await s.settled();
    expect(s.says.some((t) => t.includes("has mug"))).toBe(false);
    expect(await s.command("rewards", { do: "refund-all", reward: "mug" })).toMatchObject({ ok: true, value: [{ count: 3 }] });
    const [first] = await s.sales();
    expect(await s.balance("ada")).toBe(120);
    await s.command("rewards", { do: "sale-again", sale: first!.id });
    expect(await s.balance("ada")).toBe(20);
    await s.sound();
    await s.command("rewards", { do: "sale", sale: first!.id, what: "done" });
    expect(s.says).toContain("ada has mug");
    await s.command("rewards", { do: "sale", sale: first!.id, what: "refund" });
    expect(await s.balance("ada")).toBe(120);
    await s.sound();
  });
  test("a refund before anything was shown gives the cooldown back too; afterwards it does not", async () => {
    const s = await opened([reward("mug", { approval: true, sharedRestMs: 60_000 }), reward("roar", { sharedRestMs: 60_000 })]);
    await s.give("ada", 900);
    for (const [which, free] of [
      ["mug", true],
      ["roar", false],
    ] as const) {
      expect((await s.purchase("ada", which)).ok).toBe(true);
      const sale = (await s.sales()).find((x) => x.state !== "refunded" && x.id.startsWith("s"));
      await s.command("rewards", { do: "sale", sale: sale!.id, what: "refund" });
      expect((await s.purchase("ada", which)).ok).toBe(free);
      for (const x of await s.sales()) if (x.state === "waiting") await s.command("rewards", { do: "sale", sale: x.id, what: "refund" });
    }
    await s.sound();
  });
  test("the clock is set back: no cooldown ends early, no day begins anew, and prices do not fall", async () => {
    const s = await opened([reward("roar", { ownRestMs: 60_000, moving: { ceiling: 500, raiseBp: 5_000, halfLifeMs: 60_000 } })]);
    await s.give("ada", 1_000);
    expect((await s.purchase("ada", "roar")).ok).toBe(true);
    s.time.nowMs -= 3_600_000;
    const again = await s.purchase("ada", "roar", 1_000);
    expect(again.ok ? "" : again.refusal.code).toBe("reward/own-rest");
    expect(s.runner.shop.tags(null)[0]?.price).toBe(150);
    await s.restart();
    expect((await s.purchase("ada", "roar", 1_000)).ok).toBe(false);
    await s.sound();
  });
  test("a chat reply that can't be sent changes nothing of what was paid", async () => {
    const s = await opened([reward("roar")]);
    await s.give("ada", 100);
    s.silence();
    s.say("ada", "!roar");
    await s.settled();
    expect(await s.balance("ada")).toBe(0);
    expect(s.heard.some((p) => p.kind === "talk" && p.of === "unsaid")).toBe(true);
    await s.sound();
  });
  test("limits per show end with it, and hold through a restart within it", async () => {
    const s = await opened([reward("roar", { perShow: 2, perViewerShow: 1 })]);
    for (const name of ["ada", "bo", "cy"]) await s.give(name, 500);
    await s.onAir();
    expect((await s.purchase("ada", "roar")).ok).toBe(true);
    await s.restart();
    const code = async (name: string) => {
      const done = await s.purchase(name, "roar");
      return done.ok ? "sold" : done.refusal.code;
    };
    expect([await code("ada"), await code("bo"), await code("cy")]).toEqual(["reward/own-limit", "sold", "reward/show-limit"]);
    await s.command("show", { do: "show", what: "end" });
    s.time.nowMs += 1_000;
    await s.onAir();
    expect(await code("ada")).toBe("sold");
    await s.sound();
  });
  test("a rehearsal shows what is bought and touches no points", async () => {
    const s = await opened([reward("roar")]);
    await s.give("ada", 100);
    await s.command("show", { do: "show", what: "rehearse" });
    expect((await s.purchase("ada", "roar")).ok).toBe(true);
    expect(await s.sales()).toEqual([]);
    expect(s.runner.ledgerView.balance("ada")).toBe(100);
    // What would be forgotten with it is refused instead of looking done.
    const adjusted = await s.give("ada", 5);
    expect(adjusted.ok && adjusted.value[0]?.refusal?.code).toBe("points/rehearsing");
    await s.sound();
  });
  test("a list taken in twice pays once; a renamed viewer's points go along", async () => {
    const s = await opened([]);
    const list = {
      do: "take-in",
      key: "list-1",
      why: "from the old place",
      viewers: [
        { id: "ada", name: "Ada", by: 70 },
        { id: "bo", name: "Bo", by: 5 },
      ],
    };
    await s.command("points", list);
    const twice = await s.command("points", list);
    expect(twice.ok && twice.value[0]?.refusal?.code).toBe("points/taken-in-already");
    await s.command("points", { do: "merge", from: "bo", fromName: "Bo", to: "ada", toName: "Ada" });
    expect([await s.balance("ada"), await s.balance("bo")]).toEqual([75, 0]);
    await s.sound();
  });
  test("presence: a round pays who wrote, in one entry, within the show only", async () => {
    const s = await opened([]);
    s.say("ada", "hello");
    await s.onAir();
    s.say("bo", "hello");
    s.runner.requests.here(viewer("reader"));
    const minute = 60_000;
    for (let i = 0; i < 40 && (await s.balance("ada")) === 0; i += 1) {
      s.time.nowMs += 2 * minute;
      s.runner.reload(s.runner.row);
      await new Promise((r) => setTimeout(r, 40));
    }
    expect([await s.balance("ada"), await s.balance("bo"), await s.balance("reader")]).toEqual([10, 10, 10]);
    await s.sound();
  });
  test("a viewer page has the roles its viewer was last seen with in chat", async () => {
    const s = await opened([]);
    expect(s.runner.inbox.withRoles(viewer("ada")).roles).toEqual([]);
    s.runner.inbox.message({ ...said("hello", null, "ada"), roles: ["member"] });
    expect(s.runner.inbox.withRoles(viewer("ada")).roles).toEqual(["member"]);
  });
  test("codes: one to each buyer, none twice whatever is refunded, and no more are sold than there are", async () => {
    const s = await opened([reward("key", { codes: ["AAA", "BBB", "CCC"] }), reward("asked", { codes: ["X1"], approval: true })]);
    for (const name of ["ada", "bo", "cy", "dee"]) await s.give(name, 300);
    await s.purchase("ada", "key");
    const [first] = await s.sales();
    await s.command("rewards", { do: "sale", sale: first!.id, what: "refund" });
    await s.restart();
    const done = await Promise.all(["bo", "cy", "dee"].map((name) => s.purchase(name, "key")));
    expect(done.map((d) => (d.ok ? "sold" : d.refusal.code))).toEqual(["sold", "sold", "reward/sold-out"]);
    const rows = await s.sales();
    expect(rows.map((x) => `${x.viewer} ${x.code}`).sort()).toEqual(["ada AAA", "bo BBB", "cy CCC"]);
    // One that waits holds its code: nobody else is promised the same.
    expect((await s.purchase("ada", "asked")).ok).toBe(true);
    const second = await s.purchase("bo", "asked");
    expect(second.ok ? "" : second.refusal.code).toBe("reward/sold-out");
    // Chat never hears a code.
    expect(s.says.join(" ")).not.toMatch(/AAA|BBB|CCC/);
    await s.sound();
  });
  test("the check finds what was tampered with, and the rebuild sets it right", async () => {
    const s = await opened([]);
    await s.give("ada", 100);
    const ada = () => db("viewers").where({ ext: "ada", channel: db("channels").where({ id: s.id }).select("num") });
    await ada().update({ balance: 130 });
    expect((await checkLedgerOf(db, s.id)).faults).toEqual([{ what: "balance", about: "v:ada", found: 130, meant: 100 }]);
    expect(await rebuildBalances(db, s.id)).toBe(1);
    expect((await checkLedgerOf(db, s.id)).faults).toEqual([]);
    // Whatever the program believes, the database lets no viewer fall below none.
    await expect(ada().update({ balance: -1 })).rejects.toThrow();
  });
});
