import { describe, expect, test } from "@jest/globals";
import {
  type Board,
  queueAdd,
  queueClear,
  queueDueMs,
  queueOf,
  type QueueOutcome,
  queuePause,
  type QueueRules,
  queueSkip,
  queueTick,
} from "./queues";
import { lengthOf, type Alert, alertLookDefaults } from "./alert";

const rules: QueueRules[] = [{ id: "main", gapMs: 500, mostWaiting: 2 }];
const alert = (id: string, ms = 1_000): Alert => ({ id, picture: "", sound: "", volume: 1, text: id, ms, look: alertLookDefaults });
const ids = (alerts: readonly Alert[]): string[] => alerts.map((m) => m.id);
const add = (board: Board, id: string, nowMs: number, queue = "main"): QueueOutcome => queueAdd(board, rules, queue, alert(id), nowMs);

describe("queues", () => {
  test("the first begins at once, the next waits for its end and the gap", () => {
    const one = add({}, "a", 0);
    expect(ids(one.start)).toEqual(["a"]);
    const two = add(one.board, "b", 100);
    expect(two.start).toEqual([]);
    expect(queueDueMs(two.board)).toBe(1_000);
    const ended = queueTick(two.board, rules, 1_000);
    expect([ids(ended.start), queueDueMs(ended.board)]).toEqual([[], 1_500]);
    expect(ids(queueTick(ended.board, rules, 1_500).start)).toEqual(["b"]);
  });
  test("so many may wait, the next is refused with their number", () => {
    let board: Board = {};
    for (const id of ["a", "b", "c"]) ({ board } = add(board, id, 0));
    expect(add(board, "d", 0).refusal).toEqual({ code: "queue/full", facts: { waiting: 2 } });
  });
  test("without a queue everything begins at once", () => {
    const one = add({}, "a", 0, "");
    expect(ids(add(one.board, "b", 0, "").start)).toEqual(["b"]);
    expect(one.board).toEqual({});
  });
  test("skipping ends what plays, and the next begins", () => {
    const { board } = add(add({}, "a", 0).board, "b", 0);
    const skipped = queueSkip(board, rules, "main", 200);
    expect([skipped.stop, ids(skipped.start)]).toEqual([["a"], ["b"]]);
    expect(queueSkip({}, rules, "main", 0).refusal?.code).toBe("queue/nothing-plays");
  });
  test("clearing drops what waits and lets the rest play on", () => {
    const cleared = queueClear(add(add({}, "a", 0).board, "b", 0).board, "main");
    expect(queueOf(cleared.board, "main")).toMatchObject({ playing: { id: "a" }, waiting: [] });
    expect(queueTick(cleared.board, rules, 5_000).start).toEqual([]);
  });
  test("a paused queue finishes what plays and begins nothing until it goes on", () => {
    const { board } = add(add({}, "a", 0).board, "b", 0);
    const paused = queuePause(board, rules, "main", true, 100);
    expect(queueTick(paused.board, rules, 9_000).start).toEqual([]);
    expect(ids(queuePause(queueTick(paused.board, rules, 9_000).board, rules, "main", false, 9_100).start)).toEqual(["b"]);
  });
  test("queues do not know of each other", () => {
    const one = add({}, "a", 0);
    expect(ids(queueAdd(one.board, rules, "other", alert("b"), 0).start)).toEqual(["b"]);
  });
  test("as long as set, or until the sound ends, whichever is longer", () => {
    expect([lengthOf(4_000, 1_500), lengthOf(1_000, 2_400), lengthOf(0, 0)]).toEqual([4_000, 2_400, 200]);
  });
  test("at no time do two of one queue overlap, however they come", () => {
    let board: Board = {};
    const played: { from: number; to: number }[] = [];
    const take = (outcome: QueueOutcome, nowMs: number): void => {
      ({ board } = outcome);
      for (const m of outcome.start) played.push({ from: nowMs, to: nowMs + m.ms });
    };
    for (let t = 0; t < 60_000; t += 137) {
      if (t % 959 < 137) take(queueAdd(board, rules, "main", alert(`m${t}`, 300 + (t % 1_700)), t), t);
      take(queueTick(board, rules, t), t);
    }
    expect(played.length).toBeGreaterThan(20);
    for (let i = 1; i < played.length; i += 1) expect(played[i]!.from).toBeGreaterThanOrEqual(played[i - 1]!.to + 500);
  });
});
