import { beforeAll, describe, expect, test } from "@jest/globals";
import { wheel } from "../../core/games/wheel/definition";
import { restAt, arcsOf } from "../../core/games/wheel/layout";
import { freshWheel } from "../../core/games/wheel/rules";
import { newSegment, turn, type WheelDurable, type WheelSettings } from "../../core/games/wheel/settings";
import { SpriteBuffer } from "../../overlay/sprite-buffer";
import { bareKit } from "../../testing/scene-kit";
import type { SpriteBook } from "../../overlay/sprites";
import type { Surface } from "../../overlay/surface";
import { wheelScene } from "./scene";

beforeAll(() => {
  // Nothing is painted here: what is looked at is when it turns, rests and tells.
  globalThis.OffscreenCanvas ??= class {
    constructor(
      readonly width: number,
      readonly height: number,
    ) {}
    getContext = (): null => null;
  } as never;
});

const settings: WheelSettings = { ...wheel.defaults, segments: ["A", "B", "C"].map((l, i) => newSegment(`s${i}`, l, i)), panelMs: 2_000 };
const box = { x: 0, y: 0, width: 400, height: 400, stageWidth: 1_280 };
type Knock = Readonly<{ inMs: number; strength: number }>;
function page(part: Partial<WheelSettings> = {}, still = false) {
  const s = { ...settings, ...part };
  const sprites = { nowMs: 0, id: () => 0, get: () => undefined } as unknown as SpriteBook & { nowMs: number };
  const knocks: Knock[][] = [];
  let silenced = 0;
  const surface = { canvas: { style: {} }, context: null, scale: 1, fit: () => ({ width: 400, height: 400 }), free: () => undefined };
  const scene = wheelScene({
    ...bareKit,
    sprites,
    still,
    paint: () => surface as unknown as Surface,
    knock: (list) => {
      knocks.push([...list]);
      return () => void (silenced += 1);
    },
  });
  let durable: WheelDurable = freshWheel();
  const out = new SpriteBuffer();
  const view = (next: WheelDurable): void => {
    durable = next;
    scene.setView(wheel.view(s, durable, "overlay"));
  };
  return {
    scene,
    knocks,
    silenced: () => silenced,
    view,
    at: (nowMs: number): boolean => {
      sprites.nowMs = nowMs;
      return scene.frame(nowMs, box, out, 1);
    },
    now: (nowMs: number) => (sprites.nowMs = nowMs),
    shown: () => scene.shown?.() as { turning: boolean; turned: number; result: string | null; segments: number } | null,
    spin: (nowMs: number, n = 1) => {
      sprites.nowMs = nowMs;
      const to = restAt(arcsOf(s, durable), 1, s.looks.pointerAt, 9);
      scene.effect({ do: "spin", n, from: durable.angle, to, ms: 5_000, seed: 9, by: "ada" }, nowMs);
      return to;
    },
    tell: (nowMs: number, n = 1, ms = 2_000) => scene.effect({ do: "result", n, segment: 1, label: "B", by: "ada", ms }, nowMs),
  };
}

