import { describe, expect, test } from "@jest/globals";
import { steadyClock } from "./clock";

function setUp() {
  const at = { wall: 1_000_000, steady: 0 };
  const clock = steadyClock(
    () => at.wall,
    () => at.steady,
  );
  const pass = (ms: number): void => void ((at.wall += ms), (at.steady += ms));
  return { at, clock, pass };
}

describe("the engine's time", () => {
  test("follows the computer's clock", () => {
    const { clock, pass } = setUp();
    pass(5_000);
    expect(clock.now()).toBe(1_005_000);
    expect(clock.aheadMs?.()).toBe(0);
  });
  test("runs on when the clock is set back, so that ten seconds stay ten", () => {
    const { at, clock, pass } = setUp();
    pass(5_000);
    clock.now();
    at.wall -= 3_600_000;
    pass(10_000);
    expect(clock.now()).toBe(1_015_000);
    expect(clock.aheadMs?.()).toBe(3_600_000);
  });
  test("gives back what it added when the clock is set right again", () => {
    const { at, clock, pass } = setUp();
    clock.now();
    at.wall -= 3_600_000;
    pass(1_000);
    clock.now();
    at.wall += 3_600_000;
    pass(1_000);
    expect(clock.now()).toBe(1_002_000);
    expect(clock.aheadMs?.()).toBe(0);
  });
  test("believes a leap forward: the computer slept", () => {
    const { at, clock } = setUp();
    clock.now();
    at.wall += 7_200_000;
    expect(clock.now()).toBe(8_200_000);
  });
  test("never goes backwards by the little that clocks are corrected by", () => {
    const { at, clock, pass } = setUp();
    pass(500);
    const before = clock.now();
    at.wall -= 40;
    expect(clock.now()).toBeGreaterThanOrEqual(before);
  });
});
