import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { type Reward } from "../../core/rewards/settings";
import type { Database } from "../adapters/mariadb/database";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import { said } from "../testing/channel";
import { reward, type Shop, testShops, viewer } from "../testing/shop";

/** The economy on the real database: whatever goes wrong, the ledger balances to the point. */
let shops: Awaited<ReturnType<typeof testShops>>;
let db: Database;
beforeAll(async () => {
  shops = await testShops("economy");
  db = shops.db;
});
afterAll(() => shops.end());
const opened = (...args: Parameters<typeof shops.opened>): Promise<Shop> => shops.opened(...args);

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
  test("a sale whose answer was lost, asked for again after a restart when its own limit would refuse it: it hears of its sale", async () => {
    const s = await opened([
      reward("once", { perViewerShow: 1 }),
      reward("last", { stock: 1 }),
      reward("rests", { sharedRestMs: 600_000 }),
    ]);
    await s.onAir();
    await s.give("ada", 1_000);
    const first = await Promise.all(["once", "last", "rests"].map((which) => s.purchase("ada", which, 100, `lost-${which}`)));
    expect(first.map((d) => d.ok)).toEqual([true, true, true]);
    await s.restart();
    const again = await Promise.all(["once", "last", "rests"].map((which) => s.purchase("ada", which, 100, `lost-${which}`)));
    expect(again).toEqual(first);
    // Another request is another matter.
    for (const which of ["once", "last", "rests"]) expect((await s.purchase("ada", which)).ok).toBe(false);
    expect(await s.balance("ada")).toBe(700);
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
        look: { x: 0.5, y: 0.5, size: 0.3, entrance: "fade", exit: "fade" },
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
    s.runner.shown([owed!.id, "s999999", "__proto__"], "whole");
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
});