describe("a wheel on the picture", () => {
  test("rests without a frame to draw; turns; comes to rest where the rules said; tells, and rests again", () => {
    const p = page();
    p.view(freshWheel());
    p.at(0);
    for (let t = 100; t < 3_000; t += 100) p.at(t);
    expect(p.at(3_000)).toBe(false);
    const to = p.spin(10_000);
    expect([p.at(10_100), p.shown()?.turning]).toEqual([true, true]);
    expect([p.at(14_700), p.shown()?.turning]).toEqual([true, true]);
    p.at(14_760);
    expect(p.shown()).toMatchObject({ turning: false, turned: to, result: null });
    p.tell(15_000);
    p.at(15_010);
    expect(p.shown()?.result).toBe("B");
    p.at(17_100);
    expect(p.shown()?.result).toBeNull();
    p.view({ ...freshWheel(), angle: to });
    for (let t = 17_200; t < 20_000; t += 100) p.at(t);
    expect(p.at(20_000)).toBe(false);
    expect(p.shown()?.turned).toBe(to);
  });
  test("the pointer’s knocks are scheduled when it begins, each once, and quieter towards the end", () => {
    const p = page();
    p.view(freshWheel());
    p.spin(1_000);
    const [knocks] = p.knocks;
    expect(p.knocks).toHaveLength(1);
    expect(knocks!.length).toBeGreaterThan(10);
    expect(knocks!.every((k) => k.inMs > 0 && k.inMs < 5_000)).toBe(true);
    expect(knocks!.at(-1)!.strength).toBeLessThan(knocks![3]!.strength);
  });
  test("hushed, it falls silent at once, and goes on turning unseen", () => {
    const p = page();
    p.view(freshWheel());
    p.spin(1_000);
    p.scene.clear(2_000, true);
    expect(p.silenced()).toBe(1);
    p.at(3_000);
    expect(p.shown()?.turning).toBe(true);
  });
  test("a result that comes early waits until the wheel rests", () => {
    const p = page();
    p.view(freshWheel());
    p.spin(1_000);
    p.tell(1_500);
    p.at(1_600);
    expect(p.shown()?.turning).toBe(true);
    p.at(5_800);
    expect(p.shown()).toMatchObject({ turning: false, result: "B" });
  });
  test("while a result is looked at, the plate stays as it was; then it takes its new order", () => {
    const p = page({ leaves: true });
    p.view(freshWheel());
    const to = p.spin(1_000);
    p.at(5_900);
    p.tell(6_000);
    p.view({ ...freshWheel(), angle: to, drawn: [["s1", 1]], last: "s1" });
    p.at(6_100);
    expect(p.shown()?.segments).toBe(3);
    for (let t = 6_200; t < 12_000; t += 200) p.at(t);
    expect(p.shown()?.segments).toBe(2);
  });
  test("a page that comes in the middle of a spin goes on where the others are", () => {
    const p = page();
    const to = restAt(arcsOf(settings, freshWheel()), 1, settings.looks.pointerAt, 9);
    const spin = { promise: { n: 4 }, fromMs: Date.now() - 3_000, endsMs: Date.now() + 2_000, from: 0, to, seed: 9, who: { by: "ada" } };
    p.now(100_000);
    p.view({ ...freshWheel(), spin: spin as unknown as WheelDurable["spin"] });
    p.at(100_100);
    expect(p.shown()?.turning).toBe(true);
    p.at(101_900);
    expect(p.shown()).toMatchObject({ turning: false, turned: to });
  });
  test("the same spin told twice is one spin; what is no effect changes nothing", () => {
    const p = page();
    p.view(freshWheel());
    p.spin(1_000);
    p.spin(1_200);
    expect(p.knocks).toHaveLength(1);
    for (const nonsense of [null, "spin", { do: "spin" }, { do: "fly" }]) p.scene.effect(nonsense, 1_300);
    p.at(1_400);
    expect(p.shown()?.turning).toBe(true);
  });
  test("with less motion it stands still, makes no sound, and is at its place when it ends", () => {
    const p = page({}, true);
    p.view(freshWheel());
    const to = p.spin(1_000);
    p.at(2_000);
    expect([p.knocks.length, p.shown()?.turned]).toEqual([0, 0]);
    p.at(5_900);
    expect(p.shown()?.turned).toBe(to % turn);
  });
  test("shown only while it spins: away before, there with its result, away after", () => {
    const p = page({ looks: { ...settings.looks, show: "spins" } });
    p.view(freshWheel());
    expect(p.at(1_000)).toBe(false);
    p.spin(2_000);
    expect(p.at(2_500)).toBe(true);
    p.at(6_900);
    p.tell(7_000);
    expect(p.at(7_500)).toBe(true);
    for (let t = 7_600; t < 12_000; t += 200) p.at(t);
    expect(p.at(12_000)).toBe(false);
  });
});
