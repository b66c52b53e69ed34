import { describe, expect, test } from "@jest/globals";
import { prediction } from "../../core/games/prediction/definition";
import { evening, settingsOf } from "../../core/games/prediction/evening";
import { SpriteBuffer } from "../../overlay/sprite-buffer";
import { bareKit } from "../../testing/scene-kit";
import type { SpriteBook } from "../../overlay/sprites";
import type { Surface } from "../../overlay/surface";
import { patternOf } from "./paint";
import { predictionScene } from "./scene";
import { shownNow } from "./shown-now";
import { viewSchema } from "./view";

const box = { x: 0, y: 0, width: 600, height: 400, stageWidth: 1_280 };
function page(part: Parameters<typeof settingsOf>[0] = {}, { still = false, preview = false } = {}) {
  const settings = settingsOf(part);
  const e = evening(part);
  const surface = { canvas: { style: {} }, context: null, scale: 1, fit: () => ({ width: 600, height: 400 }), free: () => undefined };
  const scene = predictionScene({ ...bareKit, sprites: {} as SpriteBook, still, preview, paint: () => surface as unknown as Surface });
  const out = new SpriteBuffer();
  const view = () => viewSchema.parse(prediction.view(settings, e.at(), "overlay"));
  return { ...e, scene, view, see: (): void => scene.setView(view()), at: (nowMs: number): boolean => scene.frame(nowMs, box, out, 1) };
}
const foreign = (state: string, result: number | null = null) => ({
  kind: "forecast",
  viewer: null,
  forecast: "p1",
  title: "Tall or wide?",
  state,
  outcomes: [
    { label: "Tall", stakes: 30, people: 3 },
    { label: "Wide", stakes: 70, people: 2 },
  ],
  result,
  locksMs: 0,
});

describe("the jars", () => {
  test("are away before it opens, flow while something backs them, stay a while after the result, and leave", () => {
    const p = page({ openMs: 10_000 });
    p.see();
    expect([p.at(0), p.scene.live]).toEqual([false, 0]);
    p.open(Date.now() - 20_000);
    p.command({ do: "lock" }, Date.now());
    p.see();
    p.at(100);
    expect([p.at(200), p.scene.live]).toEqual([false, 1]);
    p.result("A");
    p.settle();
    p.see();
    expect(p.at(1_000)).toBe(true);
    expect(p.scene.shown?.()).toMatchObject({ result: 0, live: false, over: "result" });
    // The result stands there for a while; then nothing is drawn any more.
    expect(p.at(15_000)).toBe(true);
    expect(p.at(22_000)).toBe(false);
  });
  test("follow what backs them: the fullest is nearly full, and all come to rest", () => {
    const p = page();
    p.open();
    p.see();
    p.at(0);
    p.say("ada", "!back A 300");
    p.say("bo", "!back B 100");
    p.command({ do: "lock" });
    p.see();
    expect(p.at(20)).toBe(true);
    let frames = 0;
    for (let t = 40; t < 6_000 && p.at(t); t += 16) frames += 1;
    expect(frames).toBeGreaterThan(20);
    expect(frames).toBeLessThan(250);
    expect(p.scene.shown?.()).toMatchObject({ jars: [75, 25] });
  });
  test("stand there in a preview before anybody opened it", () => {
    const p = page({ outcomes: ["Yes", "No", "Perhaps"] }, { preview: true });
    p.see();
    expect(p.scene.shown?.()).toMatchObject({ title: "Will it survive the firing?", jars: [0, 0, 0] });
  });
  test("a page that comes after the end shows nothing of it", () => {
    const p = page();
    p.open();
    p.command({ do: "lock" });
    p.result("A");
    p.settle();
    p.see();
    expect([p.at(0), p.at(100)]).toEqual([false, false]);
  });
});

describe("what is drawn", () => {
  test("is our own while it is under way, the platform’s otherwise; the newer of two that are over", () => {
    const p = page();
    p.signal(foreign("open"), 1_000);
    expect(shownNow(p.view())).toMatchObject({ title: "Tall or wide?", line: "on the platform · 5 viewers so far" });
    p.open(2_000);
    expect(shownNow(p.view())?.title).toBe("Will it survive the firing?");
    p.command({ do: "lock" }, 3_000);
    p.result("A", 4_000);
    p.settle(5_000);
    expect(shownNow(p.view())?.title).toBe("Tall or wide?");
    p.signal(foreign("done", 1), 4_500);
    expect(shownNow(p.view())).toMatchObject({ title: "Will it survive the firing?", over: "result", result: 0 });
  });
  test("says in words what came of it", () => {
    const p = page();
    p.open();
    p.say("ada", "!back A 100");
    p.say("bo", "!back B 50");
    expect(shownNow(p.view())?.jars.map((j) => j.under)).toEqual(["67 % · pays 1.5 ×", "33 % · pays 3.0 ×"]);
    p.command({ do: "lock" });
    p.result("A");
    p.settle();
    expect(shownNow(p.view())?.line).toBe("1 viewer shares 150");
    p.command({ do: "undo" });
    expect(shownNow(p.view())).toMatchObject({ line: "the result is taken back", result: null, live: true });
  });
  test("neighbours differ in pattern, up to the twelfth", () => {
    for (let i = 1; i < 12; i += 1) expect(patternOf(i)).not.toBe(patternOf(i - 1));
  });
});
