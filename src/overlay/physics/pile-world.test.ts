import { beforeAll, describe, expect, test } from "@jest/globals";
import { outlineOf, shapes, type Shape } from "../../core/games/brimful/outline";
import type { Corner, Engine, Piece } from "./engine";
import { loadEngine } from "./load-engine";
import { type Ground, outwards, rowLength, toLocal } from "./pile-parts";
import { PileWorld } from "./pile-world";

let engine: Engine;
beforeAll(async () => {
  engine = await loadEngine();
});
const ball = (width = 0.9, mass = 5): Piece => ({ width, height: width, form: "circle", mass, bounce: 0.25 });
function ground(shape: Shape, part: Partial<Ground> = {}): Ground {
  const { wall, width } = outlineOf({ shape, points: [] });
  return {
    wall: wall.map(([x, y]): Corner => [(x - width / 2) * 10, (y - 1) * 10]),
    thickness: 0.6,
    boxes: [],
    top: -15,
    floor: 0.6,
    left: -8,
    right: 8,
    sides: false,
    gravity: 32,
    ...part,
  };
}
const rows = (world: PileWorld): number[][] => {
  const into = new Float32Array(4_000 * rowLength);
  const n = world.rows(into, 1);
  return Array.from({ length: n }, (_, i) => [...into.slice(i * rowLength, (i + 1) * rowLength)]);
};
const run = (world: PileWorld, steps: number): void => {
  for (let i = 0; i < steps; i += 1) world.step();
};

describe("a pile", () => {
  test("of the same seeds and orders in the same steps is the same to the last bit", () => {
    const play = () => {
      const world = new PileWorld(engine, ground("bowl"), 300);
      world.drop({ ref: 1, count: 60, seed: 7, piece: ball() });
      run(world, 200);
      world.drop({ ref: 2, count: 3, seed: 9, piece: { ...ball(2, 90), form: "box" } });
      run(world, 60);
      world.shake(5, 1);
      run(world, 240);
      const said = rows(world);
      world.free();
      return said;
    };
    expect(play()).toEqual(play());
  });
  test.each(shapes)("comes to rest within a %s, all of it, and then costs nothing", (shape) => {
    const world = new PileWorld(engine, ground(shape), 1_000);
    world.drop({ ref: 1, count: 70, seed: 3, piece: ball(0.7) });
    world.settle(1_500);
    expect(world.resting).toBe(true);
    expect(world.escaped).toBe(0);
    expect(rows(world).length).toBe(70);
    const before = rows(world);
    run(world, 120);
    const jitter = Math.sqrt(
      rows(world).reduce((sum, row, i) => sum + (row[2]! - before[i]![2]!) ** 2 + (row[3]! - before[i]![3]!) ** 2, 0) / before.length,
    );
    // A tenth of the vessel's height is one unit: less than a hundredth of a pixel on a vessel of 700.
    expect(jitter * 70).toBeLessThan(0.01);
    world.free();
  });
  test("lets none of a thousand through that are dropped at once, nor one as small and fast as can be", () => {
    const world = new PileWorld(engine, ground("bowl"), 1_000);
    world.drop({ ref: 1, count: 1_000, seed: 3, piece: ball(0.35) });
    world.drop({ ref: 2, count: 20, seed: 4, piece: ball(0.15, 500) });
    world.settle(900);
    expect(world.escaped).toBe(0);
    expect([...world.counts()].sort((a, b) => a[0] - b[0])).toEqual([
      [1, 1_000],
      [2, 20],
    ]);
    world.free();
  });
  test("a piece as wide as its vessel lies on the rim, and one of five hundred times the mass does not throw the others out", () => {
    const world = new PileWorld(engine, ground("glass"), 300);
    world.drop({ ref: 1, count: 20, seed: 3, piece: ball(0.8, 1) });
    world.drop({ ref: 2, count: 1, seed: 4, piece: ball(2, 500) });
    world.drop({ ref: 3, count: 1, seed: 4, piece: ball(7, 5) });
    world.settle(1_500);
    expect([...world.counts().values()]).toEqual([20, 1, 1]);
    world.free();
  });
  test("beyond the cap the oldest become part of it: they move no more, and still hold the others up", () => {
    const world = new PileWorld(engine, ground("bowl"), 40);
    world.drop({ ref: 1, count: 60, seed: 3, piece: ball(0.8) });
    world.settle(1_500);
    const high = Math.min(...rows(world).map((r) => r[3]!));
    world.drop({ ref: 2, count: 40, seed: 4, piece: ball(0.8) });
    world.settle(1_500);
    expect(world.liveCount).toBeLessThanOrEqual(40);
    expect(world.bodies).toBe(100);
    expect(world.changedBed()!.length / rowLength).toBe(100 - world.liveCount);
    expect(world.changedBed()).toBeNull();
    expect(Math.min(...rows(world).map((r) => r[3]!))).toBeLessThan(high);
    world.free();
  });
});

