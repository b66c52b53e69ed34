import { describe, expect, test } from "@jest/globals";
import type { TimelineEvent } from "../../../core/show/timeline";
import { newPlanItem } from "../../../core/show/plan";
import { placeMarks, placeStubs } from "./tape-layout";

const mark = (seq: number, atMs: number, weight: TimelineEvent["weight"], label = `mark ${seq}`): TimelineEvent => ({
  seq,
  atMs,
  tone: "slate",
  label,
  weight,
  game: "",
  turned: "",
});
const x = (ms: number): number => ms / 100;
const place = (marks: TimelineEvent[], to = 600) => placeMarks(marks, x, 0, to, 2);

describe("marks on the tape", () => {
  test("stand with their words where there is room, on two rows, and as ticks where there is none", () => {
    const placed = place([mark(1, 10_000, 2), mark(2, 11_000, 2), mark(3, 12_000, 2), mark(4, 40_000, 2)]);
    expect(placed.map((p) => [p.mark.seq, p.label ? p.row : "tick"])).toEqual([
      [1, "tick"],
      [2, 1],
      [3, 0],
      [4, 0],
    ]);
  });
  test("the weightier have their words before the newer", () => {
    const placed = place([mark(1, 10_000, 3), mark(2, 10_900, 2), mark(3, 11_900, 2)]);
    expect(placed.find((p) => p.mark.seq === 1)?.label).toBe(true);
  });
  test("small things on one spot become one, with how many they are; what must be told stands alone", () => {
    const placed = place([mark(1, 10_000, 1), mark(2, 10_100, 1), mark(3, 10_200, 2), mark(4, 10_300, 3)]);
    expect(placed.map((p) => [p.mark.seq, p.more])).toEqual([
      [3, 2],
      [4, 0],
    ]);
  });
  test("what has just happened has its words on the left of the line", () => {
    const [only] = place([mark(1, 59_500, 3)]);
    expect(only).toMatchObject({ label: true, flip: true, x: 595 });
  });
  test("what is beyond the picture is left out, and so are switches, which are bars", () => {
    expect(place([mark(1, -90_000, 3), { ...mark(2, 10_000, 3), turned: "on" }])).toEqual([]);
  });
});

describe("what is planned", () => {
  const due = (id: string, dueMs: number) => ({ item: newPlanItem(id, id, 0), dueMs });
  test("stands at its time, in order, none over another", () => {
    const stubs = placeStubs([due("b", 90_000), due("a", 40_000), due("c", 91_000)], x, 300, 30_000);
    expect(stubs.map((s) => s.item.id)).toEqual(["a", "b", "c"]);
    expect(stubs[0]?.x).toBe(400);
    for (const [i, stub] of stubs.entries()) if (i > 0) expect(stub.x).toBeGreaterThanOrEqual(stubs[i - 1]!.x + stubs[i - 1]!.width);
  });
  test("what is overdue waits at the line", () => {
    const [late] = placeStubs([due("a", 1_000)], x, 300, 30_000);
    expect(late).toMatchObject({ x: 310, late: true });
  });
});
