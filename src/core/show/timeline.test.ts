import { describe, expect, test } from "@jest/globals";
import { barsOf, type TimelineEvent, markOf } from "./timeline";

const row = (kind: string, body: Record<string, unknown>, part: Record<string, unknown> = {}) =>
  markOf({ seq: 7, atMs: 1_000, kind, source: "event", body, ...part });
const who = { viewer: { id: "ada", name: "Ada", roles: [] } };
const noted = (did: string, subject = "") => ({ notes: [{ game: "g", note: { did, count: 1, subject } }] });

describe("marks on the tape", () => {
  test.each([
    ["raid", { ...who, viewers: 48 }, "Raid · Ada brought 48"],
    ["tip", { ...who, amountMinor: 400, currency: "EUR" }, "Ada tipped 4.00 EUR"],
    ["gift", { viewer: null, count: 5 }, "someone gave 5 memberships"],
    ["membership", { ...who, months: 13 }, "Ada joined, month 13"],
    ["reaction", { ...who, count: 1_200, reaction: "sherd" }, "Ada sent 1,200 sherd"],
    ["happened", { what: "boss/fell", text: "Old Spall" }, "Old Spall fell"],
    ["cue", noted("cue/fired", "Knock"), "Knock"],
    ["cue", noted("cue/off", "Break"), "Break off"],
  ])("a %s says what it was", (kind, body, label) => expect(row(kind, body)?.label).toBe(label));
  test("what came to nothing leaves no mark", () => {
    expect(row("happened", { what: "boss/hit", text: "Old Spall" })).toBeNull();
    expect(row("message", { text: "hello" })).toBeNull();
    expect(row("cue", { notes: [{ game: "g", note: { refusal: { code: "cue/cooling", facts: {} }, count: 1 } }] })).toBeNull();
    expect(
      row("command", {
        command: { do: "flock", count: 9 },
        notes: [{ game: "g", note: { refusal: { code: "wall/off", facts: {} }, count: 1 } }],
      }),
    ).toBeNull();
    expect(row("live", {}, { source: "event" })).toBeNull();
    expect(row("live", {}, { source: "show" })?.label).toBe("The show began");
  });
  test("a row that is not as it should be harms nothing", () => {
    for (const body of [null, 7, "x", [], { notes: "no" }, { viewer: 3, command: 9 }])
      expect(() => markOf({ seq: 1, atMs: 1, kind: "command", source: "", body })).not.toThrow();
  });
});

describe("while which games ran", () => {
  const turn = (atMs: number, turned: "on" | "off"): TimelineEvent => ({
    seq: atMs,
    atMs,
    tone: "soft",
    label: "",
    weight: 1,
    game: "wall",
    turned,
  });
  const bars = (marks: TimelineEvent[], on: boolean) => barsOf(marks, [{ id: "wall", on }], 100, 1_000).map((b) => [b.fromMs, b.toMs]);
  test("a game that was never touched ran all the time, or not at all", () => {
    expect(bars([], true)).toEqual([[100, 1_000]]);
    expect(bars([], false)).toEqual([]);
  });
  test("switches cut its time", () => {
    expect(bars([turn(300, "off"), turn(500, "on")], true)).toEqual([
      [100, 300],
      [500, 1_000],
    ]);
    expect(bars([turn(300, "on"), turn(500, "off")], false)).toEqual([[300, 500]]);
  });
});
