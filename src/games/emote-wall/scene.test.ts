import { bareKit, spriteBook } from "../../testing/scene-kit";
import { beforeAll, describe, expect, test } from "@jest/globals";
import { emoteWall } from "../../core/games/emote-wall/definition";
import { type WallSettings, wallDefaults } from "../../core/games/emote-wall/settings";
import { SpriteBuffer, stride } from "../../overlay/sprite-buffer";
import type { Engine } from "../../overlay/physics/engine";
import { loadEngine } from "../../overlay/physics/load-engine";
import type { Box } from "../../overlay/scene";
import { deskHere } from "../../testing/desk-here";
import { wallScene } from "./scene";

const box = { x: 0, y: 0, width: 1_920, height: 1_080 };
function setUp(part: Partial<WallSettings> = {}, still = false) {
  const scene = wallScene({
    ...bareKit,
    sprites: spriteBook(),
    still,
    paint: () => {
      throw new Error("a wall has no surface of its own");
    },
  });
  const view = (more: Partial<WallSettings> = {}, on = true) =>
    emoteWall.view({ ...wallDefaults, ...part, ...more }, { on, worn: [] }, "overlay");
  scene.setView(view());
  const flat = new SpriteBuffer();
  const frame = (nowMs: number, room = 1): SpriteBuffer => {
    flat.count = 0;
    scene.frame(nowMs, box, flat, room);
    return flat;
  };
  const spawn = (count: number, more: Record<string, unknown> = {}, nowMs = 0): void =>
    scene.effect({ do: "spawn", keys: ["pot"], count, seed: 5, overMs: 0, motion: null, ...more }, nowMs);
  return { scene, frame, spawn, view };
}
const row = (flat: SpriteBuffer, n: number): number[] => [...flat.data.slice(n * stride, (n + 1) * stride)];

describe("what emotes wear", () => {
  const hat = { id: "hat", picture: "hat", when: "always" as const, from: "2026-01-01", to: "2026-01-01", size: 50, x: 0, y: -40 };
  test("is drawn over each that wears it, turned with it; what is not told of is not worn", () => {
    const { frame, spawn } = setUp({ lifeMs: 60_000, motion: "pop", trims: [hat] });
    spawn(3, { trims: ["hat"] });
    spawn(2);
    const flat = frame(1_000);
    expect(flat.count).toBe(3 * 2 + 2);
    const [emote, worn] = [row(flat, 0), row(flat, 1)];
    expect(worn[3]! / emote[3]!).toBeGreaterThan(0.4);
    expect(worn[3]! / emote[3]!).toBeLessThan(0.6);
    expect(worn[1]!).toBeLessThan(emote[1]!);
    expect(worn[4]).toBe(emote[4]);
  });
  test("is gone when it is gone from the settings", () => {
    const { scene, frame, spawn, view } = setUp({ lifeMs: 60_000, motion: "pop", trims: [hat] });
    spawn(3, { trims: ["hat"] });
    scene.setView(view({ trims: [] }));
    expect(frame(1_000).count).toBe(3);
  });
});

