import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { emoteIndex } from "../../chat/emotes";
import { cleanText, type Cleaning, cutToSentence, graphemesOf, spokenName } from "./clean";

const usual: Cleaning = { links: "word", emotes: "word", emoji: "name" };
const names: Record<string, string> = { "🔥": "fire", "🫖": "teapot", "👍🏽": "thumbs up" };
const kit = {
  emotes: emoteIndex([
    { id: "w", word: "wobblePot" },
    { id: "g", word: "goldMend" },
  ]),
  marks: [],
  emojiName: (emoji: string) => (Object.hasOwn(names, emoji) ? names[emoji]! : null),
};
const clean = (text: string, how: Partial<Cleaning> = {}, part: Partial<typeof kit> = {}): string =>
  cleanText(text, { ...usual, ...how }, { ...kit, ...part });

describe("what is given to an engine", () => {
  test.each([
    ["hello there", "hello there"],
    ["  many   blanks \n and lines ", "many blanks and lines"],
    ["see https://example.com/a?b=c now", "see a link now"],
    ["see www.example.com", "see a link"],
    ["visit example.org!", "visit a link"],
    ["wobblePot rises", "wobble pot rises"],
    ["WOBBLEPOT", "wobblepot"],
    ["so gooooooood", "so goood"],
    ["no no no no no", "no no"],
    ["No no NO", "No no"],
    ["aaaa aaaa aaaa aaaa", "aaa aaa"],
    ["it is 🔥", "it is fire"],
    ["🔥🔥🔥🔥", "fire"],
    ["nice👍🏽work", "nice thumbs up work"],
    ["an unknown 🪿 one", "an unknown one"],
    ["<speak><break time='9s'/>hi</speak>", "speak break time '9s'/ hi /speak"],
    ["[[h@'loU]] there", "h@'loU there"],
    ["$(rm -rf /); `id` | cat", "$(rm -rf /); id cat"],
    ["a\u0000b\u0007c", "a b c"],
    ["zero\u200bwidth\u202eturned", "zerowidthturned"],
    ["z\u0351\u0352\u0353\u0354\u0355algo", "z\u0351\u0352algo"],
    ["!!! ???", ""],
    ["😀", ""],
    ["   ", ""],
    ["日本語 テスト", "日本語 テスト"],
    ["--help", "--help"],
  ])("%j is said as %j", (text, said) => expect(clean(text)).toBe(said));
  test("emotes: by their words, once each, or not at all; those that chat marked too", () => {
    const text = "wobblePot wobblePot goldMend hi";
    expect(clean(text, { emotes: "once" })).toBe("wobble pot gold mend hi");
    expect(clean(text, { emotes: "nothing" })).toBe("hi");
    const marks = [{ start: 3, length: 8, id: "x" }];
    expect(clean("hi kilnGlow", {}, { marks: marks as never })).toBe("hi kiln glow");
    expect(clean("hi kilnGlow", { emotes: "nothing" }, { marks: marks as never })).toBe("hi");
  });
  test("only emotes, only links, only emoji that are left out: nothing is left to say", () => {
    expect(clean("wobblePot goldMend", { emotes: "nothing" })).toBe("");
    expect(clean("https://a.com https://b.com", { links: "nothing" })).toBe("");
    expect(clean("🔥🔥", { emoji: "nothing" })).toBe("");
  });
  test("whatever is written: no markup, no control, nothing four times running, and again the same", () => {
    fc.assert(
      fc.property(fc.string({ unit: "binary", maxLength: 500 }), (text) => {
        const once = clean(text);
        // eslint-disable-next-line no-control-regex -- controls are what is looked for
        expect(once).not.toMatch(/[<>[\]{}\\|`\u0000-\u001f]/);
        expect(once).toBe(once.trim());
        expect(once.length).toBeLessThanOrEqual(text.length * 12 + 20);
      }),
    );
  });
  test("five hundred letters without a blank are one long word, cut by letters", () => {
    const long = "ab".repeat(250);
    expect(clean(long)).toBe(long);
    expect(graphemesOf(cutToSentence(long, 200))).toHaveLength(200);
  });
});

describe("names", () => {
  test.each([
    ["mossy_teapot", "mossy, teapot"],
    ["ferrule7", "ferrule"],
    ["xX_2024_Xx", "x X, Xx"],
    ["1234", "1234"],
    ["WedgeWright", "Wedge Wright"],
    ["日本", "日本"],
  ])("%s is said as %s", (name, said) => expect(spokenName(name)).toBe(said));
});

describe("what is too long", () => {
  test("is read to the end of a sentence, of a word, or as far as it goes", () => {
    expect(cutToSentence("One is done. Two is not done yet", 20)).toBe("One is done.");
    expect(cutToSentence("One two three four five", 12)).toBe("One two");
    expect(cutToSentence("short", 12)).toBe("short");
    expect(cutToSentence("👍🏽".repeat(9), 4)).toBe("👍🏽".repeat(4));
  });
});
