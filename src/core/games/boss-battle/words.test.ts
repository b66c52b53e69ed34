import { describe, expect, test } from "@jest/globals";
import { plain, valueAt } from "../../words/sentence";
import { bossBattle } from "./definition";
import { type BossSettings, bossSettingsSchema } from "./settings";
import { bossRulesInWords, bossSentences } from "./words";
import { bossHints, damagePerHour } from "./hints";

const s = (part: Partial<BossSettings> = {}): BossSettings => bossSettingsSchema.parse({ ...bossBattle.defaults, ...part });
const ids = (part: Partial<BossSettings>): string[] => bossHints(s(part)).map((h) => h.id);
const hits = (part: Partial<BossSettings["hits"]>) => ({ hits: { ...bossBattle.defaults.hits, ...part } });
const hit = (give: number, per = 1) => ({ rate: { give, per }, most: 0 });

describe("the sentences of a boss battle", () => {
  test("every blank changes a setting that is there", () => {
    for (const how of ["none", "step", "percent", "matched"] as const) {
      const settings = s({ growth: { ...bossBattle.defaults.growth, how, ceiling: 9 } });
      for (const { parts } of bossSentences(settings))
        for (const part of parts) if (typeof part !== "string") expect(valueAt(settings, part.path)).not.toBeUndefined();
    }
  });
  test("they tell the rules as they are", () => {
    const told = bossSentences(s()).map(plain);
    expect(told).toContain("A follow does 10 damage.");
    expect(told).toContain("A tip does 20 damage for every 1.00 EUR. Small tips add up until the show ends.");
    expect(told).toContain("When it falls, whoever struck last becomes the boss.");
    expect(told).toContain("The next one has the same health.");
  });
  test("money is told in the home currency, with its digits", () => {
    expect(bossRulesInWords(s(hits({ tip: hit(5, 100) })), "JPY").join(" ")).toContain("for every 100 JPY");
  });
  test("viewers are not told of what does nothing", () => {
    const told = bossRulesInWords(s()).join(" ");
    expect(told).not.toMatch(/chat message/);
    expect(bossRulesInWords(s(hits({ message: hit(1) }))).join(" ")).toMatch(/A chat message does 1 damage/);
  });
});

describe("settings that spoil the game are told before the show", () => {
  test("the defaults are a fair fight", () => expect(ids({})).toEqual([]));
  test("one blow fells it", () => {
    expect(ids({ health: 100 })).toContain("one-blow");
    expect(ids({ health: 5 })).toContain("one-blow");
    // A most per signal can save it.
    expect(
      ids({
        health: 101,
        ...hits({ membership: { ...hit(500), most: 50, by: "each" }, gift: { ...hit(500), most: 50 }, tip: { ...hit(1, 100), most: 0 } }),
      }),
    ).not.toContain("one-blow");
  });
  test("it can't be felled at the usual pace", () => {
    expect(ids({ health: 1_000_000 })).toContain("too-hard");
    expect(bossHints(s({ health: damagePerHour(s()) * 6 })).find((h) => h.id === "too-hard")?.text).toContain("some 6 hours");
  });
  test("healing outruns damage", () => {
    expect(ids(hits({ message: hit(40) }))).toContain("chat-heals");
    expect(ids({ champion: { own: "heal", healing: "endless" } })).toContain("endless");
  });
  test("nothing hits it, it grows without end, its health can't be seen, its roster is one", () => {
    const none = Object.fromEntries(
      Object.entries(bossBattle.defaults.hits).map(([k, h]) => [k, { ...h, rate: { give: 0, per: 1 } }]),
    ) as BossSettings["hits"];
    expect(ids({ hits: none })).toContain("nothing-hits");
    expect(ids({ growth: { ...bossBattle.defaults.growth, how: "percent", percent: 80, ceiling: 0 } })).toContain("runaway");
    expect(ids({ looks: { ...bossBattle.defaults.looks, figure: false, band: false, numbers: false } })).toContain("no-health");
    expect(ids({ next: "roster" })).toContain("one-roster");
  });
});
