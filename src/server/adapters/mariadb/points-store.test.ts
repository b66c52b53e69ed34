import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import { reward, type Shop, testShops } from "../../testing/shop";
import type { PointsStore } from "../../ports/points-store";
import { mariadbPoints } from "./points-store";

/** What operators read of points and sales, from what the engine wrote on the real database. */
let shops: Awaited<ReturnType<typeof testShops>>;
let points: PointsStore;
let s: Shop;
beforeAll(async () => {
  shops = await testShops("points_store");
  points = mariadbPoints(shops.db);
});
afterAll(() => shops.end());
beforeEach(async () => {
  s = await shops.opened([
    reward("mug", { approval: true, text: { how: "may", asks: "Which?" }, detail: "Address" }),
    reward("bell", { price: 30 }),
  ]);
  await s.onAir();
});
const names = (list: readonly { name: string }[]): string[] => list.map((p) => p.name);

describe("people", () => {
  test("most points first; found by a part of the name in any case, by the whole id, and what is looked for is no pattern", async () => {
    for (const [name, by] of [
      ["ada", 50],
      ["bea_100%", 500],
      ["cyd", 500],
      ["ADAM", 7],
    ] as const)
      await s.give(name, by);
    expect(names(await points.people(s.id, "", 10))).toEqual(["bea_100%", "cyd", "ada", "ADAM"]);
    expect(names(await points.people(s.id, "", 2))).toEqual(["bea_100%", "cyd"]);
    expect(names(await points.people(s.id, "AdA", 10)).sort()).toEqual(["ADAM", "ada"]);
    expect(names(await points.people(s.id, "100%", 10))).toEqual(["bea_100%"]);
    for (const odd of ["%", "_", "\\"]) expect(names(await points.people(s.id, odd, 10))).toEqual(odd === "\\" ? [] : ["bea_100%"]);
    for (const odd of ["' or 1=1 --", "__proto__", "\u0000"]) expect(await points.people(s.id, odd, 10)).toEqual([]);
    // In the order of their ids, which are in lower case.
    expect((await points.everybody(s.id)).map((p) => p.id)).toEqual([...(await points.everybody(s.id)).map((p) => p.id)].sort());
  });
  test("nobody of another channel, and nothing of a channel that is not there", async () => {
    await s.give("ada", 50);
    const other = await shops.opened([]);
    expect(await points.people(other.id, "", 10)).toEqual([]);
    expect(await points.person(other.id, "ada")).toBeNull();
    expect(await points.everybody("nowhere" as typeof s.id)).toEqual([]);
  });
  test("a card tells what came and went, newest first, in whose name and why, and adds up", async () => {
    await s.give("ada", 200);
    s.time.nowMs += 1_000;
    expect(await s.purchase("ada", "bell", 30)).toMatchObject({ ok: true });
    s.time.nowMs += 1_000;
    await s.give("ada", -20);
    await s.settled();
    const card = (await points.person(s.id, "ada"))!;
    expect(card).toMatchObject({ name: "ada", balance: 150, lastMs: s.time.nowMs });
    expect(card.history.map((h) => [h.reason, h.amount, h.about, h.by])).toEqual([
      ["adjusted", -20, "for the test", "maria"],
      ["bought", -30, "bell", ""],
      ["adjusted", 200, "for the test", "maria"],
    ]);
    expect(card.history.reduce((sum, h) => sum + h.amount, 0)).toBe(card.balance);
    expect(card.sales.map((x) => [x.rewardId, x.price, x.state])).toEqual([["bell", 30, "done"]]);
    // What somebody set right is neither earned nor spent.
    expect([card.earned, card.spent]).toEqual([0, 30]);
    expect(await points.person(s.id, "ad")).toBeNull();
  });
});

describe("sales", () => {
  test("what waits comes oldest first, all else newest first; of one reward, in one state, and so many", async () => {
    for (const name of ["ada", "bo"]) await s.give(name, 300);
    await s.purchase("ada", "mug");
    await s.purchase("bo", "bell", 30);
    await s.purchase("bo", "mug");
    await s.settled();
    const of = async (state: "all" | "waiting" | "done" | "refunded", which = "", limit = 9) =>
      (await points.sales(s.id, { state, reward: which, limit })).map((x) => `${x.viewer.id} ${x.rewardId}`);
    expect(await of("all")).toEqual(["bo mug", "bo bell", "ada mug"]);
    expect(await of("waiting")).toEqual(["ada mug", "bo mug"]);
    expect(await of("waiting", "", 1)).toEqual(["ada mug"]);
    expect(await of("all", "bell")).toEqual(["bo bell"]);
    const [first] = await points.sales(s.id, { state: "waiting", reward: "mug", limit: 1 });
    await s.command("rewards", { do: "sale", sale: first!.id, what: "refund" });
    expect([await of("refunded"), await of("waiting")]).toEqual([["ada mug"], ["bo mug"]]);
    expect((await points.prices(s.id, "mug", 5)).map((p) => p.price)).toEqual([100, 100]);
    expect(await points.prices(s.id, "constructor", 5)).toEqual([]);
  });
  test("a private detail is kept while its sale waits, once, and read by the sale alone", async () => {
    await s.give("ada", 300);
    await s.purchase("ada", "mug");
    await s.settled();
    const [sale] = await points.sales(s.id, { state: "waiting", reward: "", limit: 1 });
    expect([sale!.hasDetail, await points.detail(s.id, sale!.id)]).toEqual([false, null]);
    await points.keepDetail(s.id, sale!.id, "sealed one");
    await points.keepDetail(s.id, sale!.id, "sealed two");
    expect(await points.detail(s.id, sale!.id)).toBe("sealed two");
    expect((await points.sales(s.id, { state: "all", reward: "", limit: 1 }))[0]?.hasDetail).toBe(true);
    for (const odd of ["s0", "", "s1 or 1=1", "__proto__"]) expect(await points.detail(s.id, odd)).toBeNull();
    // What is done takes no detail any more.
    await s.command("rewards", { do: "sale", sale: sale!.id, what: "done" });
    await points.keepDetail(s.id, sale!.id, "too late");
    expect(await points.detail(s.id, sale!.id)).not.toBe("too late");
  });
});

