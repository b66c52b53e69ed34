import { describe, expect, test } from "@jest/globals";
import { changesOf, isBalanced } from "../../points/ledger";
import { evening } from "./evening";
import { paidAtOnce } from "./paying";
import { predictionRows } from "./rows";
import { type PredictionDurable, predictionDurableSchema } from "./settings";

const pool = (e: ReturnType<typeof evening>): number => changesOf(e.entries).find((p) => p.account === "pool")?.amount ?? 0;

describe("the result", () => {
  test("winners share the pot by what they staked, to the point, the fee aside", () => {
    const e = evening({ feePercent: 10 });
    e.open();
    e.say("ada", "!back A 100");
    e.say("bo", "!back A 50");
    e.say("cy", "!back B 201");
    expect(e.result("A").words).toEqual(["lock it first"]);
    e.command({ do: "lock" });
    expect(e.result("it survives").says[0]).toBe("Will it survive the firing? A It survives. 2 viewers share 316 points.");
    expect(e.settle()).toBe(1);
    // 351, fee 35, pot 316: 210.67 and 105.33; the point that is left goes to the larger remainder.
    expect([e.balance("ada"), e.balance("bo"), e.balance("cy")]).toEqual([1_111, 1_055, 799]);
    expect([pool(e), changesOf(e.entries).find((p) => p.account === "spent")?.amount]).toEqual([0, 35]);
    expect(e.at().round?.phase).toBe("done");
    expect(e.rows.at(-1)).toMatchObject({ kind: "result", body: { label: "It survives", winners: 2, pot: 316, fee: 35 } });
  });
  test("nobody on what came: everybody has their own back, and nobody won or lost", () => {
    const e = evening({ feePercent: 10, outcomes: ["A", "B", "C"] });
    e.open();
    e.say("ada", "!back A 100");
    e.say("cy", "!back B 3");
    e.command({ do: "lock" });
    e.result("C");
    const told = e.timer(4_000).told;
    expect([told, e.balance("ada"), e.balance("cy"), pool(e)]).toEqual([[], 1_000, 1_000, 0]);
  });
  test("everybody on what came: no fee, and everybody has their own", () => {
    const e = evening({ feePercent: 10 });
    e.open();
    e.say("ada", "!back A 1");
    e.say("bo", "!back A 2");
    e.command({ do: "lock" });
    e.result("A");
    e.settle();
    expect([e.balance("ada"), e.balance("bo")]).toEqual([1_000, 1_000]);
  });
  test("nobody took part: it can be told all the same", () => {
    const e = evening();
    e.open();
    e.command({ do: "lock" });
    e.result("B");
    e.settle();
    expect([e.at().round?.phase, e.at().results[0]?.label]).toEqual(["done", "It cracks"]);
  });
  test("two operators tell it at once: it is told once", () => {
    const e = evening();
    e.open();
    e.say("ada", "!back A 10");
    e.command({ do: "lock" });
    e.result("A");
    expect(e.result("B").words).toEqual(["the result was told: It survives"]);
  });
});

describe("many", () => {
  const crowd = paidAtOnce * 2 + 30;
  const filled = (part = {}) => {
    const e = evening(part);
    e.open();
    for (let i = 0; i < crowd; i += 1) e.say(`v${i}`, `!back ${i % 3 === 0 ? "A" : "B"} ${1 + (i % 7)}`);
    e.command({ do: "lock" });
    return e;
  };
  test("are paid in parts, each once, even where the server dies between two parts", () => {
    const e = filled();
    e.result("A");
    const before = pool(e);
    expect(before).toBeGreaterThan(0);
    e.timer(4_000);
    // What is stored, and the rows since: as another process reads it.
    const stored = JSON.parse(JSON.stringify(predictionRows.stored(e.at()))) as unknown;
    const rows = JSON.parse(JSON.stringify(e.rows)) as typeof e.rows;
    const state = predictionRows.recall(
      predictionDurableSchema.parse(stored) as PredictionDurable,
      rows.filter((r) => predictionRows.kinds.includes(r.kind)),
    );
    e.restart(state);
    expect(e.settle()).toBe(2);
    expect(pool(e)).toBe(0);
    expect(new Set(e.entries.map((x) => x.key)).size).toBe(e.entries.length);
    expect(e.entries.every(isBalanced)).toBe(true);
    const people = Array.from({ length: crowd }, (_, i) => e.balance(`v${i}`));
    expect(people.reduce((sum, b) => sum + b, 0)).toBe(crowd * 1_000);
  });
  test("get all of it back when it is cancelled, once", () => {
    const e = filled();
    expect(e.command({ do: "cancel" }).codes).toEqual(["prediction/cancelled"]);
    expect(e.command({ do: "cancel" }).codes).toEqual(["prediction/none"]);
    expect(e.open().codes).toEqual(["prediction/open-already"]);
    e.settle();
    expect(Array.from({ length: crowd }, (_, i) => e.balance(`v${i}`)).every((b) => b === 1_000)).toBe(true);
    expect([pool(e), e.open().codes]).toEqual([0, ["prediction/opened"]]);
  });
  test("each hears whether they were right", () => {
    const e = filled();
    e.result("A");
    const told = e.timer(4_000).told;
    expect([told.length, told.filter((t) => t === "prediction/won").length]).toEqual([paidAtOnce, Math.ceil(paidAtOnce / 3)]);
  });
});

describe("a wrong result", () => {
  test("is taken back: postings are reversed, it is locked again, and the right one is paid", () => {
    const e = evening({ feePercent: 10 });
    e.open();
    e.say("ada", "!back A 100");
    e.say("bo", "!back B 100");
    e.command({ do: "lock" });
    e.result("A");
    e.settle();
    expect([e.balance("ada"), e.balance("bo")]).toEqual([1_080, 900]);
    expect(e.command({ do: "undo" }).says[0]).toContain("taken back");
    expect(e.command({ do: "undo" }).codes).toEqual(["prediction/nothing-to-undo"]);
    e.settle();
    expect([e.at().round?.phase, e.at().round?.result, e.balance("ada"), pool(e)]).toEqual(["locked", null, 900, 200]);
    e.result("B");
    e.settle();
    expect([e.balance("ada"), e.balance("bo"), pool(e)]).toEqual([900, 1_080, 0]);
    expect(new Set(e.entries.map((x) => x.key)).size).toBe(e.entries.length);
    expect(e.at().results.map((r) => r.label)).toEqual(["It cracks"]);
  });
  test("who has spent the winnings owes the rest; nobody goes below none", () => {
    const e = evening();
    e.open();
    e.say("ada", "!back A all");
    e.say("bo", "!back B 500");
    e.command({ do: "lock" });
    e.result("A");
    e.settle();
    expect(e.balance("ada")).toBe(1_500);
    e.spend("ada", 1_200);
    e.command({ do: "undo" });
    expect(e.timer(5_000).commands).toEqual([
      { do: "owe", viewers: [{ id: "ada", name: "ada", amount: 1_200 }], why: "Will it survive the firing?" },
    ]);
    expect([e.balance("ada"), pool(e)]).toEqual([0, 1_500]);
    expect(changesOf(e.entries).find((p) => p.account === "owed")?.amount).toBe(-1_200);
  });
});
