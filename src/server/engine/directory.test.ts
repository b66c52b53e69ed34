import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { mariadbPoints } from "../adapters/mariadb/points-store";
import { said } from "../testing/channel";
import { testShops } from "../testing/shop";
import { Directory } from "./directory";

let shops: Awaited<ReturnType<typeof testShops>>;
beforeAll(async () => {
  shops = await testShops("directory");
});
afterAll(() => shops.end());

describe("who is known", () => {
  test("whoever wrote, without a single point: by id, by login, by the name of now; after a restart too", async () => {
    const s = await shops.opened([]);
    await s.onAir();
    s.say("ada", "hello");
    s.say("constructor", "hello");
    s.runner.inbox.message({ ...said("hello"), viewerId: "u-77", name: "Kelp Forest" });
    await s.settled();
    const known = () =>
      ["ADA", "constructor", "kelp forest", "u-77", "__proto__", "toString"].map((n) => s.runner.ledgerView.named(n)?.id ?? null);
    const all = ["ada", "constructor", "u-77", "u-77", null, null];
    expect(known()).toEqual(all);
    expect(s.runner.knows("Kelp forest")).toBe(true);
    await s.restart();
    expect(known()).toEqual(all);
    const points = mariadbPoints(shops.db);
    expect((await points.people(s.id, "kelp", 5)).map((p) => [p.id, p.balance])).toEqual([["u-77", 0]]);
    expect(await points.person(s.id, "u-77")).toMatchObject({ name: "Kelp Forest", balance: 0, history: [] });
    expect((await points.known(s.id)).map((p) => p.id).sort()).toEqual(["ada", "constructor", "u-77"]);
    // Lists of accounts stay lists of accounts.
    expect(await points.people(s.id, "", 5)).toEqual([]);
    await s.give("ada", 5);
    expect([known(), s.runner.ledgerView.balance("ada")]).toEqual([all, 5]);
  });
  test("two of a name are asked about, whether they have points or not; the one who signs in by it is meant", async () => {
    const s = await shops.opened([]);
    await s.onAir();
    const writes = (id: string, name: string): void => void s.runner.inbox.message({ ...said("hello"), viewerId: id, name });
    writes("u-1", "Tin");
    writes("u-2", "tin");
    await s.settled();
    const { ledgerView } = s.runner;
    expect([ledgerView.named("tin"), ledgerView.areSeveral("TIN")]).toEqual([null, true]);
    await s.give("u-1", 5);
    writes("u-3", "Tin");
    await s.settled();
    expect([ledgerView.named("tin"), ledgerView.areSeveral("tin")]).toEqual([null, true]);
    s.say("tin", "it is I");
    await s.settled();
    expect([ledgerView.named("Tin")?.id, ledgerView.areSeveral("tin")]).toEqual(["tin", false]);
  });
});

test("another name leaves the one before; too many let the oldest go", () => {
  const people = new Directory();
  people.meet({ id: "a", name: "Ada" });
  people.meet({ id: "a", name: "Ada of the kiln" });
  expect([people.idsOf("ada"), people.idsOf("ada of the kiln"), people.nameOf("a")]).toEqual([[], ["a"], "Ada of the kiln"]);
  for (let n = 0; n < 200_000; n += 1) people.meet({ id: `v${n}`, name: `v${n}` });
  expect([people.has("a"), people.has("v0"), people.has("v199999"), people.idsOf("ada of the kiln")]).toEqual([false, true, true, []]);
});
