import { expect, test } from "@jest/globals";
import { areaOf, isFollowed, showsPast } from "./follows";

test.each([
  ["/api/overlays/main-stage/layout", "overlays"],
  ["/games/kiln-cat/publish", "games"],
  ["/games/kiln-cat/command", null],
  ["/games/kiln-cat/draft", null],
  ["/review/shows/4", "review"],
  ["/queues", null],
  ["/constructor", null],
  ["/", null],
])("%s changes %s", (path, area) => expect(areaOf(path)).toBe(area));

test("a page follows what it shows, and nothing else", () => {
  expect(isFollowed("/prepare/games/kiln-cat", "overlays")).toBe(true);
  expect(isFollowed("/prepare/overlays/main-stage", "emotes")).toBe(false);
  // By whole parts of its address.
  expect(isFollowed("/prepare/gamesroom", "props")).toBe(false);
  expect(isFollowed("/prepare", "games")).toBe(true);
  expect(isFollowed("/run", "games")).toBe(false);
  expect([showsPast("/review"), showsPast("/review/shows/3"), showsPast("/reviews")]).toEqual([true, true, false]);
});
