import { describe, expect, test } from "@jest/globals";
import { hashToken, newToken, sameText, seal, unseal } from "./secrets";

const key = Buffer.alloc(32, 7);

describe("secrets", () => {
  test("a token has 128 random bits", () => {
    const tokens = new Set(Array.from({ length: 1_000 }, newToken));
    expect(tokens.size).toBe(1_000);
    for (const t of tokens) expect(Buffer.from(t, "base64url")).toHaveLength(16);
    expect(hashToken("a")).not.toBe(hashToken("b"));
  });
  test("what is sealed opens with its key and for its purpose only", () => {
    const sealed = seal(key, "link", "väse 🔥");
    expect(unseal(key, "link", sealed)).toBe("väse 🔥");
    expect(seal(key, "link", "väse 🔥")).not.toBe(sealed);
    expect(() => unseal(key, "password", sealed)).toThrow();
    expect(() => unseal(Buffer.alloc(32, 8), "link", sealed)).toThrow();
    expect(() => unseal(key, "link", `${sealed.slice(0, -3)}AAA`)).toThrow();
  });
  test("comparing tells only same or not", () =>
    expect([sameText("a", "a"), sameText("a", "ab"), sameText("", "")]).toEqual([true, false, true]));
});
