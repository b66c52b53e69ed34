import { describe, expect, test } from "@jest/globals";
import { type Alert, alertLookDefaults } from "../../core/alerts/alert";
import { pause } from "../testing/channel";
import { AlertBoard } from "./alert-board";
import { PerMinute } from "./per-minute";

const alert = (id: string, ms: number): Alert => ({ id, picture: "", sound: "", volume: 1, text: id, ms, look: alertLookDefaults });

function setUp() {
  const started: string[] = [];
  const stopped: string[] = [];
  const board = new AlertBoard({ now: () => Date.now() }, { start: (m) => started.push(m.id), stop: (ids) => stopped.push(...ids) });
  board.rules = [{ id: "main", gapMs: 20, mostWaiting: 3 }];
  return { board, started, stopped };
}
const until = async (done: () => boolean): Promise<void> => {
  for (let i = 0; i < 200 && !done(); i += 1) await pause(10);
  expect(done()).toBe(true);
};

describe("the board of alerts", () => {
  test("plays a queue by the clock, one after another", async () => {
    const { board, started } = setUp();
    for (const id of ["a", "b", "c"]) board.show("main", alert(id, 40));
    expect(started).toEqual(["a"]);
    await until(() => started.length === 3);
    expect(started).toEqual(["a", "b", "c"]);
    await until(() => board.standing().length === 0);
    board.stop();
  });
  test("under hush what plays ends, what comes is held, with a queue or without; on release it waits for a person", async () => {
    const { board, started, stopped } = setUp();
    board.show("main", alert("a", 60_000));
    board.hush(true);
    expect(stopped).toEqual(["a"]);
    board.show("main", alert("b", 30));
    board.show("", alert("c", 30));
    await pause(60);
    expect(started).toEqual(["a"]);
    expect(board.held()).toEqual([]);
    board.hush(false);
    await pause(60);
    expect(started).toEqual(["a"]);
    expect(board.held().map((m) => m.id)).toEqual(["b", "c"]);
    expect(board.decide("drop", "c").ok).toBe(true);
    expect(board.decide("play", "").ok).toBe(true);
    await until(() => started.length === 2);
    expect(started).toEqual(["a", "b"]);
    expect(board.decide("play", "c")).toMatchObject({ ok: false, refusal: { code: "alert/decided-already" } });
    board.stop();
  });
  test("a queue an operator paused stays paused when the hush is over", async () => {
    const { board, started } = setUp();
    board.show("main", alert("a", 20));
    board.act("pause", "main");
    board.show("main", alert("b", 20));
    board.hush(true);
    board.hush(false);
    // What waited in the queue was held; played, it waits in the queue again.
    board.decide("play", "");
    await pause(80);
    expect(started).toEqual(["a"]);
    board.act("go-on", "main");
    await until(() => started.includes("b"));
    board.stop();
  });
});

describe("so many a minute", () => {
  test("counts the last sixty seconds, and forgets what is older", () => {
    const count = new PerMinute();
    for (let s = 0; s < 200; s += 1) count.add(s * 1_000);
    expect(count.last(199_000)).toBe(60);
    expect(count.last(229_000)).toBe(30);
    expect(count.last(400_000)).toBe(0);
  });
});
