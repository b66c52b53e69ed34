import { describe, expect, test } from "@jest/globals";
import { z } from "zod";
import { blanksOf, say } from "./blanks";
import { plain } from "./sentence";

const schema = z
  .object({
    size: z.int().min(2).max(9_000),
    inner: z.object({ waitMs: z.int().min(500).max(60_000), on: z.boolean() }),
    tip: z.int().min(1).max(1_000_000_000),
    name: z.string().max(12),
    how: z.enum(["fast", "slow"]).default("slow"),
  })
  .refine((s) => s.size > 1);
const settings = { size: 1_500, inner: { waitMs: 1_500, on: true }, tip: 250, name: "Ada", how: "fast" as const };
const blanks = blanksOf(schema, settings);

describe("blanks of settings", () => {
  test("numbers go as far as the schema lets them, and say what they are now", () => {
    expect(blanks.whole("size", "Size")).toEqual({
      path: "size",
      label: "Size",
      text: "1,500",
      field: { kind: "whole", min: 2, max: 9_000 },
    });
    expect(blanks.time("inner.waitMs", "Wait")).toMatchObject({ text: "1.5 s", field: { kind: "seconds", minMs: 500, maxMs: 60_000 } });
  });
  test("another setting may keep a number higher, never lower", () => {
    expect(blanks.whole("size", "Size", 40).field).toMatchObject({ min: 40 });
    expect(blanks.whole("size", "Size", -40).field).toMatchObject({ min: 2 });
  });
  test("money has the digits of its currency, and a million of it is enough", () => {
    expect(blanks.money("tip", "Tip", "EUR")).toMatchObject({ text: "2.50 EUR", field: { max: 100_000_000 } });
    expect(blanks.money("tip", "Tip", "JPY")).toMatchObject({ text: "250 JPY", field: { max: 1_000_000 } });
  });
  test("a choice and a switch are told in their words; a value of a newer Izzam as it is", () => {
    expect(blanks.choice("how", "How", { fast: "quickly", slow: "slowly" }).text).toBe("quickly");
    const newer = blanksOf(schema, { ...settings, how: "constructor" as "fast" });
    expect(newer.choice("how", "How", { fast: "quickly" }).text).toBe("constructor");
    expect(plain(say("s", "It is ", blanks.toggle("inner.on", "On", "on", "off"), "."))).toBe("It is on.");
  });
  test("a text is as long as its schema lets it be", () =>
    expect(blanks.text("name", "Name", "nobody")).toMatchObject({ text: "Ada", field: { kind: "text", most: 12 } }));
  test("a path that leads nowhere is our mistake, and is not shown", () => {
    for (const path of ["sizes", "inner.constructor", "__proto__"]) expect(() => blanks.whole(path as "size", "?")).toThrow("no setting");
    expect(() => blanks.whole("name" as "size", "?")).toThrow("no number");
  });
});
