import { describe, expect, test } from "@jest/globals";
import { z } from "zod";
import { readStored, settingsVersion, type Steps, versionOf } from "./stored";

const schema = z.object({ health: z.number(), parts: z.array(z.string()) });
// Version 1 had `hp`; version 2 called it health; version 3 has parts.
const steps: Steps = [
  (old) => ({ health: (old as { hp: number }).hp }),
  (old) => ({ ...(old as object), parts: (old as { health: number }).health > 0 ? ["rim"] : [] }),
];

describe("what an older version stored", () => {
  test("is brought to this one, step by step, from whichever version it was", () => {
    expect(versionOf(steps)).toBe(3);
    const now = { ok: true, value: { health: 5, parts: ["rim"] } };
    expect(readStored(schema, steps, 1, { hp: 5 })).toEqual(now);
    expect(readStored(schema, steps, 2, { health: 5 })).toEqual(now);
    expect(readStored(schema, steps, 3, { health: 5, parts: ["rim"] })).toEqual(now);
  });
  test("is refused when a newer version wrote it, or nobody can read it, and says where", () => {
    expect(readStored(schema, steps, 4, {})).toEqual({ ok: false, refusal: { code: "stored/newer", facts: { version: 4, most: 3 } } });
    expect(readStored(schema, steps, 3, { health: "much", parts: [] })).toMatchObject({
      refusal: { code: "stored/unreadable", facts: { why: expect.stringContaining("health") } },
    });
    expect(readStored(schema, steps, 1, null)).toMatchObject({
      refusal: { code: "stored/unreadable", facts: { why: "the step from version 1 to 2 failed" } },
    });
    for (const version of [0, -1, 1.5, NaN]) expect(readStored(schema, steps, version, {}).ok).toBe(false);
  });
  test("settings say their version themselves", () => {
    expect([settingsVersion({ schema: 4 }), settingsVersion({}), settingsVersion(null), settingsVersion({ schema: "x" })]).toEqual([
      4, 1, 1, 1,
    ]);
  });
});
