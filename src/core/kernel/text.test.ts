import { describe, expect, test } from "@jest/globals";
import { chanceFrom } from "./chance";
import { stranger, strangers } from "./strangers";
import { cleaned, cut, parseJson, viewerId, wellFormed } from "./text";

const sound = (text: string): boolean => Buffer.from(text, "utf8").toString("utf8") === text && !text.includes("\u0000");

describe("texts from outside", () => {
  test("half an emoji becomes a replacement character, NUL goes, and what was sound stays as it was", () => {
    expect(wellFormed("cut \ud83d")).toBe("cut \ufffd");
    expect(wellFormed("\udd25!")).toBe("\ufffd!");
    expect(wellFormed("a\u0000b")).toBe("ab");
    expect(wellFormed("👩‍👩‍👧‍👦 é 🔥")).toBe("👩‍👩‍👧‍👦 é 🔥");
  });
  test("cutting never leaves half a character, and leaves what is short enough alone", () => {
    expect(cut("ab🔥", 3)).toBe("ab");
    expect(cut("ab🔥", 4)).toBe("ab🔥");
    expect(cut("abc", 3)).toBe("abc");
  });
  test("JSON that spells a half as an escape brings none, in keys and lists too; __proto__ stays an ordinary key", () => {
    const value = parseJson(String.raw`{"a\ud83d":["x\udd25",{"t":"\u0000y"}],"__proto__":{"id":"\ud83d"},"n":1}`) as Record<
      string,
      unknown
    >;
    expect(Object.keys(value)).toEqual(["a\ufffd", "__proto__", "n"]);
    expect(JSON.stringify(value)).toBe('{"a\ufffd":["x\ufffd",{"t":"y"}],"__proto__":{"id":"\ufffd"},"n":1}');
    expect(({} as { id?: string }).id).toBeUndefined();
    expect(parseJson('{"ok":"\\ud83d\\udd25"}')).toEqual({ ok: "🔥" });
    expect(() => parseJson("{")).toThrow(SyntaxError);
  });
  test("one person has one id, however chat and events write it; who only looks alike is another", () => {
    expect(viewerId(" Oatcake_Ada ")).toBe("oatcake_ada");
    expect(viewerId("e\u0301lan")).toBe(viewerId("\u00e9lan"));
    expect(viewerId("nádia")).not.toBe(viewerId("nadia"));
    // Too long for a key: it ends with a hash of the whole, which no half character is part of.
    expect(viewerId(`${"x".repeat(63)}🔥`)).toMatch(/^x{43}~[0-9a-f]{20}$/);
    expect(viewerId(`${"x".repeat(64)}`)).toBe("x".repeat(64));
  });
  test("whatever a stranger sends comes out sound, in any mixture", () => {
    const chance = chanceFrom(99);
    for (let i = 0; i < 2_000; i += 1) {
      const text = stranger(chance);
      for (const made of [wellFormed(text), cut(wellFormed(text), 1 + Math.floor(chance() * 20)), viewerId(text)])
        expect([made, sound(made)]).toEqual([made, true]);
    }
    expect(cleaned(strangers)).toHaveLength(strangers.length);
  });
});
