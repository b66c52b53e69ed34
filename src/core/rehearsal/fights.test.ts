import { describe, expect, test } from "@jest/globals";
import { Fights, mostBlows } from "./fights";

const by = (name: string) => ({ id: name, name });
const minute = 60_000;

describe("the blows of a rehearsal", () => {
  test("health after each, who leads, and what was struck lately", () => {
    const fights = new Fights();
    const hit = (viewer: string | null, min: number, amount: number, after: number): void =>
      fights.add("jug", { kind: "hit", viewer: viewer === null ? null : by(viewer), toMs: min * minute, body: { amount, after } });
    hit("ada", 1, 30, 170);
    hit("__proto__", 2, 20, 150);
    fights.add("jug", { kind: "heal", viewer: by("ada"), toMs: 3 * minute, body: { amount: 90, after: 200 } });
    hit("__proto__", 4, 20, 180);
    hit(null, 12, 5, 175);
    fights.add("jug", { kind: "reign", viewer: by("ada"), toMs: 12 * minute, body: { amount: 1_000 } });
    expect(fights.of("jug", 0, 13 * minute)).toEqual({
      points: [170, 150, 200, 180, 175].map((health, i) => ({ atMs: [1, 2, 3, 4, 12][i]! * minute, health })),
      leader: { name: "__proto__", damage: 40 },
      recent: { damage: 25, minutes: 10 },
    });
    expect(fights.of("constructor", 0, minute)).toEqual({ points: [], leader: null, recent: { damage: 0, minutes: 1 } });
  });
  test("of a storm of them the last are kept", () => {
    const fights = new Fights();
    for (let i = 0; i < 5_000; i += 1)
      fights.add("jug", { kind: "hit", viewer: by("ada"), toMs: i * 1_000, body: { amount: 1, after: 5_000 - i } });
    const { points, leader, recent } = fights.of("jug", 0, 5_000_000);
    expect([points.length, points.at(-1)?.health, leader?.damage, recent.damage]).toEqual([mostBlows, 1, 5_000, 600]);
  });
});
