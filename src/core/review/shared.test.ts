import { describe, expect, test } from "@jest/globals";
import { sharedShow, sharedShowSchema } from "./shared";

describe("what of a show is shown to whoever has its link", () => {
  const told = {
    operators: ["secret_operator", ""],
    channel: "Saltmarsh Kiln",
    name: "Friday",
    fromMs: 1_000,
    toMs: 61_000,
    numbers: {
      messages: 5,
      people: 2,
      busiest: 3,
      follows: 1,
      raids: 1,
      raiders: 9,
      tips: 2,
      tipped: 12_345,
      made: 777,
      spent: 888,
      sales: 4,
      refunds: 1,
    },
    binMs: 10_000,
    chat: [1, 2, 0],
    moments: [
      { atMs: 11_000, toMs: 21_000, name: "The ferry", state: "kept", why: "chat was 8 times as much", by: "secret_operator" },
      { atMs: 12_000, toMs: 21_000, name: "private_found", state: "found" },
      { atMs: 13_000, toMs: 21_000, name: "private_dropped", state: "dropped" },
    ],
    rounds: [
      { atMs: 40_000, gameName: "Mug draw", title: "A mug", result: "ada won", check: "mug.1", people: 12, kind: "raffle", id: 4 },
      { atMs: 20_000, gameName: "Wheel", title: "A spin, for Secret_Operator", result: "tea, not for secret_operators", check: "" },
    ],
    // Whatever else comes along.
    sold: [{ reward: "private_reward", viewer: "private_buyer" }],
    lines: ["private_words"],
    faults: ["private_fault"],
    came: { fresh: { names: ["private_newcomer"] } },
    offsetMs: 99_991,
  };
  test("is what the allow-list names, and nothing more", () => {
    const shared = sharedShow(told);
    expect(sharedShowSchema.parse(shared)).toEqual(shared);
    const text = JSON.stringify(shared);
    for (const hidden of ["private_", 'secret_operator"', "Secret_Operator", "12345", "777", "888", "99991", "8 times"])
      expect(text).not.toContain(hidden);
    expect(Object.keys(shared.numbers)).toEqual(["messages", "people", "busiest", "follows", "raids", "raiders"]);
  });
  test("kept moments by their names, results in the order of the show", () => {
    const { moments, results } = sharedShow(told);
    expect(moments).toEqual([{ afterMs: 10_000, ms: 10_000, name: "The ferry" }]);
    expect(results.map((r) => [r.afterMs, r.game, r.check])).toEqual([
      [19_000, "Wheel", ""],
      [39_000, "Mug draw", "mug.1"],
    ]);
    expect([results[0]?.title, results[0]?.result]).toEqual(["A spin, for the house", "tea, not for secret_operators"]);
  });
});
