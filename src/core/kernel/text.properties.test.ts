import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { cleaned, cut, jsonOrNull, loginKey, parseJson, viewerId, wellFormed } from "./text";

/** Any UTF-16 at all: halves of characters, NUL, letters that combine. */
const anything = fc.string({
  unit: fc.oneof(
    fc.integer({ min: 0, max: 0xffff }).map((c) => String.fromCharCode(c)),
    fc.string({ unit: "grapheme", minLength: 1, maxLength: 1 }),
  ),
});
const whole = (text: string): boolean => !/\p{Surrogate}/u.test(text) && !text.includes("\u0000");

describe("texts from strangers, whatever they are", () => {
  test("become well-formed, stay so, and sound ones are left alone", () => {
    fc.assert(
      fc.property(anything, (text) => {
        const sound = wellFormed(text);
        expect(whole(sound)).toBe(true);
        expect(wellFormed(sound)).toBe(sound);
        if (whole(text)) expect(sound).toBe(text);
        expect(Buffer.from(sound, "utf8").toString("utf8")).toBe(sound);
      }),
    );
  });
  test("are cut to size, never through a character", () => {
    fc.assert(
      fc.property(anything, fc.nat(30), (text, most) => {
        const short = cut(wellFormed(text), most);
        expect(short.length).toBeLessThanOrEqual(most);
        expect(whole(short)).toBe(true);
        expect(wellFormed(text).startsWith(short)).toBe(true);
      }),
    );
  });
  test("one id has one form: made again it is the same, and case, spaces and composing make no other", () => {
    fc.assert(
      fc.property(anything, (text) => {
        const id = viewerId(text);
        expect([viewerId(id), id.length <= 64, whole(id)]).toEqual([id, true, true]);
        expect(viewerId(`  ${text} `)).toBe(id);
        expect(loginKey(loginKey(text))).toBe(loginKey(text));
        expect(loginKey(` ${text}\t`)).toBe(loginKey(text));
      }),
    );
    for (const [one, other] of [
      ["Ádá", "A\u0301da\u0301"],
      ["ADA", "ada"],
    ] as const)
      expect(viewerId(one)).toBe(viewerId(other));
  });
  test("ids that differ stay different, however folding stretches them and wherever they differ", () => {
    for (const letter of ["\u0130", "\u0958", "\ufb2c", "a"])
      for (const [one, other] of [
        [letter.repeat(64), letter.repeat(63)],
        [`${letter.repeat(63)}x`, `${letter.repeat(63)}y`],
        [letter.repeat(200), letter.repeat(201)],
      ] as const)
        expect([viewerId(one) === viewerId(other), viewerId(one).length <= 64, viewerId(other).length <= 64]).toEqual([false, true, true]);
    fc.assert(
      fc.property(fc.string({ unit: "grapheme", minLength: 1, maxLength: 90 }), fc.string({ unit: "grapheme", maxLength: 90 }), (a, b) => {
        const same = (text: string): string => wellFormed(text).normalize("NFC").trim().toLowerCase();
        expect(viewerId(a) === viewerId(b)).toBe(same(a) === same(b));
      }),
    );
  });
  test("JSON is read as it is, its texts well-formed, `__proto__` no more than a name", () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 3 }), anything, (value, key) => {
        const text = JSON.stringify({ [key]: value, list: [key] });
        const read = parseJson(text);
        expect(whole(JSON.stringify(read))).toBe(true);
        expect(read).toEqual(cleaned(JSON.parse(text)));
      }),
    );
    expect(Object.getPrototypeOf(parseJson('{"__proto__":{"x":1}}'))).toBe(Object.prototype);
  });
  test("what is no JSON is null, and never thrown", () => {
    fc.assert(fc.property(anything, (text) => void jsonOrNull(text)));
    expect(jsonOrNull("{")).toBeNull();
  });
});