describe("charts", () => {
  test("what was made and spent, by month and by show; who holds how much; what was sold", async () => {
    await s.give("ada", 400);
    await s.give("bo", 30);
    await s.purchase("ada", "bell", 30);
    await s.settled();
    await s.command("show", { do: "show", what: "end" });
    const { months, shows, rewards, holders } = await points.charts(s.id, s.time.nowMs);
    expect(months).toEqual([{ month: "1970-01", made: 430, spent: 30, there: 400 }]);
    expect(shows).toMatchObject([{ made: 430, spent: 30 }]);
    expect(rewards).toEqual([{ id: "bell", name: "bell", count: 1, points: 30 }]);
    expect(holders.filter((h) => h.viewers > 0)).toEqual([
      { most: 100, viewers: 1, points: 30 },
      { most: 500, viewers: 1, points: 370 },
    ]);
    expect(holders.reduce((sum, h) => sum + h.points, 0)).toBe(400);
    expect(holders.at(-1)?.most).toBeNull();
  });
});

describe("who asks to be forgotten", () => {
  test("is named nowhere; sums and counts stay, the ledger balances, and nobody else loses anything", async () => {
    for (const name of ["ada", "adam"]) await s.give(name, 300);
    s.say("ada", "my words");
    await s.purchase("ada", "mug");
    await s.purchase("adam", "bell", 30);
    await s.settled();
    const before = await points.charts(s.id, s.time.nowMs);
    const [sale] = await points.sales(s.id, { state: "waiting", reward: "", limit: 1 });
    await points.keepDetail(s.id, sale!.id, "sealed");
    // What they wrote just now is on its way to the log still.
    s.say("ada", "my last words");
    // What games keep names them too: as who it was about, as a winner, as who did it.
    const { num } = (await shops.db("channels").where({ id: s.id }).first("num"))!;
    const [{ id: key }] = (await shops.db("viewers").where({ channel: num, ext: "ada" }).select("id")) as [{ id: number }];
    const bodies = [
      { change: { id: "ada", weight: 1 }, entrant: { id: "ada", name: "ada", tickets: 1 } },
      {
        winners: [
          { id: "ada", name: "ada" },
          { id: "adam", name: "adam" },
        ],
        proof: { list: [{ id: "ada", weight: 1 }] },
      },
      { label: "Celadon", by: "ada" },
    ];
    for (const [i, body] of bodies.entries())
      await shops.db("records").insert({
        channel: num,
        game_id: "mug",
        seq: 900 + i,
        kind: "round",
        viewer: i === 0 ? key : null,
        from_ms: 1,
        to_ms: 1,
        body: JSON.stringify(body),
      });
    await s.runner.forget("ada");
    await points.forget(s.id, "ada", "gone-1");
    await points.forget(s.id, "ada", "gone-2");
    const kept = (await shops.db("records").where({ game_id: "mug" }).orderBy("seq").select("body")).map(
      (r) => JSON.parse(String(r.body)) as unknown,
    );
    expect(kept).toEqual([
      { change: { id: "ada", weight: 1 }, entrant: { id: "ada", name: "somebody", tickets: 1 } },
      // Ids stay, since proofs are made of them; and nobody else loses their name.
      {
        winners: [
          { id: "ada", name: "somebody" },
          { id: "adam", name: "adam" },
        ],
        proof: { list: [{ id: "ada", weight: 1 }] },
      },
      { label: "Celadon", by: "somebody" },
    ]);
    expect(await points.person(s.id, "ada")).toBeNull();
    expect(await points.detail(s.id, sale!.id)).toBeNull();
    expect(names(await points.people(s.id, "", 9)).sort()).toEqual(["adam", "somebody"]);
    expect(await points.person(s.id, "adam")).toMatchObject({ balance: 270 });
    await new Promise((r) => setTimeout(r, 250));
    const after = await points.charts(s.id, s.time.nowMs);
    expect(after).toEqual(before);
    for (const table of ["log", "chat_log", "transfers", "sales"]) {
      const rows = (await shops.db(table)) as Record<string, unknown>[];
      const texts = rows.map((r) => JSON.stringify(r));
      expect(texts.filter((t) => /"ada"|my (last )?words/.test(t))).toEqual([]);
    }
  });
});
