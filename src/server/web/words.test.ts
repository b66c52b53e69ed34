import { describe, expect, test } from "@jest/globals";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { z } from "zod";
import { highestRole, mayAs } from "../../core/signals/signal";
import type { Viewer } from "../../core/signals/names";
import { fromPageSchema, toOperatorSchema, toOverlaySchema } from "../../core/wire/messages";
import { readEnv } from "../env";
import { firstProblem } from "../../core/words/problem";
import { refusalInWords } from "./words";

/** Every refusal code that the operator side can answer with, read from the sources that make them. */
function codesIn(folder: string): string[] {
  return readdirSync(folder, { recursive: true, encoding: "utf8" })
    .filter((f) => /\.tsx?$/.test(f) && !f.includes(".test."))
    .flatMap((f) =>
      [...readFileSync(join(folder, f), "utf8").matchAll(/refused\(\s*"([a-z]+(?:-[a-z]+)*\/[a-z-]+)"/g)].map((m) => m[1] ?? ""),
    );
}

describe("refusals in words", () => {
  const codes = [...new Set([...codesIn("src/server"), ...codesIn("src/app")])].sort((a, b) => (a < b ? -1 : 1));
  test("there are some, and each has a sentence of its own", () => {
    expect(codes.length).toBeGreaterThan(20);
    const facts = {
      by: "Ada",
      why: "This is wrong.",
      waitS: 9,
      word: "mugUp",
      most: 500,
      freeInS: 3,
      mostMb: 12,
      name: "Door",
      what: "@import",
      asks: "Where to?",
      where: "states → rest: ",
      file: "rest.png",
      part: "head",
      frames: 300,
    };
    const words = codes.map((code) => refusalInWords({ code, facts }));
    const own = words.filter((_, i) => !/^(event|trigger|store\/away)/.test(codes[i] ?? ""));
    expect(codes.filter((code, i) => words[i] === code && !/^(event|trigger)\//.test(code))).toEqual([]);
    for (const sentence of own) expect(sentence).toMatch(/^[A-Z].*\.$/);
    expect(words.join(" ")).not.toMatch(/undefined|\[object|!/);
  });
});

describe("what was wrong with what was sent", () => {
  const problem = (schema: z.ZodType, value: unknown): string => {
    const parsed = schema.safeParse(value);
    return parsed.success ? "" : firstProblem(parsed.error);
  };
  test("our own sentences stand as they are; others are put into one", () => {
    expect(problem(z.object({ name: z.string().min(1, "The name is missing.") }), { name: "" })).toBe("The name is missing.");
    expect(problem(z.object({ a: z.object({ b: z.number() }) }), { a: { b: "x" } })).toMatch(
      /^The value of “b” of “a” can’t be used: invalid input.*\.$/,
    );
    expect(problem(z.number(), "x")).toMatch(/^What was sent can’t be used: .*\.$/);
  });
  test("the place is told as one counts", () => {
    const commands = z.object({ commands: z.array(z.object({ word: z.string() })) });
    expect(problem(commands, { commands: [{ word: "ok" }, { word: 7 }] })).toMatch(
      /^The value of “word” of number 2 of “commands” can’t be used: /,
    );
    expect(problem(commands, { commands: [null] })).toMatch(/^The value of number 1 of “commands” can’t be used: /);
  });
});

describe("messages between pages and the engine", () => {
  test("what is malformed is not taken", () => {
    const hello = { v: 1, type: "hello", as: "overlay", token: "x".repeat(22), width: 300, height: 100, resume: null };
    expect(fromPageSchema.safeParse(hello).success).toBe(true);
    for (const odd of [
      { ...hello, v: 2 },
      { ...hello, width: 0 },
      { ...hello, width: 99_999 },
      { ...hello, token: "short" },
      { ...hello, resume: { epoch: "e", seq: -1 } },
      { type: "watch" },
      null,
      "hello",
    ])
      expect(fromPageSchema.safeParse(odd).success).toBe(false);
    expect(toOverlaySchema.safeParse({ v: 1, type: "effects", seq: 1.5, items: [] }).success).toBe(false);
    expect(toOverlaySchema.safeParse({ v: 1, type: "beat" }).success && toOperatorSchema.safeParse({ v: 1, type: "beat" }).success).toBe(
      true,
    );
  });
});

describe("roles", () => {
  const viewer = (...roles: Viewer["roles"]): Viewer => ({ id: "a", name: "a", roles });
  test("everyone means everyone; otherwise one of the roles must be among those allowed", () => {
    expect(mayAs(viewer(), ["viewer"])).toBe(true);
    expect(mayAs(viewer("streamer"), ["viewer"])).toBe(true);
    expect(mayAs(viewer(), ["member"])).toBe(false);
    expect(mayAs(viewer("guest", "member"), ["member", "moderator"])).toBe(true);
  });
  test("the highest counts", () => {
    expect([highestRole(viewer()), highestRole(viewer("member", "moderator", "guest"))]).toEqual(["viewer", "moderator"]);
  });
});

describe("the environment", () => {
  const whole = { IZZAM_DB_PORT: "3306", IZZAM_DB_PASSWORD: "p", IZZAM_APP_KEY: "0f".repeat(32), IZZAM_INTERNAL_KEY: "k".repeat(48) };
  test("is read once, with what is missing filled in safely", () => {
    expect(readEnv(whole)).toMatchObject({
      host: "127.0.0.1",
      lan: false,
      demo: false,
      practiceUrl: "",
      database: { port: 3306, name: "izzam" },
    });
  });
  test("a key that is none stops the start", () => {
    expect(() => readEnv({ ...whole, IZZAM_APP_KEY: "short" })).toThrow();
    expect(() => readEnv({ ...whole, IZZAM_INTERNAL_KEY: "short" })).toThrow();
    expect(() => readEnv({ ...whole, IZZAM_DB_PORT: "many" })).toThrow();
  });
});
