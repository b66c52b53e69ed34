import { describe, expect, test } from "@jest/globals";
import { bossDefaults } from "../games/boss-battle/settings";
import { allGames } from "../games/registry";
import { formParts } from "../module/fields";
import { otherModules } from "../modules";
import { answerInWords, askInWords, eveningInWords, inputOf, inUnit, percent, questionOf, settingsInstead, settingsToAsk } from "./ask";
import { labRefusalInWords } from "./words";
import { summaryOf } from "./statistics";

const names = { game: "Old Spall", points: "clay" };
const facts = { home: "EUR", ownEmotes: 0, points: "clay" };
const questions = [...allGames(), ...otherModules()].flatMap((m) => (m.lab ?? []).map((q) => [`${m.kind}: ${q.id}`, q] as const));
const asked = (kind: string, id: string) => {
  const found = questionOf(kind, id);
  if (found === null) throw new Error("no such question");
  return found;
};

describe.each(questions)("%s", (_, question) => {
  test("each of its blanks is in its sentence, and the sentence has no other", () => {
    const blanks = formParts(question.form).flatMap((p) => (typeof p === "string" ? [] : [p.blank]));
    const own = blanks.filter((b) => !["game", "points", "evening"].includes(b));
    expect(new Set(own)).toEqual(new Set(Object.keys(question.input)));
    expect(blanks.includes("evening")).toBe(question.crowd);
  });
  test("with nothing filled in it can be asked, and reads as a sentence", () => {
    expect(inputOf(question, {}).ok).toBe(true);
    const words = askInWords(question, { input: {}, evening: { like: "last", shows: 10 } }, names);
    expect(words).toMatch(/^[A-Z].*\?$/);
    expect(words).not.toMatch(/[{}]|undefined/);
  });
  test("its answer names what it is about", () => {
    const [first] = answerInWords(question, summaryOf([1, 2, 3]), names);
    expect(first).toMatch(/2.*in the middle case/);
    expect(first).not.toMatch(/[{}]/);
  });
});

test("a question as it was asked", () => {
  const ask = { input: { segment: "Gold", spins: 1_200 }, evening: { like: "last", shows: 1 } } as const;
  expect(askInWords(asked("wheel", "drawn"), ask, { ...names, game: "Next glaze" })).toBe(
    "How often is Gold drawn in 1,200 spins of Next glaze?",
  );
  expect(eveningInWords({ like: "last", shows: 1 })).toBe("an evening like the last one");
  expect(eveningInWords({ like: "room", room: "storm", hours: 1 })).toBe("a stormy evening of an hour");
});

describe("answers", () => {
  const stands = asked("boss-battle", "stands");
  test("the middle, the ends, how often never, and how sure that is", () => {
    const values = [...Array.from({ length: 950 }, (_, i) => 20 + (i * 40) / 950), ...Array.from({ length: 50 }, () => null)];
    const [first = "", second = ""] = answerInWords(stands, summaryOf(values), names);
    expect(first).toBe(
      "Old Spall falls after 41 min in the middle case; 90 of 100 evenings lie between 22 min and 60 min. In 5 % of evenings it outlives the show.",
    );
    expect(second).toMatch(
      /^By 1,000 evenings: the middle lies between 40 min and 42 min, the share lies between 4 % and 7 %, with 95 % certainty\.$/,
    );
  });
  test("mostly never: that is said first", () => {
    expect(answerInWords(stands, summaryOf([5, null, null, null]), names)[0]).toBe("In 75 % of evenings it outlives the show.");
  });
  test("no evening is no answer", () => expect(answerInWords(stands, summaryOf([]), names)).toEqual(["No evening was played."]));
  test.each([
    ["minutes", 3.25, "3.3 min"],
    ["minutes", 155, "2 h 35 min"],
    ["points", -1_204, "−1,204 clay"],
    ["times", 1, "once"],
    ["times", 0, "never"],
    ["people", 1_204, "1,204"],
  ] as const)("%s: %d is %s", (unit, value, words) => expect(inUnit(unit, value, "clay")).toBe(words));
  test.each([
    [0, "0 %"],
    [0.004, "0.4 %"],
    [0.5, "50 %"],
    [0.996, "99.6 %"],
    [1, "100 %"],
  ])("a share of %d is %s", (share, words) => expect(percent(share)).toBe(words));
});

describe("the same, if a setting were another", () => {
  test("one of its sentences' blanks, with the sentence it stands in", () => {
    const all = settingsToAsk("boss-battle", bossDefaults, facts);
    expect(all.find((s) => s.blank.path === "health")?.sentence).toBe("The first boss has 1,000 health.");
    expect(all.every((s) => !["text", "roles", "emotes"].includes(s.blank.field.kind))).toBe(true);
    expect(settingsToAsk("points", {}, facts)).toEqual([]);
  });
  test("is taken where it fits, and refused with its reason where not", () => {
    const half = settingsInstead("boss-battle", bossDefaults, { path: "health", value: 500 });
    expect(half.ok && (half.value as { health: number }).health).toBe(500);
    for (const value of [0, 1.5, "many"])
      expect(settingsInstead("boss-battle", bossDefaults, { path: "health", value })).toMatchObject({
        ok: false,
        refusal: { code: "lab/setting" },
      });
    for (const path of ["constructor", "hits.constructor", "__proto__.x", "health.x", ""])
      expect(settingsInstead("boss-battle", bossDefaults, { path, value: 1 })).toMatchObject({
        ok: false,
        refusal: { code: "lab/no-setting" },
      });
    expect(settingsInstead("constructor", {}, { path: "x", value: 1 })).toMatchObject({ ok: false });
  });
  test("a blank that does not fit is told by its place", () => {
    const no = inputOf(asked("wheel", "drawn"), { spins: 0 });
    expect(no.ok ? "" : labRefusalInWords(no.refusal)).toContain("spins");
  });
});
