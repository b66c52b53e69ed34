import { describe, expect, test } from "@jest/globals";
import { emoteIndex, findEmotes, mostFound } from "./emotes";

const index = emoteIndex([
  { id: "w", word: "wobblePot" },
  { id: "k", word: "kilnGlow" },
  { id: "o", word: "Öfchen" },
]);
const all = { own: true, marked: true, emoji: true };
const keys = (text: string, sources = all, marks: Parameters<typeof findEmotes>[1] = []): string[] =>
  findEmotes(text, marks, index, sources).map((f) => f.key);

describe("finding emotes", () => {
  test("own words, whole words only, in any capitals", () => {
    expect(keys("wobblePot and WOBBLEPOT wobblepots kilnGlow")).toEqual(["own:w", "own:w", "own:k"]);
    expect(keys("xwobblePot wobblePot!")).toEqual([]);
  });
  test("accents and invisible characters make no other word", () => {
    expect(keys("ofchen ÖFCHEN wobble\u200BPot \u202EkilnGlow")).toEqual(["own:o", "own:o", "own:w", "own:k"]);
  });
  test("all spaces part words, ideographic and unbreakable ones too", () =>
    expect(keys("wobblePot\u3000kilnGlow\u00A0wobblePot\tkilnGlow")).toEqual(["own:w", "own:k", "own:w", "own:k"]));
  test("emoji count as whole graphemes: flags, families, skin tones, keycaps", () => {
    expect(keys("🔥👩‍🚀👍🏽 🇳🇱 3️⃣ ❤️")).toEqual(["emoji:🔥", "emoji:👩‍🚀", "emoji:👍🏽", "emoji:🇳🇱", "emoji:3️⃣", "emoji:❤️"]);
  });
  test("digits, text symbols and letters are no emoji", () => expect(keys("3 # © ™ ❤ a é 漢字")).toEqual([]));
  test("emoji inside words are found too", () => expect(keys("hot🔥pot")).toEqual(["emoji:🔥"]));
  test("places the platform marks win over words, and their text counts once", () => {
    expect(keys("wobblePot tide kilnGlow", all, [{ start: 10, length: 4, id: "tide" }])).toEqual(["own:w", "mark:tide", "own:k"]);
    expect(keys("wobblePot", all, [{ start: 0, length: 9, id: "theirs" }])).toEqual(["mark:theirs"]);
  });
  test("each source can be off", () => {
    const text = "wobblePot 🔥 tide";
    const marks = [{ start: 13, length: 4, id: "tide" }];
    expect(keys(text, { own: false, marked: true, emoji: true }, marks)).toEqual(["emoji:🔥", "mark:tide"]);
    expect(keys(text, { own: true, marked: false, emoji: false }, marks)).toEqual(["own:w"]);
  });
  test("500 emotes at most, and an endless cluster of joiners is no emoji", () => {
    expect(keys("wobblePot ".repeat(900))).toHaveLength(mostFound);
    expect(keys("🔥".repeat(900))).toHaveLength(mostFound);
    expect(keys(`👨${"\u200D👩".repeat(3_000)}`)).toEqual([]);
  });
  test("a word that is a property of every object is no emote", () => expect(keys("constructor __proto__ toString")).toEqual([]));
  test("500 words and 8 KB of text are searched in a moment", () => {
    const large = emoteIndex(Array.from({ length: 500 }, (_, i) => ({ id: `e${i}`, word: `emote${i}` })));
    const text = Array.from({ length: 900 }, (_, i) => `emote${i % 700}`).join(" ");
    expect(findEmotes(text, [], large, all).length).toBe(mostFound);
  });
});