describe("the vessel", () => {
  test("tips onto its side, spills, and holds in the end what it is said to hold", () => {
    const world = new PileWorld(engine, ground("crucible"), 300);
    const wanted = (count: number) => world.want([{ ref: 1, count, seed: 3, piece: ball() }]);
    world.drop({ ref: 1, count: 50, seed: 3, piece: ball() });
    world.settle(1_200);
    world.tip(1);
    wanted(10);
    run(world, 400);
    expect(world.stands.angle).toBeGreaterThan(1);
    expect(world.counts().get(1) ?? 0).toBeLessThanOrEqual(10);
    world.upright();
    world.settle(1_500);
    expect(world.stands).toEqual({ x: 0, y: 0, angle: 0 });
    // What had spilled of those that count is dropped in again.
    expect(world.counts().get(1)).toBe(10);
    expect(world.escaped).toBe(0);
    world.free();
  });
  test("brims over once all has come: what lay high flies out, all goes, and what came later stays", () => {
    const world = new PileWorld(engine, ground("glass"), 300);
    world.drop({ ref: 1, count: 64, seed: 3, piece: ball(0.9) });
    world.burst(11, true);
    world.drop({ ref: 2, count: 4, seed: 5, piece: ball(0.9) });
    world.want([{ ref: 2, count: 4, seed: 5, piece: ball(0.9) }]);
    let out = 0;
    let most = 0;
    for (let i = 0; i < 900; i += 1) {
      world.step();
      out = Math.max(out, world.escaped);
      most = Math.max(most, world.bodies);
    }
    expect(most).toBeGreaterThanOrEqual(64);
    expect(out).toBeGreaterThan(5);
    expect([...world.counts()]).toEqual([[2, 4]]);
    expect(world.bodies).toBe(4);
    world.free();
  });
  test("what is there already is not dropped twice, and what is too much goes, the newest first", () => {
    const world = new PileWorld(engine, ground("bowl"), 300);
    world.drop({ ref: 1, count: 12, seed: 3, piece: ball() });
    world.want([{ ref: 1, count: 12, seed: 3, piece: ball() }]);
    world.settle(900);
    expect([...world.counts()]).toEqual([[1, 12]]);
    world.want([{ ref: 1, count: 7, seed: 3, piece: ball() }]);
    world.settle(900);
    expect(rows(world).length).toBe(7);
    world.free();
  });
  test("that stands fast does not slide under a heavy blow; one that is free does, and stays where it is seen", () => {
    const strike = (free: boolean): number => {
      const world = new PileWorld(engine, ground("bowl"), 300);
      world.slides = free;
      for (let i = 0; i < 6; i += 1) world.drop({ ref: i, count: 1, seed: i, piece: { ...ball(2.5, 300), bounce: 0 } });
      let far = 0;
      for (let i = 0; i < 600; i += 1) {
        world.step();
        far = Math.max(far, Math.abs(world.stands.x));
      }
      world.free();
      return far;
    };
    expect(strike(false)).toBeLessThan(0.01);
    expect(strike(true)).toBeGreaterThan(0.02);
    expect(strike(true)).toBeLessThan(1);
  });
  test("its wall is as thick as it is said, all around", () => {
    const wall = ground("bowl").wall!;
    for (const [i, [x, y]] of outwards(wall, 0.6).entries()) {
      const [ax, ay] = wall[i]!;
      expect(Math.hypot(x - ax, y - ay)).toBeCloseTo(0.6);
    }
    expect(outwards(wall, 0.6)[0]![0]).toBeLessThan(wall[0]![0]);
  });
  test("what lies in it is told where it lies in it, however it stands", () => {
    const local = toLocal({ x: 1, y: 2, angle: Math.PI / 2 }, { x: 1, y: 4, angle: Math.PI });
    expect(local.x).toBeCloseTo(2);
    expect(local.y).toBeCloseTo(0);
    expect(local.angle).toBeCloseTo(Math.PI / 2);
  });
});
