import { describe, expect, test } from "@jest/globals";
import { itemsFrom, linesOf, type RundownLine } from "./files";
import { newPlanItem, type PlanItem } from "./plan";

const names = { cues: [{ id: "c1", name: "Kiln door" }], games: [{ id: "g1", name: "Old Spall" }] };
const ids = (): (() => string) => {
  let n = 0;
  return () => `i${(n += 1)}`;
};
const plan: readonly PlanItem[] = [
  { ...newPlanItem("b", "Open the kiln", 30), does: { do: "cue", cue: "c1" }, note: "count, with “chat”; and\na comma" },
  { ...newPlanItem("a", "Spall wakes", 5), lengthMin: 20, does: { do: "start", game: "g1" }, starts: { how: "time" } },
  { ...newPlanItem("c", "Spall rests", 0), does: { do: "stop", game: "g1" }, starts: { how: "after", item: "a", delayMin: 20 } },
];

describe("a rundown as a file", () => {
  test("comes back as it was, in order, by the names of what it does", () => {
    const lines = linesOf(plan, names);
    expect(lines.map((l) => [l.title, l.what])).toEqual([
      ["Spall rests", "Old Spall"],
      ["Spall wakes", "Old Spall"],
      ["Open the kiln", "Kiln door"],
    ]);
    const { items, problems } = itemsFrom(lines, names, ids());
    expect(problems).toEqual([]);
    expect(items.map(({ id: _, starts, ...rest }) => ({ ...rest, how: starts.how }))).toEqual(
      [plan[2]!, plan[1]!, plan[0]!].map(({ id: _, starts, ...rest }) => ({ ...rest, how: starts.how })),
    );
    expect(items[0]!.starts).toEqual({ how: "after", item: items[1]!.id, delayMin: 20 });
  });
  test("names count the same without regard to capitals and accents", () => {
    const { items } = itemsFrom([{ title: "x", does: "cue", what: "KÍLN DOOR" }], names, ids());
    expect(items[0]?.does).toEqual({ do: "cue", cue: "c1" });
  });
  test.each<[Partial<RundownLine>, RegExp]>([
    [{ title: "" }, /needs a title/],
    [{ title: "x", minute: "soon" }, /no whole number/],
    [{ title: "x", minute: "-3" }, /no whole number/],
    [{ title: "x", does: "cue", what: "Nobody" }, /no cue “Nobody”/],
    [{ title: "x", does: "start", what: "Nobody" }, /no game “Nobody”/],
    [{ title: "x", does: "explode" }, /nothing a rundown can do/],
    [{ title: "x", starts: "maybe" }, /no way to start/],
    [{ title: "x", starts: "after", after: "y" }, /not in this rundown/],
  ])("a line that can’t be used says why: %j", (line, says) => {
    const { items, problems } = itemsFrom([{ title: "good" }, line], names, ids());
    expect(problems).toHaveLength(1);
    expect(problems[0]).toMatchObject({ line: 3, says: expect.stringMatching(says) });
    expect(items[0]?.title).toBe("good");
  });
});
