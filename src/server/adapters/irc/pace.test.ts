import { describe, expect, test } from "@jest/globals";
import { Pace } from "./pace";

const turn = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));
function setUp(costMs = 1) {
  const time = { nowMs: 0 };
  const taken: string[] = [];
  const said: string[] = [];
  const state = { behind: false };
  const pace = new Pace(
    (line) => {
      taken.push(line);
      time.nowMs += costMs;
    },
    { pause: () => void said.push("pause"), resume: () => void said.push("resume") },
    () => state.behind,
    () => time.nowMs,
  );
  return { pace, taken, said, state };
}

describe("a server that floods", () => {
  test("is taken a few milliseconds at a time, in its order; everybody else has a turn between", async () => {
    const { pace, taken } = setUp();
    for (let n = 0; n < 100; n += 1) pace.push(String(n));
    expect(taken).toEqual([]);
    const counts: number[] = [];
    for (let n = 0; n < 200 && pace.waiting > 0; n += 1) {
      await turn();
      counts.push(taken.length);
    }
    expect(counts.slice(0, 4)).toEqual([4, 8, 12, 16]);
    expect(taken).toEqual(Array.from({ length: 100 }, (_, n) => String(n)));
  });
  test("is read no further while many wait, and again when few are left; nothing is lost", async () => {
    const { pace, taken, said } = setUp(0.01);
    for (let n = 0; n < 3_000; n += 1) pace.push(String(n));
    expect(said).toEqual(["pause"]);
    while (pace.waiting > 0) await turn();
    expect([said, taken.length, taken.at(-1)]).toEqual([["pause", "resume"], 3_000, "2999"]);
    for (let n = 0; n < 2_500; n += 1) pace.push("again");
    while (pace.waiting > 0) await turn();
    expect([said, taken.length]).toEqual([["pause", "resume", "pause", "resume"], 5_500]);
  });
  test("waits while others are behind, and goes on by itself", async () => {
    const { pace, taken, state } = setUp();
    state.behind = true;
    pace.push("a");
    await turn();
    await turn();
    expect(taken).toEqual([]);
    state.behind = false;
    while (pace.waiting > 0) await new Promise((resolve) => setTimeout(resolve, 5));
    expect(taken).toEqual(["a"]);
  });
  test("the last words of a connection that ends are heard, and nothing after them", async () => {
    const { pace, taken } = setUp();
    for (const line of ["a", "b"]) pace.push(line);
    pace.finish();
    pace.push("c");
    await turn();
    expect([taken, pace.waiting]).toEqual([["a", "b"], 0]);
  });
});
