import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { newRule, rulebookDefaults } from "../../core/rules/settings";
import { mariadbShows } from "../adapters/mariadb/shows";
import { testShops } from "../testing/shop";

/** Who was in which show, on the real database. */
let shops: Awaited<ReturnType<typeof testShops>>;
beforeAll(async () => {
  shops = await testShops("attendance");
});
afterAll(() => shops.end());

const rules = {
  ...rulebookDefaults,
  rules: [
    {
      ...newRule("met", "arrival"),
      tiers: [
        { at: "exact" as const, amount: 1, effects: [{ do: "say" as const, text: "new: {viewer}" }] },
        { at: "least" as const, amount: 2, effects: [{ do: "say" as const, text: "{viewer}, show {shows}" }] },
      ],
    },
  ],
};
const opened = async () => {
  const s = await shops.opened([], {}, [["rules", rules]]);
  await s.onAir();
  return s;
};
type Shop = Awaited<ReturnType<typeof opened>>;
const told = async (s: Shop): Promise<string[]> => {
  await s.settled();
  await new Promise((r) => setTimeout(r, 20));
  await s.settled();
  return s.says.splice(0);
};

describe("attendance", () => {
  test("each is met once in a show, by the first message, however many come at once and whatever they are called", async () => {
    const s = await opened();
    const names = ["ada", "__proto__", "constructor", "toString", "\ud83d\ude00", "Ada"];
    for (const name of names) for (let i = 0; i < 4; i += 1) s.say(name, `hello ${i}`);
    expect((await told(s)).length).toBe(names.length);
    s.time.nowMs += 60_000;
    for (const name of names) s.say(name, "still here");
    expect(await told(s)).toEqual([]);
  });
  test("after a kill nobody is met twice; in the next show it is their second", async () => {
    const s = await opened();
    s.say("ada", "hello");
    expect(await told(s)).toEqual(["new: ada"]);
    await s.restart();
    s.say("ada", "back");
    expect(await told(s)).toEqual([]);
    await s.command("show", { do: "show", what: "end" });
    s.time.nowMs += 86_400_000;
    await s.onAir();
    s.say("ada", "next evening");
    expect(await told(s)).toEqual(["ada, show 2"]);
  });
  test("a rehearsal and what happens off air count nobody", async () => {
    const s = await opened();
    await s.command("show", { do: "show", what: "end" });
    s.say("ada", "off air");
    await s.command("show", { do: "show", what: "rehearse" });
    s.say("ada", "rehearsed");
    await told(s);
    await s.command("show", { do: "show", what: "end" });
    await s.onAir();
    s.time.nowMs += 20_000;
    s.say("ada", "for real");
    expect(await told(s)).toEqual(["new: ada"]);
  });
  test("two hundred at once are written down in a few commits", async () => {
    let commits = 0;
    const s = await opened();
    const { commit } = s.store;
    Object.assign(s.store, { commit: (...args: Parameters<typeof commit>) => ((commits += 1), commit(...args)) });
    for (let i = 0; i < 200; i += 1) s.say(`v${i}`, "hello");
    const all = await told(s);
    expect(all).toHaveLength(200);
    expect(commits).toBeLessThan(20);
  });
});

describe("who came to a show, afterwards", () => {
  test("how many, who was new, who was back, and whom one presented", async () => {
    const s = await opened();
    const fromMs = s.time.nowMs;
    for (const name of ["ada", "bo", "__proto__"]) s.say(name, "hello");
    await told(s);
    await s.command("show", { do: "show", what: "end" });
    s.time.nowMs += 40 * 86_400_000;
    const secondMs = s.time.nowMs;
    await s.onAir();
    for (const name of ["ada", "cy"]) s.say(name, "hello again");
    await told(s);
    const shows = mariadbShows(shops.db);
    expect(await shows.whoCame(s.id, fromMs, fromMs + 1_000, 30)).toEqual({
      came: 3,
      fresh: { count: 3, names: ["ada", "bo", "__proto__"] },
      back: { count: 0, people: [] },
      presented: [],
    });
    expect(await shows.whoCame(s.id, secondMs, secondMs + 1_000, 30)).toMatchObject({
      came: 2,
      fresh: { count: 1, names: ["cy"] },
      back: { count: 1, people: [{ name: "ada", days: 40 }] },
    });
    expect(await shows.whoCame(s.id, 0, 1, 30)).toMatchObject({ came: 0 });
  });
  test("who is forgotten is in no show any more, and in nobody's state", async () => {
    const s = await opened();
    await s.command("show", { do: "face", id: "ada", name: "ada", on: false });
    s.say("ada", "hello");
    await told(s);
    await s.runner.forget("ada");
    expect(JSON.stringify(s.runner.modules.list.map((m) => m.durable))).not.toContain("ada");
    const rows = (await shops.db("log").where({ kind: "command" }).select("body")) as { body: string }[];
    expect(rows.filter((r) => r.body.includes("forget-viewer"))).toEqual([]);
  });
});