describe("emotes that pile up", () => {
  let engine: Engine;
  beforeAll(async () => {
    engine = await loadEngine();
  });
  const piling = (frames: readonly Box[] = [], part: Partial<WallSettings> = {}) => {
    const scene = wallScene({
      ...bareKit,
      sprites: spriteBook(),
      still: false,
      desk: () => deskHere(engine),
      frames: () => frames,
      paint: () => {
        throw new Error("a wall has no surface of its own");
      },
    });
    scene.setView(
      emoteWall.view(
        { ...wallDefaults, motion: "pile", lifeMs: 20_000, onFrames: frames.length > 0, ...part },
        { on: true, worn: [] },
        "overlay",
      ),
    );
    const flat = new SpriteBuffer();
    return {
      scene,
      spawn: (count: number) => scene.effect({ do: "spawn", keys: ["pot"], count, seed: 5, overMs: 0, motion: null, of: 4 }, 0),
      /** A second of frames from here on; where they lie then. */
      second: (fromMs: number) => {
        for (let t = 0; t < 1_000; t += 16) {
          flat.count = 0;
          scene.frame(fromMs + t, box, flat, 1);
        }
        return Array.from({ length: flat.count }, (_, n) => row(flat, n));
      },
    };
  };
  test("fall to the ground, lie there, and go when their time is over", () => {
    const { scene, spawn, second } = piling();
    spawn(12);
    let rows: number[][] = [];
    for (let s = 0; s < 6; s += 1) rows = second(s * 1_000);
    expect(rows.length).toBe(12);
    for (const [x, y, , height] of rows) {
      expect(y! + height! / 2).toBeLessThan(1_095);
      expect(y!).toBeGreaterThan(700);
      expect(x!).toBeGreaterThan(0);
      expect(x!).toBeLessThan(1_920);
    }
    expect(scene.live).toBe(12);
    for (let s = 20; s < 23; s += 1) rows = second(s * 1_000);
    expect(rows.length).toBe(0);
    expect(scene.frame(24_000, box, new SpriteBuffer(), 1)).toBe(false);
  });
  test("land on the other games' frames, if so set", () => {
    const shelf = { x: 500, y: 500, width: 900, height: 200 };
    const { spawn, second } = piling([shelf]);
    spawn(40);
    let rows: number[][] = [];
    for (let s = 0; s < 8; s += 1) rows = second(s * 1_000);
    const on = rows.filter(([x, y]) => x! > 520 && x! < 1_380 && y! < 500 && y! > 300);
    expect(on.length).toBeGreaterThan(3);
    // Nobody lies in it.
    expect(rows.filter(([x, y]) => x! > 540 && x! < 1_360 && y! > 520 && y! < 690)).toEqual([]);
  });
  test("those of one message are taken off with it, and over the cap the oldest go", () => {
    const { scene, spawn, second } = piling([], { cap: 10 });
    spawn(30);
    for (let s = 0; s < 6; s += 1) second(s * 1_000);
    expect(scene.live).toBe(10);
    scene.effect({ do: "remove", of: 4 }, 6_000);
    // Softly: half a second on all of them are still there, fainter.
    const flat = new SpriteBuffer();
    for (let t = 6_000; t < 6_500; t += 16) {
      flat.count = 0;
      scene.frame(t, box, flat, 1);
    }
    const alphas = Array.from({ length: flat.count }, (_, n) => row(flat, n)[5]!);
    expect(alphas.length).toBe(10);
    expect(alphas.every((a) => a > 0 && a < 0.9)).toBe(true);
    for (let s = 6; s < 9; s += 1) second(s * 1_000);
    expect(scene.live).toBe(0);
  });
});

