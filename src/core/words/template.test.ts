import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { fold } from "../kernel/fold";
import { wellFormed } from "../kernel/text";
import { checkTemplate, exampleOf, fillTemplate, showable, withChip } from "./template";

describe("texts with variables", () => {
  const known = ["viewer", "count", "text"];
  test("variables are filled in, plural forms work", () => {
    const text = "{viewer} gives {count, plural, one {# membership} other {# memberships}}";
    expect(fillTemplate(text, { viewer: "Ada", count: 1 })).toBe("Ada gives 1 membership");
    expect(fillTemplate(text, { viewer: "Ada", count: 1_200 })).toBe("Ada gives 1,200 memberships");
    expect(checkTemplate(text, known)).toEqual({ ok: true, value: ["viewer", "count"] });
  });
  test("an unknown variable is refused by name, in the depth of a plural form too", () => {
    expect(checkTemplate("{viewer} and {who}", known)).toMatchObject({
      ok: false,
      refusal: { code: "text/unknown-variable", facts: { name: "who" } },
    });
    expect(checkTemplate("{count, plural, one {{nobody}} other {x}}", known)).toMatchObject({
      ok: false,
      refusal: { facts: { name: "nobody" } },
    });
  });
  test.each(["{", "{viewer", "}{", "{count, plural, one {x}}", "{ }"])("“%s” is no text with variables", (text) =>
    expect(checkTemplate(text, known)).toMatchObject({ ok: false, refusal: { code: "text/broken" } }),
  );
  test("what viewers wrote is data: their braces and tags are letters", () => {
    expect(fillTemplate("{viewer}: {text}", { viewer: "{text}", text: "{viewer} <b>x</b> '{'" })).toBe("{text}: {viewer} <b>x</b> '{'");
  });
  test("a text without variables stays as it is, and one that fails comes out as it stands", () => {
    expect(fillTemplate("Back in five minutes", {})).toBe("Back in five minutes");
    expect(fillTemplate("{missing}", {})).toBe("{missing}");
  });
  test("a chip is put in where the cursor stands", () => expect(withChip("Hello !", 6, "viewer")).toBe("Hello {viewer}!"));
});

describe("what may be shown on the picture", () => {
  test.each<[string, string, string]>([
    ["plain words", "lovely rim", "lovely rim"],
    ["line breaks and tabs", "a\n\tb", "a b"],
    ["zero-width and direction marks", "ab\u202Ecd\u2066e\u200b", "abcde"],
    ["an emoji made of several stays one", "hi 👩\u200d🚀 \u200d!", "hi 👩\u200d🚀 !"],
    ["an address with something unseen in it", "see shop\u200b.com", "see (link)"],
    ["a pile of marks on one letter", `z${"\u0301".repeat(30)}`, "z\u0301\u0301"],
    ["an address", "see https://evil.invalid/x?y now", "see (link) now"],
    ["an address without a scheme", "go to shop.com/cheap today", "go to (link) today"],
    ["markup stays letters", "<script>alert(1)</script>", "<script>alert(1)</script>"],
  ])("%s", (_, given, shown) => expect(showable(given)).toBe(shown));
  test("hidden words are covered as whole words, whatever their case", () => {
    expect(showable("you CrackPot, not crackpottery", ["crackpot"])).toBe("you ••••••••, not crackpottery");
    expect(showable("a.b (x)", ["a.b", "(x)", ""])).toBe("••• •••");
  });
  test.each([
    ["with something unseen between", "crack\u200bpot", "••••••••"],
    ["with a soft hyphen, twice", "c\u00adrackpo\u00adt!", "••••••••!"],
    ["with accents, composed or not", "CRÁCKPO\u0308T", "••••••••"],
    ["in wide letters", "ｃｒａｃｋｐｏｔ", "••••••••"],
    ["with a line break it is two words", "crack\npot", "crack pot"],
    ["within another it is another", "crackpots", "crackpots"],
    ["beside emoji", "🔥crackpot🔥 so", "🔥••••••••🔥 so"],
  ])("a hidden word %s", (_, given, shown) => expect(showable(given, ["Crackpot"])).toBe(shown));
  test("a letter that changes at the end of a word is the same letter", () => {
    for (const given of ["ΛΟΓΟΣ", "λογος", "λόγος"]) expect(showable(`${given}!`, ["λόγος"])).toBe("•••••!");
  });
  test("whatever is written, what is shown is whole, short enough, and holds no hidden word", () => {
    const piece = fc.constantFrom(
      "crack",
      "CRA\u0301CK",
      "cr\u200back",
      "pot",
      "ｐｏｔ",
      "s",
      " ",
      "🔥",
      "\n",
      ".",
      "\u0301",
      "\u202e",
      "\ud83d",
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 20 }), fc.constantFrom(5, 200), (pieces, most) => {
        const sound = wellFormed(pieces.join(""));
        const out = showable(sound, ["crack", "pot"], most);
        expect([...out].length).toBeLessThanOrEqual(most);
        expect(/\p{Surrogate}|\p{Cc}|[\u200b\u202e\u00ad]/u.test(out)).toBe(false);
        // Cut short, a longer word may end like one.
        if (most === 200) for (const word of fold(out).split(/[^\p{L}\p{N}]+/u)) expect(["crack", "pot"]).not.toContain(word);
        if (most === 200) expect(showable(out, ["crack", "pot"], most)).toBe(out);
      }),
      { numRuns: 400 },
    );
  });
  test("what is too long ends with a sign of it", () => {
    const shown = showable("x".repeat(500));
    expect([...shown]).toHaveLength(200);
    expect(shown.endsWith("…")).toBe(true);
  });
});

describe("a text in a list", () => {
  test.each([
    ["{viewer} gives {count, plural, one {# membership} other {# memberships}} away", "{viewer} gives 3 memberships away"],
    ["plain", "plain"],
    ["{kind, select, a {one} other {many}} of {viewer}", "many of {viewer}"],
    ["a brace { too many", "a brace { too many"],
  ])("“%s” reads “%s”", (text, shown) => expect(exampleOf(text)).toBe(shown));
});
