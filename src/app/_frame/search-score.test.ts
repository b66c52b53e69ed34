import { describe, expect, test } from "@jest/globals";
import { otherPlaces, prepareParts, rehearseParts, reviewParts } from "./places";
import { scoreOf } from "../../ui/search-score";

const hush = { label: "Hush: empty and silence every overlay", words: "hush mute silence quiet panic", grave: true };
const end = { label: "End the show", words: "end", grave: true };
const all = [
  hush,
  end,
  { label: "Publish this game", words: "" },
  ...prepareParts.map((p) => ({ label: p.name, words: p.words })),
  ...rehearseParts.map((p) => ({ label: p.name, words: p.words })),
  ...reviewParts.map((p) => ({ label: p.name, words: p.words })),
  ...otherPlaces.map((p) => ({ label: p.name, words: p.words })),
];
const first = (sought: string): string =>
  [...all]
    .map((a) => ({ label: a.label, score: scoreOf(sought, a) }))
    .filter((a) => a.score > 0)
    .sort((a, b) => b.score - a.score)[0]?.label ?? "";

describe("search", () => {
  test.each([
    ["overlays", "Overlays"],
    ["overlay", "Overlays"],
    ["rewards", "Rewards"],
    ["cues", "Cues"],
    ["points", "Points"],
    ["phone", "Pair a phone"],
    ["mute", "People"],
    ["publish", "Publish this game"],
    ["show", "Rundown"],
    ["every", ""],
    ["hush", "Hush: empty and silence every overlay"],
    ["panic", "Hush: empty and silence every overlay"],
    ["end the show", "End the show"],
    ["hush every overlay", "Hush: empty and silence every overlay"],
    ["IMAGE", "Pictures and sounds"],
    ["browser source", "Overlays"],
    ["xyzzy", ""],
  ])("“%s” finds “%s” first", (sought, label) => expect(first(sought)).toBe(label));
  test("nothing that silences or ends comes first for a word that is not its own", () => {
    for (const a of all)
      for (const word of a.label.split(/\W+/).filter((w) => w.length > 2))
        if (!["hush", "silence", "end"].includes(word.toLowerCase())) expect([hush.label, end.label]).not.toContain(first(word));
  });
  test("with nothing sought all are there, the grave ones last", () => {
    expect(scoreOf("", hush)).toBeGreaterThan(0);
    expect(scoreOf("", hush)).toBeLessThan(scoreOf("", { label: "Overlays" }));
  });
  test("strangers in the field harm nothing", () => {
    for (const odd of ["__proto__", "(", "\\", "😀", "\ud83d", " "]) expect(() => first(odd)).not.toThrow();
  });
});
