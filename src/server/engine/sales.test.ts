import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { chatReader, defaultDialect } from "../../core/chat/dialect";
import { escapeTag, parseLine } from "../../core/chat/line";
import { chanceFrom } from "../../core/kernel/chance";
import { gameId } from "../../core/kernel/ids";
import { stranger } from "../../core/kernel/strangers";
import { cut, viewerId, wellFormed } from "../../core/kernel/text";
import type { Database } from "../adapters/mariadb/database";
import { checkLedgerOf, rebuildBalances } from "../adapters/mariadb/ledger-check";
import { said } from "../testing/channel";
import { reward, type Shop, testShops, viewer } from "../testing/shop";

/** The economy on the real database: whatever goes wrong, the ledger balances to the point. */
let shops: Awaited<ReturnType<typeof testShops>>;
let db: Database;
beforeAll(async () => {
  shops = await testShops("sales");
  db = shops.db;
});
afterAll(() => shops.end());
const opened = (...args: Parameters<typeof shops.opened>): Promise<Shop> => shops.opened(...args);

describe("sales, limits and the ledger on the real database", () => {
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
    const own = (await Promise.all(["issued", "spent", "held"].map((a) => shops.balanceOf(s.id, a)))).reduce((a, b) => a + b);
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
    const ada = () =>
      db("viewers")
        .where("ext", "ada")
        .where("channel", db("channels").where({ id: s.id }).select("num"));
    await ada().update({ balance: 130 });
    expect((await checkLedgerOf(db, s.id)).faults).toEqual([{ what: "balance", about: "v:ada", found: 130, meant: 100 }]);
    expect(await rebuildBalances(db, s.id)).toBe(1);
    expect((await checkLedgerOf(db, s.id)).faults).toEqual([]);
    // Whatever the program believes, the database lets no viewer fall below none.
    await expect(ada().update({ balance: -1 })).rejects.toThrow();
  });
});
