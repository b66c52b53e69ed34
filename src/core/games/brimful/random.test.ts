import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { emoteIndex } from "../../chat/emotes";
import { deepFreeze } from "../../kernel/freeze";
import { bareContext } from "../../module/module";
import type { Signal } from "../../signals/signal";
import type { Viewer } from "../../signals/names";
import { brimful } from "./definition";
import { fullness, piecesIn } from "./pile";
import { lineOf } from "./filling";
import { brimfulDefaults, brimfulDurableSchema, brimfulSettingsSchema, newTier } from "./settings";
import { shapes } from "./outline";

const ctx = bareContext(emoteIndex([]));
const viewer = fc.constantFrom("ada", "bo", "__proto__").map((id): Viewer => ({ id, name: id, roles: [] }));
type Given<T = Signal> = T extends Signal ? Omit<T, "seq" | "atMs" | "id"> : never;

const settings = fc
  .record({
    shape: fc.constantFrom(...shapes),
    stand: fc.constantFrom("fixed", "free"),
    spill: fc.integer({ min: 10, max: 100 }),
    upAfterMs: fc.constantFrom(0, 3_000),
    at: fc.integer({ min: 20, max: 120 }),
    then: fc.constantFrom("empties", "waits"),
    size: fc.integer({ min: 20, max: 500 }),
    per: fc.integer({ min: 0, max: 90 }),
    give: fc.integer({ min: 0, max: 30 }),
  })
  .map(({ shape, stand, spill, upAfterMs, at, then, size, per, give }) =>
    brimfulSettingsSchema.parse({
      ...brimfulDefaults,
      size,
      vessel: { ...brimfulDefaults.vessel, shape, stand, spill, upAfterMs },
      brim: { at, then, effects: [] },
      drops: { ...brimfulDefaults.drops, tip: [newTier("t", { pieces: { give, per, most: 400 }, faces: { give: 1, per: 0, most: 1 } })] },
    }),
  );
const command = (given: Record<string, unknown> & { do: string }): Given => ({
  kind: "command",
  gameId: "b",
  by: "op",
  viewer: null,
  command: given,
});
const given: fc.Arbitrary<Given> = fc.oneof(
  {
    weight: 20,
    arbitrary: fc
      .record({ viewer: fc.option(viewer), minor: fc.nat(5_000) })
      .map(({ viewer, minor }): Given => ({ kind: "tip", viewer, amountMinor: minor, currency: "EUR", homeMinor: minor, text: "" })),
  },
  {
    weight: 8,
    arbitrary: fc
      .record({ amount: fc.nat(300), mass: fc.integer({ min: 1, max: 120 }), size: fc.constantFrom(0, 40, 400) })
      .map((input) => command({ do: "drop", what: "pieces", ...input })),
  },
  { weight: 2, arbitrary: fc.constantFrom(command({ do: "tip", way: "either" }), command({ do: "upright" }), command({ do: "empty" })) },
  { weight: 2, arbitrary: fc.nat(60).map((seq) => command({ do: "remove", seq })) },
  { weight: 2, arbitrary: fc.constant<Given>({ kind: "timer", moduleId: "b" }) },
  { weight: 1, arbitrary: fc.constant<Given>({ kind: "ended", viewer: null }) },
);

describe("whatever comes", () => {
  test("no piece is lost or made, its fullness is that of what lies in it, and it never brims twice without falling", () => {
    fc.assert(
      fc.property(settings, fc.array(given, { minLength: 1, maxLength: 60 }), (s, parts) => {
        let durable = brimful.freshDurable(s);
        let balance = 0;
        parts.forEach((part, i) => {
          const signal = { ...part, seq: i + 1, atMs: (i + 1) * 2_000, id: `s${i}` } as Signal;
          const before = durable;
          const outcome = brimful.step(deepFreeze({ settings: s, durable, transient: null }), deepFreeze(signal), ctx);
          durable = outcome.durable;
          for (const note of outcome.notes) {
            if (note.did === "brimful/dropped" || note.did === "brimful/waits") balance += note.count;
            if (note.did === "brimful/tipped" || note.did === "brimful/removed") balance -= note.count;
          }
          const emptied = (outcome.kept ?? []).filter((k) => s.brim.then === "empties" || (k.body as { how: string }).how === "emptied");
          for (const k of emptied) balance -= (k.body as { pieces: number }).pieces;
          // What came of the waiting is no second gift; only what one signal left out is dropped.
          if (outcome.notes.some((n) => n.did === "brimful/upright"))
            balance -= outcome.notes.filter((n) => n.did === "brimful/left-out").reduce((n, note) => n + note.count, 0);
          expect(piecesIn(durable.pile) + piecesIn(durable.waiting)).toBe(balance);
          const brims = outcome.notes.filter((n) => n.did === "brimful/brimmed").length;
          expect(durable.brims - before.brims).toBe(brims);
          if (s.brim.then === "waits") expect(brims).toBeLessThanOrEqual(1);
          if (s.brim.then === "waits" && before.brimmed && fullness(before.pile, s) >= lineOf(s) * 0.8) expect(brims).toBe(0);
          if (s.brim.then === "empties" && !durable.brimmed) expect(fullness(durable.pile, s)).toBeLessThan(lineOf(s));
          if (durable.lies !== null) expect(durable.pile.batches.length).toBeLessThanOrEqual(before.pile.batches.length + 2);
          expect(new Set(durable.pile.looks.map((l) => l.n)).size).toBe(durable.pile.looks.length);
          for (const b of durable.pile.batches) expect(durable.pile.looks.some((l) => l.n === b.look)).toBe(true);
        });
        expect(brimfulDurableSchema.parse(JSON.parse(JSON.stringify(durable)))).toEqual(durable);
      }),
      { numRuns: 300 },
    );
  });
});
