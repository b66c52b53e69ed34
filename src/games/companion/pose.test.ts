import { describe, expect, test } from "@jest/globals";
import { figureStates, partNames } from "../../core/props/figure";
import { blend, blinks, emptyPose, type Moment, strike } from "./pose";

const moment = (part: Partial<Moment>): Moment => ({
  state: "rest",
  sinceS: 0,
  clockS: 0,
  seed: 7,
  gaze: { x: 0, y: 0 },
  bar: 0,
  still: false,
  ...part,
});
const struck = (part: Partial<Moment>) => {
  const pose = emptyPose();
  strike(pose, moment(part));
  return JSON.parse(JSON.stringify(pose)) as ReturnType<typeof emptyPose>;
};

describe("how a figure holds itself", () => {
  test("is the same for the same moment, whole numbers all, and never torn apart or turned inside out", () => {
    // Gathered, not asked one by one: a quarter of a million expectations take forty seconds.
    const wrong: string[] = [];
    const must = (is: boolean, what: string): void => void (is || wrong.push(what));
    let looked = 0;
    for (const state of figureStates)
      for (let t = 0; t < 4; t += 0.03) {
        const at = { state, sinceS: t, clockS: 50 + t, bar: (t / 1.1) % 1 };
        const pose = struck(at);
        const where = `${state} at ${t.toFixed(2)} s`;
        must(JSON.stringify(struck(at)) === JSON.stringify(pose), `${where}: another pose`);
        for (const p of [pose.whole, ...partNames.map((n) => pose.parts[n])]) {
          looked += 1;
          must(Object.values(p).every(Number.isFinite), `${where}: no number`);
          must(Math.abs(p.width) < 2 && Math.abs(p.height) < 2, `${where}: torn apart`);
        }
        must(pose.whole.height > 0.7 && pose.whole.y <= 3, `${where}: fallen in, or sunk`);
      }
    expect(looked).toBeGreaterThan(10_000);
    expect(wrong).toEqual([]);
  });
  test("each thing it does looks like no other", () => {
    const seen = new Set(figureStates.map((state) => JSON.stringify(struck({ state, sinceS: 0.4, clockS: 3, bar: 0.3 }))));
    expect(seen.size).toBe(figureStates.length);
  });
  test("while nothing happens it breathes, wags, and blinks every few seconds", () => {
    const heights = Array.from({ length: 40 }, (_, i) => struck({ clockS: i * 0.1 }).whole.height);
    expect(Math.max(...heights) - Math.min(...heights)).toBeGreaterThan(0.02);
    let shuts = 0;
    for (let c = 0, was = false; c < 120; c += 0.02) {
      const is = blinks(7, c);
      if (is && !was) shuts += 1;
      was = is;
    }
    expect(shuts).toBeGreaterThan(20);
    expect(shuts).toBeLessThan(60);
  });
  test("its eyes follow what moves; asleep they are shut, startled they are wide", () => {
    expect(struck({ gaze: { x: -1, y: 0 } }).parts.pupils.x).toBeLessThan(-1);
    expect(struck({ state: "sleep", sinceS: 3 }).parts.lids.alpha).toBe(1);
    const startled = struck({ state: "startle", sinceS: 0.25 });
    expect(startled.parts.eyes.width).toBeGreaterThan(1.1);
    expect(startled.whole.y).toBeLessThan(-15);
  });
  test("it is down on the beat and up between", () => {
    expect(struck({ state: "dance", bar: 0.5 }).whole.height).toBeLessThan(struck({ state: "dance", bar: 0.7 }).whole.height);
    expect(struck({ state: "dance", bar: 0.25 }).whole.x).toBe(-struck({ state: "dance", bar: 0.75 }).whole.x);
  });
  test("for who asked for less motion it holds still, and is still told apart", () => {
    for (const state of figureStates)
      expect(struck({ state, still: true, sinceS: 0.1, clockS: 1 })).toEqual(struck({ state, still: true, sinceS: 2.7, clockS: 9 }));
    expect(struck({ state: "cheer", still: true }).parts["arm-left"].angle).toBeGreaterThan(1);
  });
  test("from one thing into the next it moves, and does not jump", () => {
    const [from, to] = [struck({ state: "rest" }), struck({ state: "cheer", sinceS: 0.1 })];
    const meant = to.parts["arm-left"].angle;
    blend(to, from, 0.5);
    expect(to.parts["arm-left"].angle).toBeCloseTo(meant / 2, 1);
  });
});
