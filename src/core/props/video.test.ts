import { describe, expect, test } from "@jest/globals";
import { flashedAt, type Flashing, flashingOf } from "./video";

describe("when a film flashes", () => {
  test("the second before each find is one stretch; those that touch are one", () => {
    let found: Flashing = [];
    for (const atMs of [1_200, 1_233.4, 1_266.7, 2_600, 6_000]) found = flashedAt(found, atMs);
    expect(found).toEqual([
      [200, 2_600],
      [5_000, 6_000],
    ]);
    expect(flashedAt([], 300)).toEqual([[0, 300]]);
  });
  test("too many stretches become one to the last of them", () => {
    let found: Flashing = [];
    for (let n = 0; n < 100; n += 1) found = flashedAt(found, 2_000 + n * 4_000);
    expect([found.length, found.at(-1)]).toEqual([40, [157_000, 398_000]]);
  });
  test("a film from before stretches were noted flashes from its first flash to its end", () => {
    const film = { flashes: "general", flashesAtMs: 700, flashing: [], ms: 5_000 } as const;
    expect(flashingOf({ ...film, flashing: [] })).toEqual([[700, 5_000]]);
    expect(flashingOf({ ...film, flashing: [[1_000, 2_000]] })).toEqual([[1_000, 2_000]]);
    expect(flashingOf({ ...film, flashes: "none", flashing: [] })).toEqual([]);
  });
});
