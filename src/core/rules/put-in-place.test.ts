import { describe, expect, test } from "@jest/globals";
import { newCue } from "../cues/settings";
import { newReward } from "../rewards/settings";
import { putInPlace } from "./put-in-place";
import { newRule, rulebookDefaults } from "./settings";

const hit = (game: string) => ({ do: "act" as const, game, act: "damage", input: { amount: 5, text: game }, per: 1 });
const wake = (game: string) => ({ do: "switch" as const, game, on: true });

describe("one game in another's place", () => {
  test("in every tier of a rule, when a cue goes on and off, in a reward, behind a moderator's word", () => {
    const rule = { ...newRule("r", "tip"), tiers: [{ at: "least" as const, amount: 0, effects: [hit("a"), wake("b"), wake("a")] }] };
    expect(putInPlace({ ...rulebookDefaults, rules: [rule] }, "a", "c").rules[0]?.tiers[0]?.effects).toEqual([
      { ...hit("a"), game: "c" },
      wake("b"),
      wake("c"),
    ]);
    const cue = { ...newCue("q", "Q"), effects: [wake("a")], offEffects: [hit("a")] };
    expect(putInPlace({ cues: [cue] }, "a", "c").cues[0]).toMatchObject({ effects: [{ game: "c" }], offEffects: [{ game: "c" }] });
    expect(putInPlace(newReward("a", "a", 5), "a", "c")).toEqual(newReward("a", "a", 5));
    const commands = [{ id: "a", word: "!a", does: "stop", game: "a", act: "" }];
    expect(putInPlace({ commands }, "a", "c").commands).toEqual([{ id: "a", word: "!a", does: "stop", game: "c", act: "" }]);
  });
  test("what does not name it is the very same; a name from outside is no more than a name", () => {
    const book = { ...rulebookDefaults, rules: [newRule("r", "tip")] };
    expect(putInPlace(book, "a", "c")).toBe(book);
    const odd = JSON.parse('{"__proto__":{"game":"a"},"list":[{"game":"constructor"}]}') as { list: { game: string }[] };
    expect(putInPlace(odd, "constructor", "x").list).toEqual([{ game: "x" }]);
    expect(({} as { game?: string }).game).toBeUndefined();
  });
});
