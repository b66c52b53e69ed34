import { describe, expect, test } from "@jest/globals";
import { Guard } from "./guard";

describe("a scene that fails", () => {
  test("is told once, tried three times and then left out; its neighbour goes on", () => {
    const told: unknown[] = [];
    const guard = new Guard<object>((error) => told.push(error));
    const [bad, good] = [{}, {}];
    let tries = 0;
    for (let i = 0; i < 10; i += 1) {
      expect(
        guard.run(
          bad,
          () => {
            tries += 1;
            throw new Error("negative radius");
          },
          true,
        ),
      ).toBe(true);
      expect(guard.run(good, () => i, -1)).toBe(i);
    }
    expect([tries, told.length]).toEqual([3, 1]);
    guard.forgive(bad);
    expect(guard.run(bad, () => "again", "")).toBe("again");
  });
  test("that fails now and then is never left out", () => {
    const guard = new Guard<object>(() => undefined);
    const scene = {};
    for (let i = 0; i < 12; i += 1)
      expect(
        guard.run(
          scene,
          () => {
            if (i % 2 === 0) throw new Error("now and then");
            return i;
          },
          -1,
        ),
      ).toBe(i % 2 === 0 ? -1 : i);
  });
});
