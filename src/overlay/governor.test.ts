import { describe, expect, test } from "@jest/globals";
import { SpriteBuffer, stride } from "./sprite-buffer";
import { Governor, levels } from "./governor";

const feed = (governor: Governor, ms: number, forMs: number): void => {
  for (let t = 0; t < forMs; t += ms) governor.frame(ms);
};

describe("the governor", () => {
  test("does nothing while frames come in time", () => {
    const governor = new Governor();
    feed(governor, 17, 20_000);
    expect([governor.lowered, governor.now, governor.late]).toEqual([0, levels[0], 0]);
  });
  test("takes turning away first, then emotes, step by step", () => {
    const governor = new Governor();
    feed(governor, 60, 3_000);
    expect(governor.now.coarse).toBe(true);
    feed(governor, 60, 10_000);
    expect(governor.now.room).toBeLessThan(0.5);
  });
  test("gives it back when there is room for long enough", () => {
    const governor = new Governor();
    feed(governor, 60, 12_000);
    feed(governor, 16, 60_000);
    expect(governor.lowered).toBe(0);
  });
  test("a page that was hidden is not slow", () => {
    const governor = new Governor();
    for (let i = 0; i < 20; i += 1) governor.frame(5_000);
    expect([governor.lowered, governor.late]).toEqual([0, 0]);
  });
});

describe("the flat buffer", () => {
  test("grows and keeps what it holds", () => {
    const flat = new SpriteBuffer();
    for (let i = 0; i < 5_000; i += 1) flat.push(i, 1, 2, 3, 4, 5, 6, 7);
    expect(flat.count).toBe(5_000);
    expect(Array.from(flat.data.slice(4_999 * stride, 5_000 * stride))).toEqual([4_999, 1, 2, 3, 4, 5, 6, 7]);
  });
});
