import { describe, expect, test } from "@jest/globals";
import { allGames } from "../../core/games/registry";
import { buttonsOf } from "../../core/games/buttons";
import { demoCues } from "../../server/seed/demo-cues";
import { fixedKeys } from "./fixed-keys";
import { keyUse } from "./key-owners";

const games = allGames().map((g) => ({ kind: g.kind }));

describe("who has a key", () => {
  test("what is always there, and the actions of the channel's games; any other is free", () => {
    expect(keyUse(".", { chosen: {}, games })).toBe("hush");
    expect(keyUse("k", { chosen: {}, games: [] })).toBe("skipping what plays");
    for (const { kind } of games)
      for (const [, action] of buttonsOf(kind))
        if (action.key !== undefined) expect(keyUse(action.key, { chosen: {}, games })).not.toBeNull();
    expect(keyUse("ß", { chosen: {}, games })).toBeNull();
    const [name, action] = games.flatMap((g) => buttonsOf(g.kind)).find(([, a]) => a.key !== undefined)!;
    expect([name, keyUse(action.key!, { chosen: {}, games: [] })]).toEqual([name, null]);
  });
  test("as it was chosen in this browser: given elsewhere, or turned off", () => {
    expect(keyUse("k", { chosen: { "queue.skip": "j" }, games: [] })).toBeNull();
    expect(keyUse("j", { chosen: { "queue.skip": "j" }, games: [] })).toBe("skipping what plays");
    expect(keyUse("k", { chosen: { "queue.skip": null }, games: [] })).toBeNull();
    expect(keyUse("constructor", { chosen: JSON.parse('{"__proto__":"z"}'), games: [] })).toBeNull();
  });
  test("nothing that is always there shadows another, nor a game's action, nor a cue of the demo", () => {
    const keys = Object.values(fixedKeys).map((f) => f.key);
    expect(new Set(keys).size).toBe(keys.length);
    for (const { kind } of games)
      for (const [, action] of buttonsOf(kind)) if (action.key !== undefined) expect(keys).not.toContain(action.key);
    for (const cue of demoCues(() => "").cues)
      if (cue.key !== "") expect([cue.name, keyUse(cue.key, { chosen: {}, games })]).toEqual([cue.name, null]);
  });
});