describe("the wall's scene", () => {
  test("shows as many as it is told, for as long as they live, and then nothing moves", () => {
    const { scene, frame, spawn } = setUp({ lifeMs: 2_000 });
    spawn(5);
    expect(frame(500).count).toBe(5);
    expect(scene.live).toBe(5);
    expect(scene.frame(3_000, box, new SpriteBuffer(), 1)).toBe(false);
    expect(scene.live).toBe(0);
  });
  test("a flock comes over its time, not at once", () => {
    const { frame, spawn } = setUp({ lifeMs: 60_000 });
    spawn(100, { overMs: 2_000 });
    const counts = [100, 500, 1_000, 1_900, 2_100].map((t) => frame(t).count);
    expect(counts).toEqual([...counts].sort((a, b) => a - b));
    expect(counts[0]!).toBeLessThan(20);
    expect(counts[2]!).toBeGreaterThan(35);
    expect(counts[2]!).toBeLessThan(65);
    expect(counts[4]!).toBe(100);
  });
  test("over the cap the oldest leave first, softly", () => {
    const { frame, spawn } = setUp({ cap: 10, lifeMs: 60_000, motion: "pop" });
    spawn(10, { keys: ["old"] });
    frame(1_000);
    spawn(10, { keys: ["young"] }, 1_000);
    // They fade for a third of a second: all are drawn, the old ones fainter.
    frame(1_001);
    const fading = frame(1_150);
    expect(fading.count).toBe(20);
    const alphas = Array.from({ length: 20 }, (_, n) => [row(fading, n)[6], row(fading, n)[5]!] as const);
    expect(alphas.filter(([sprite]) => sprite === 0).every(([, a]) => a < 0.8)).toBe(true);
    expect(alphas.filter(([sprite]) => sprite === 1).every(([, a]) => a === 1)).toBe(true);
    expect(frame(1_500).count).toBe(10);
  });
  test("the governor's room lowers the cap", () => {
    const { frame, spawn } = setUp({ cap: 100, lifeMs: 60_000 });
    spawn(100);
    frame(100, 0.35);
    expect(frame(600, 0.35).count).toBe(35);
  });
  test("clearing is soft, clearing under hush is at once, and what was not born yet never is", () => {
    const { scene, frame, spawn } = setUp({ lifeMs: 60_000 });
    spawn(20, { overMs: 10_000 });
    expect(frame(5_000).count).toBeGreaterThan(5);
    scene.effect({ do: "clear" }, 5_000);
    expect(frame(5_100).count).toBeGreaterThan(5);
    expect(frame(5_500).count).toBe(0);
    expect(frame(11_000).count).toBe(0);
    spawn(20, {}, 11_000);
    scene.clear(11_001, true);
    expect(frame(11_002).count).toBe(0);
  });
  test("a wall that is switched off is empty and takes nothing", () => {
    const { scene, frame, spawn, view } = setUp();
    spawn(5);
    scene.setView(view({}, false));
    expect(frame(10).count).toBe(0);
    spawn(5, {}, 10);
    expect(frame(20).count).toBe(0);
  });
  test("sizes are shares of the height, pictures keep their shape", () => {
    const { frame, spawn } = setUp({ sizeShare: 0.1, sizeSpread: 0, motion: "pop", lifeMs: 60_000 });
    spawn(1, { keys: ["wide"] });
    const [, , width = 0, height = 0] = row(frame(5_000), 0);
    expect(width / height).toBeCloseTo(2, 1);
    expect(Math.sqrt(width * height)).toBeCloseTo(108, -1);
  });
  test("a part of the picture holds all that moves in it", () => {
    const { frame, spawn } = setUp({
      area: { x: 0.5, y: 0, width: 0.25, height: 0.5 },
      motion: "ricochet",
      lifeMs: 60_000,
      sizeShare: 0.05,
    });
    spawn(40);
    for (const t of [100, 2_000, 9_000]) {
      const flat = frame(t);
      for (let n = 0; n < flat.count; n += 1) {
        const [x = 0, y = 0] = row(flat, n);
        expect([x > 950 && x < 1_450, y > -10 && y < 550]).toEqual([true, true]);
      }
    }
  });
  test("animations run by the emote's own age; pictures that are not there are left out", () => {
    const { frame, spawn } = setUp({ lifeMs: 60_000 });
    spawn(1, { keys: ["moving"] });
    const frames = [0, 100, 200, 300, 400].map((t) => row(frame(t + 1), 0)[7]);
    expect(new Set(frames.slice(0, 4)).size).toBe(4);
    expect(frames[4]).toBe(frames[0]);
    spawn(3, { keys: ["missing"] }, 500);
    expect(frame(600).count).toBe(1);
  });
  test("the same seed looks alike on two pages, whatever they showed before", () => {
    const [a, b] = [setUp(), setUp()];
    b.spawn(7, { seed: 99 });
    b.frame(20_000);
    a.spawn(6, {}, 20_000);
    b.spawn(6, {}, 20_000);
    expect(Array.from({ length: 6 }, (_, n) => row(a.frame(21_000), n))).toEqual(
      Array.from({ length: 6 }, (_, n) => row(b.frame(21_000), n)),
    );
  });
  test("a storm of flocks fills no memory: the newest six thousand stay", () => {
    const { frame, spawn } = setUp({ cap: 2_000, lifeMs: 120_000 });
    for (let i = 0; i < 12; i += 1) spawn(2_000, { seed: i, overMs: 60_000 }, i);
    expect(frame(60_100).count).toBeLessThanOrEqual(6_000);
    expect(frame(61_000).count).toBe(2_000);
  });
  test("who asked for less motion sees emotes come and go where they are", () => {
    const { frame, spawn } = setUp({ motion: "spout" }, true);
    spawn(1);
    const [early, late] = [row(frame(1_000), 0), row(frame(4_000), 0)];
    expect([early[0], early[1], early[4]]).toEqual([late[0], late[1], late[4]]);
  });
  test("what is malformed is passed over; rehearsing leaves no trace", () => {
    const { scene, frame } = setUp();
    for (const odd of [
      null,
      {},
      { do: "dance" },
      { do: "spawn", keys: [], count: 1 },
      { do: "spawn", keys: ["x"], count: 1e9, seed: 1, overMs: 0, motion: null },
    ])
      scene.effect(odd, 0);
    expect(frame(10).count).toBe(0);
    const unseen = new SpriteBuffer();
    scene.rehearse(box, unseen);
    expect(unseen.count).toBeGreaterThan(100);
    expect([scene.live, frame(20).count]).toEqual([0, 0]);
  });
});
