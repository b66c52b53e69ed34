import { describe, expect, test } from "@jest/globals";
import { plain } from "../../words/sentence";
import { emoteWall } from "./definition";
import { type WallSettings, wallDefaults, wallSettingsSchema } from "./settings";
import { wallHints, wallRulesInWords, wallSentences } from "./words";
import { wallNoteInWords } from "./notes";

const hints = (s: WallSettings, ownEmotes = 3): string[] => wallHints(s, { ownEmotes }).map((h) => h.id);

describe("the wall in words", () => {
  test("the sentences say what the settings are", () => {
    const s: WallSettings = {
      ...wallDefaults,
      roles: ["member", "moderator"],
      mostPerMessage: 4,
      combo: { ...wallDefaults.combo, on: true, needed: 5, withinMs: 12_000, counted: "viewers" },
    };
    const words = wallSentences(s).map(plain).join(" ");
    expect(words).toContain("Emotes written by members and moderators fly across the picture.");
    expect(words).toContain("at most 4 in all");
    expect(words).toContain(
      "That takes 5 of the same within 12 s, counting each viewer once. Then one appears and the count begins again.",
    );
  });
  test("viewers hear the rules, not the operator's limits of drawing", () => {
    expect(wallRulesInWords(wallDefaults).join(" ")).not.toMatch(/flock|at once; the oldest/i);
    expect(wallRulesInWords(wallDefaults)).toContain("One viewer may show at most 20 within 30 s.");
  });
  test("a held-back emote says what it waits for", () => {
    expect(
      wallNoteInWords({
        refusal: { code: "wall/combo-waiting", facts: { seen: 2, needed: 3, withinS: 10 } },
        count: 1,
        subject: "kilnGlow",
      }),
    ).toBe("kilnGlow: not yet, 2 of 3 within 10 s");
    expect(wallNoteInWords({ refusal: { code: "wall/viewer-limit", facts: { most: 20, withinS: 30, freeInS: 12 } }, count: 1 })).toBe(
      "1 emote left out: at most 20 per viewer within 30 s; next in 12 s",
    );
    expect(wallNoteInWords({ did: "wall/flock", count: 1_500 })).toBe("a flock of 1,500");
  });
});

describe("settings worth a look", () => {
  test("the defaults are fine", () => expect(hints(wallDefaults)).toEqual([]));
  test.each<[string, WallSettings]>([
    ["no-source", { ...wallDefaults, sources: { own: false, marked: false, emoji: false } }],
    ["only-flocks", { ...wallDefaults, singles: false }],
    ["alone", { ...wallDefaults, combo: { ...wallDefaults.combo, on: true } }],
    ["rare", { ...wallDefaults, mostPerMessage: 2, combo: { ...wallDefaults.combo, on: true, needed: 400, withinMs: 2_000 } }],
    ["flock-cap", { ...wallDefaults, flock: { ...wallDefaults.flock, count: 900 } }],
    ["flock-none", { ...wallDefaults, flock: { ...wallDefaults.flock, from: "chosen" } }],
    ["cap", { ...wallDefaults, cap: 1_500 }],
  ])("%s is told", (id, settings) => expect(hints(settings)).toEqual([id]));
  test("own emotes only, with none there, is told", () =>
    expect(hints({ ...wallDefaults, sources: { own: true, marked: false, emoji: false } }, 0)).toEqual(["no-emotes"]));
});

describe("what an audience may see", () => {
  test("overlays get looks only, viewers only whether it is on", () => {
    const overlay = emoteWall.view(wallDefaults, { on: true, worn: [] }, "overlay");
    expect(Object.keys(overlay).sort()).toEqual([
      "area",
      "cap",
      "lifeMs",
      "motion",
      "on",
      "onFrames",
      "opacity",
      "sizeShare",
      "sizeSpread",
      "trims",
    ]);
    expect(emoteWall.view(wallDefaults, { on: true, worn: [] }, "viewer")).toEqual({ on: true });
  });
});

describe("settings are checked", () => {
  test.each<[string, unknown]>([
    ["nobody allowed", { roles: [] }],
    ["life under half a second", { lifeMs: 400 }],
    ["life over two minutes", { lifeMs: 120_001 }],
    ["an area over the edge", { area: { x: 0.6, y: 0, width: 0.5, height: 1 } }],
    ["a combo of one", { combo: { ...wallDefaults.combo, needed: 1 } }],
    ["a fraction of a copy", { combo: { ...wallDefaults.combo, needed: 2.5 } }],
    ["an unknown way of moving", { motion: "teleport" }],
  ])("%s is refused", (_, part) => expect(wallSettingsSchema.safeParse({ ...wallDefaults, ...(part as object) }).success).toBe(false));
});
