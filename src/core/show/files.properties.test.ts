import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { itemsFrom, linesOf, type RundownNames } from "./files";
import { planSchema, type PlanItem, planItemSchema } from "./plan";
import { inOrder } from "./order";

const names: RundownNames = {
  cues: [
    { id: "door", name: "Kiln door" },
    { id: "tea", name: "Tea, break" },
  ],
  games: [
    { id: "spall", name: "Old Spall" },
    { id: "wall", name: "“Wall”" },
  ],
};
const title = fc.constantFrom("Raffle", "raffle two", 'Ünboxing, "now"', "=1+1", "🔥", "after", "__proto__", "x;y").map((t) => t.trim());
const does = fc.oneof(
  fc.constant({ do: "note" as const }),
  fc.constantFrom("door", "tea").map((cue) => ({ do: "cue" as const, cue })),
  fc.record({ do: fc.constantFrom("start" as const, "stop" as const), game: fc.constantFrom("spall", "wall") }),
  fc.record({
    do: fc.constant("act" as const),
    game: fc.constantFrom("spall", "wall"),
    act: fc.constantFrom("go", "damage"),
    input: fc.constantFrom({}, { scene: 'Kiln, "door"', holdMs: 0 }, { amount: 4 }),
  }),
);
/** A rundown whose titles differ, and where what waits waits for one before it. */
const plan = fc
  .uniqueArray(
    fc.record({
      title,
      atMin: fc.nat(1_440),
      lengthMin: fc.nat(1_440),
      note: fc.constantFrom("", "mind the glaze", "a, b"),
      does,
      starts: fc.constantFrom("hand" as const, "time" as const, "after" as const),
      delayMin: fc.nat(90),
    }),
    { selector: (i) => i.title.toLowerCase(), maxLength: 8 },
  )
  .map((list) =>
    list.map(({ starts, delayMin, ...rest }, i): PlanItem => {
      const how =
        starts === "after" && i > 0
          ? { how: starts, item: `i${i - 1}`, delayMin }
          : { how: starts === "after" ? ("hand" as const) : starts };
      return { ...rest, id: `i${i}`, starts: how };
    }),
  );
/** Without ids, which are new wherever it is read. */
const told = (items: readonly PlanItem[]): unknown =>
  inOrder(items).map(({ id: _, starts, ...rest }) => ({
    ...rest,
    starts: starts.how === "after" ? { ...starts, item: items.find((i) => i.id === starts.item)?.title } : starts,
  }));

describe("a rundown as a file, whatever is planned", () => {
  test("comes in as it went out", () => {
    fc.assert(
      fc.property(plan, (items) => {
        expect(planSchema.safeParse(items).success).toBe(true);
        let n = 0;
        const read = itemsFrom(linesOf(items, names), names, () => `new${(n += 1)}`);
        expect(read.problems).toEqual([]);
        expect(told(read.items)).toEqual(told(items));
        expect(planSchema.safeParse(read.items).success).toBe(true);
      }),
    );
  });
  test("of lines by anybody, each becomes something that can be planned or says why it can't; none is lost without a word", () => {
    const cell = fc.oneof(
      fc.constantFrom("", "7", "-1", "1e3", "cue", "start", "after", "Kiln door", "Raffle", "constructor"),
      fc.string(),
    );
    const line = fc.dictionary(fc.constantFrom("minute", "length", "title", "does", "what", "starts", "after", "delay", "note", "x"), cell);
    fc.assert(
      fc.property(fc.array(line, { maxLength: 6 }), (lines) => {
        let n = 0;
        const { items, problems } = itemsFrom(lines, names, () => `new${(n += 1)}`);
        for (const item of items) expect(planItemSchema.safeParse(item).success).toBe(true);
        const said = new Set(problems.map((p) => p.line));
        lines.forEach((_, i) => {
          if (!said.has(i + 2)) expect(items.length).toBeGreaterThan(0);
        });
        expect(items.length + said.size).toBeGreaterThanOrEqual(lines.length);
        expect(problems.every((p) => p.says !== "" && p.line >= 2 && p.line <= lines.length + 1)).toBe(true);
      }),
    );
  });
});
