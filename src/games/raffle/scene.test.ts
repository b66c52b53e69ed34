import { describe, expect, test } from "@jest/globals";
import { raffle } from "../../core/games/raffle/definition";
import { evening, settingsOf } from "../../core/games/raffle/evening";
import { SpriteBuffer } from "../../overlay/sprite-buffer";
import { bareKit } from "../../testing/scene-kit";
import type { SpriteBook } from "../../overlay/sprites";
import type { Surface } from "../../overlay/surface";
import { namesAround, revealS, rolled } from "./reveal";
import { raffleScene } from "./scene";

const box = { x: 0, y: 0, width: 600, height: 240, stageWidth: 1_280 };
/** An overlay page beside an evening: nothing is painted, what is looked at is what moves and what stands there. */
function page(part: Parameters<typeof settingsOf>[0] = {}, still = false) {
  const settings = settingsOf(part);
  const e = evening(settings);
  const surface = { canvas: { style: {} }, context: null, scale: 1, fit: () => ({ width: 600, height: 240 }), free: () => undefined };
  const scene = raffleScene({ ...bareKit, sprites: {} as SpriteBook, still, paint: () => surface as unknown as Surface });
  const out = new SpriteBuffer();
  return {
    ...e,
    scene,
    see: (): void => scene.setView(raffle.view(settings, e.at(), "overlay")),
    at: (nowMs: number): boolean => scene.frame(nowMs, box, out, 1),
  };
}

describe("the rack", () => {
  test("is away before it opens, moves while somebody comes in, and rests", () => {
    const p = page();
    p.see();
    expect([p.at(0), p.scene.live]).toEqual([false, 0]);
    p.command({ do: "open" });
    p.see();
    p.at(1_000);
    p.say("ada", "!in");
    p.see();
    expect([p.at(1_010), p.scene.live]).toEqual([true, 1]);
    expect(p.at(3_000)).toBe(false);
    expect(p.scene.shown?.()).toMatchObject({ phase: "open", people: 1 });
  });
  test.each(["rack", "dealt", "reel", "disc"] as const)("%s: several winners are shown one after another, each looked at", (present) => {
    const p = page({ winners: 2, looks: { ...settingsOf().looks, present } });
    p.command({ do: "open" });
    for (const who of ["ada", "bo", "cy"]) p.say(who, "!in");
    p.command({ do: "lock" });
    p.see();
    p.at(0);
    p.command({ do: "draw-all" });
    p.see();
    const oneMs = revealS[present] * 1_000 + 2_200;
    expect(p.at(1_000)).toBe(true);
    expect(p.at(1_000 + oneMs - 100)).toBe(true);
    // The second begins when the first was looked at, and it comes to rest too.
    expect(p.at(1_000 + oneMs + 100)).toBe(true);
    expect(p.at(1_000 + 2 * oneMs + 3_000)).toBe(false);
  });
  test("who joins in the middle sees who was drawn last, at rest; with less motion nothing is revealed slowly", () => {
    const p = page({ winners: 2 });
    p.command({ do: "open" });
    for (const who of ["ada", "bo", "cy"]) p.say(who, "!in");
    p.command({ do: "lock" });
    p.command({ do: "draw" });
    p.see();
    p.at(0);
    expect(p.at(2_000)).toBe(false);
    const calm = page({}, true);
    calm.command({ do: "open" });
    calm.say("ada", "!in");
    calm.command({ do: "lock" });
    calm.see();
    calm.at(0);
    calm.command({ do: "draw" });
    calm.see();
    calm.at(10);
    expect(calm.at(4_000)).toBe(false);
  });
});

describe("names that roll by", () => {
  test("end on the winner, whoever else is there", () => {
    const lifted = { index: 0, name: "ada", prize: "", sinceS: 0 };
    for (const tags of [[], ["ada"], ["ada", "bo"], Array.from({ length: 40 }, (_, i) => `v${i}`)]) {
      const names = namesAround({ tags: tags.map((name) => ({ name, atMs: 0 })), lifted }, 12, 7);
      expect([names.length, names[7]]).toEqual([12, "ada"]);
      expect(names.every((n) => typeof n === "string" && n !== "")).toBe(true);
    }
  });
  test("slow down all the while, and come to the very row", () => {
    const at = Array.from({ length: 31 }, (_, i) => rolled(i / 10, 3, 28));
    const steps = at.slice(1).map((v, i) => v - (at[i] ?? 0));
    expect(at[30]).toBe(28);
    expect(steps.every((s, i) => i === 0 || s <= (steps[i - 1] ?? 0) + 1e-9)).toBe(true);
  });
});
