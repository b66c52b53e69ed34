import { describe, expect, test } from "@jest/globals";
import { gamesByKind } from "./by-kind";
import { allFronts, frontOf, isGame } from "./fronts";
import { allGames, gameOf, register } from "./registry";

describe("a game's front and its whole", () => {
  test("are of the same kinds, in the same order, and the front is what the whole says", () => {
    expect(allFronts().map((f) => f.kind)).toEqual(allGames().map((g) => g.kind));
    for (const game of allGames())
      for (const [key, value] of Object.entries(frontOf(game.kind) ?? {})) expect([key, Reflect.get(game, key)]).toEqual([key, value]);
  });
  test("each is loaded by its kind, and there is none of another name", async () => {
    expect([...gamesByKind.keys()].sort()).toEqual(
      allFronts()
        .map((f) => f.kind)
        .sort(),
    );
    for (const [kind, load] of gamesByKind) expect(await load()).toBe(gameOf(kind));
    for (const kind of ["", "constructor", "__proto__", "no-such-game"])
      expect([gamesByKind.get(kind), isGame(kind)]).toEqual([undefined, false]);
  });
  test("one that is added is known by its front too, until it is taken out", () => {
    const away = register({ ...gameOf("wheel")!, kind: "second-wheel", name: "second wheel" });
    expect(frontOf("second-wheel")?.name).toBe("second wheel");
    away();
    expect([frontOf("second-wheel"), gameOf("second-wheel")]).toEqual([null, null]);
  });
});
