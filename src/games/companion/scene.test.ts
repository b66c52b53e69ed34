import { describe, expect, test } from "@jest/globals";
import { companion } from "../../core/games/companion/definition";
import { type CompanionDurable, type CompanionSettings, freshCompanion } from "../../core/games/companion/settings";
import type { Music } from "../../overlay/music";
import type { Box } from "../../overlay/scene";
import { SpriteBuffer } from "../../overlay/sprite-buffer";
import type { SpriteBook } from "../../overlay/sprites";
import type { Surface } from "../../overlay/surface";
import { bareKit } from "../../testing/scene-kit";
import { companionScene } from "./scene";

const place = { x: 100, y: 400, width: 600, height: 300, stageWidth: 1_280 };
type Shown = Readonly<{ state: string; bubble: string; spot: number }> | null;
/** A page that shows a companion; nothing is painted here: what is looked at is what it does and where it stands. */
function page(part: Partial<CompanionSettings> = {}, startMs = 1_900_000_000_000) {
  const settings = { ...companion.defaults, ...part };
  const sprites = { nowMs: 0, loads: 0, id: () => 0, get: () => undefined } as unknown as SpriteBook & { nowMs: number };
  const surface = { canvas: { style: {} }, context: null, scale: 1, fit: () => ({ width: 600, height: 300 }), free: () => undefined };
  let music: Music | null = null;
  let bodies: readonly Box[] = [];
  let nowMs = 0;
  const scene = companionScene({
    ...bareKit,
    sprites,
    still: false,
    paint: () => surface as unknown as Surface,
    music: () => music,
    bodies: () => bodies,
    wallMs: () => startMs + nowMs,
  });
  const out = new SpriteBuffer();
  const play = {
    is: (durable: Partial<CompanionDurable>) => scene.setView(companion.view(settings, { ...freshCompanion(), ...durable }, "overlay")),
    /** Frame by frame, to a time. */
    to: (untilMs: number): Shown => {
      for (; nowMs < untilMs; nowMs += 16) {
        sprites.nowMs = nowMs;
        scene.frame(nowMs, place, out, 1);
      }
      return play.shown();
    },
    shown: () => (scene.shown?.() ?? null) as Shown,
    sees: (view: unknown) => scene.setView(view),
    live: () => scene.live,
    music: (given: Music | null) => (music = given),
    bodies: (...given: Box[]) => (bodies = given),
  };
  return play;
}
const doing = (state: "greet" | "cheer" | "speak", bubble = "", ms = 3_000, n = 1) => ({ n, state, bubble, sinceMs: 0, untilMs: ms });

describe("a companion on the picture", () => {
  test("does what its rules say for as long as they say, then rests as its mood is", () => {
    const p = page({ walks: false });
    p.is({});
    expect(p.to(1_000)?.state).toBe("rest");
    p.is({ doing: doing("cheer", "", 2_000) });
    expect(p.to(1_100)?.state).toBe("cheer");
    expect(p.to(3_200)?.state).toBe("rest");
    p.is({ mood: { thousandths: 10_000, atMs: 0 } });
    expect(p.to(3_300)?.state).toBe("glum");
    p.is({ mood: { thousandths: 90_000, atMs: 0 } });
    expect(p.to(3_400)?.state).toBe("merry");
    p.is({ asleep: true });
    expect(p.to(3_500)?.state).toBe("sleep");
  });
  test("waves first and speaks then, while its bubble stands", () => {
    const p = page({ walks: false });
    p.is({});
    p.to(100);
    p.is({ doing: doing("greet", "good evening, ada, come in", 5_000) });
    expect(p.to(600)).toMatchObject({ state: "greet", bubble: "good evening, ada, come in" });
    expect(p.to(2_200)).toMatchObject({ state: "speak" });
    expect(p.to(5_400)).toMatchObject({ state: "rest", bubble: "" });
  });
  test("dances while a sound plays, if it is set so, and until it is told otherwise", () => {
    const music = { sinceMs: 0, beat: { everyMs: 500, firstMs: 0 } };
    const p = page({ walks: false });
    p.is({});
    p.music(music);
    expect(p.to(200)?.state).toBe("dance");
    p.music(null);
    expect(p.to(400)?.state).toBe("rest");
    p.is({ dancing: true });
    expect(p.to(600)?.state).toBe("dance");
    const deaf = page({ walks: false, dances: false });
    deaf.is({});
    deaf.music(music);
    expect(deaf.to(200)?.state).toBe("rest");
  });
  test("two pages agree where it stands, however late one joined", () => {
    const [one, late] = [page(), page({}, 1_900_000_000_000 + 60_000)];
    one.is({});
    late.is({});
    one.to(90_000);
    late.to(30_000);
    expect(Math.abs((one.shown()?.spot ?? 0) - (late.shown()?.spot ?? 1))).toBeLessThan(0.02);
  });
  test("steps aside for what stands in its way, without a jump, and comes back", () => {
    const p = page({ walks: false });
    p.is({});
    expect(p.to(500)?.spot).toBeCloseTo(0.5);
    p.bodies({ x: 350, y: 300, width: 400, height: 400 });
    let before = 0.5;
    let walked = false;
    for (let ms = 520; ms < 6_000; ms += 40) {
      const shown = p.to(ms);
      expect(Math.abs((shown?.spot ?? 9) - before)).toBeLessThan(0.03);
      before = shown?.spot ?? 9;
      walked ||= shown?.state === "walk";
    }
    // Left of it with its whole width.
    expect([walked, before < 0.34]).toEqual([true, true]);
    p.bodies();
    expect(p.to(12_000)?.spot).toBeCloseTo(0.5, 1);
  });
  test("what hangs above its head is not in its way", () => {
    const p = page({ walks: false });
    p.is({});
    p.bodies({ x: 0, y: 0, width: 1_280, height: 420 });
    expect(p.to(3_000)?.spot).toBeCloseTo(0.5);
  });
  test("off, it is not there; a view that can’t be read changes nothing", () => {
    const p = page();
    expect(p.live()).toBe(0);
    p.is({});
    expect(p.live()).toBe(1);
    p.sees({ nonsense: true });
    expect(p.live()).toBe(1);
    p.is({ on: false });
    expect(p.live()).toBe(0);
  });
});
