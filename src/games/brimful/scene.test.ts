import { beforeAll, describe, expect, test } from "@jest/globals";
import { emoteIndex } from "../../core/chat/emotes";
import { brimful } from "../../core/games/brimful/definition";
import { brimfulDefaults, type BrimfulDurable, type BrimfulSettings } from "../../core/games/brimful/settings";
import { bareContext } from "../../core/module/module";
import type { Command, Signal } from "../../core/signals/signal";
import type { Viewer } from "../../core/signals/names";
import type { Engine } from "../../overlay/physics/engine";
import { loadEngine } from "../../overlay/physics/load-engine";
import { SpriteBuffer } from "../../overlay/sprite-buffer";
import type { SpriteLayer } from "../../overlay/sprite-layer";
import type { SpriteBook } from "../../overlay/sprites";
import type { Surface } from "../../overlay/surface";
import { bareKit } from "../../testing/scene-kit";
import { deskHere } from "../../testing/desk-here";
import type { VesselFacts } from "./pieces";
import { brimfulScene } from "./scene";

let engine: Engine;
beforeAll(async () => {
  engine = await loadEngine();
});
const box = { x: 0, y: 300, width: 500, height: 780, stageWidth: 1_920 };
const ada: Viewer = { id: "ada", name: "Ada", roles: [] };

/** A page with a vessel on it, under the real rules and the real physics; nothing is painted. */
function page(part: Partial<BrimfulSettings> = {}, still = false) {
  const settings = { ...brimfulDefaults, ...part };
  const sprites = { nowMs: 0, id: () => 0, get: () => undefined } as unknown as SpriteBook & { nowMs: number };
  const surface = {
    canvas: { style: {}, width: 1, height: 1 },
    context: null,
    scale: 1,
    fit: () => ({ width: 500, height: 780 }),
    free: () => undefined,
  };
  const stamped: number[] = [];
  const layer = {
    scale: 1,
    coarse: false,
    fit: () => undefined,
    draw: (flat: SpriteBuffer) => void stamped.push(flat.count),
    clear: () => undefined,
    stack: () => undefined,
    free: () => undefined,
  };
  const desks: ReturnType<typeof deskHere>[] = [];
  const scene = brimfulScene({
    ...bareKit,
    sprites,
    still,
    paint: () => surface as unknown as Surface,
    layer: () => layer as unknown as SpriteLayer,
    film: bareKit.film,
    desk: () => {
      const desk = deskHere(engine);
      desks.push(desk);
      return desk;
    },
  });
  let durable: BrimfulDurable = brimful.freshDurable(settings);
  let [seq, nowMs] = [0, 0];
  const view = (): void => scene.setView(brimful.view(settings, durable, "overlay"));
  const out = new SpriteBuffer();
  view();
  return {
    scene,
    desks,
    stamped,
    view,
    /** Through the rules; `heard` false where the page misses the effects and gets the view alone. */
    tell: (given: Record<string, unknown>, heard = true) => {
      seq += 1;
      const signal = { ...given, seq, atMs: 1_000_000 + nowMs, id: `s${seq}` } as Signal;
      const outcome = brimful.step({ settings, durable, transient: null }, signal, bareContext(emoteIndex([])));
      durable = outcome.durable;
      if (heard) for (const effect of outcome.effects) scene.effect(effect, nowMs);
      view();
    },
    /** So many seconds of frames; whether it moves then. */
    run: (seconds: number, room = 1): boolean => {
      let alive = false;
      for (let i = 0; i < seconds * 60; i += 1) {
        nowMs += 1000 / 60;
        sprites.nowMs = nowMs;
        alive = scene.frame(nowMs, box, out, room);
      }
      return alive;
    },
    shown: () => scene.shown?.() as VesselFacts,
  };
}
const drop = (amount: number, mass = 5): Record<string, unknown> => ({
  kind: "command",
  gameId: "v",
  by: "op",
  viewer: null,
  command: { do: "drop", amount, what: "pieces", size: 0, mass } satisfies Command,
});
const order = (command: Command): Record<string, unknown> => ({ kind: "command", gameId: "v", by: "op", viewer: null, command });

describe("the vessel's scene", () => {
  test("shows what fell, once, though an effect and a view both tell of it; then it rests and asks for no more frames", () => {
    const { run, tell, shown, stamped } = page();
    run(0.2);
    tell(drop(12));
    tell(drop(3));
    expect(run(1)).toBe(true);
    expect(run(9)).toBe(false);
    expect(shown()).toMatchObject({ pieces: 15, moves: false, crashes: 0 });
    expect(stamped[stamped.length - 1]).toBe(15);
  });
  test("that is opened later shows what lies there already, and what was missed while it was away", () => {
    const { run, tell, shown } = page();
    tell(drop(20));
    run(0.5);
    expect(shown().pieces).toBe(20);
    tell(drop(5), false);
    run(6);
    expect(shown().pieces).toBe(25);
    tell(order({ do: "empty" }), false);
    run(6);
    expect(shown().pieces).toBe(0);
  });
  test("tips over and stands up again as it is told, and holds in the end what the rules say it holds", () => {
    const { run, tell, shown } = page({ vessel: { ...brimfulDefaults.vessel, stand: "free", spill: 50, upAfterMs: 0 } });
    run(0.2);
    tell(drop(20));
    run(4);
    tell(order({ do: "tip", way: "right" }));
    run(4);
    expect(shown().angle).toBeGreaterThan(0.8);
    tell(order({ do: "upright" }));
    run(8);
    expect(shown().angle).toBe(0);
    expect(shown().pieces).toBe(10);
  });
  test("a vessel at the left of the picture falls into it, not out of it", () => {
    const { run, tell, shown } = page({ vessel: { ...brimfulDefaults.vessel, stand: "free", upAfterMs: 0 } });
    run(0.2);
    tell(order({ do: "tip", way: "left" }));
    run(3);
    expect(shown().angle).toBeGreaterThan(0.8);
  });
  test("brims, and begins anew with what was over", () => {
    const { run, tell, shown } = page({ size: 250, brim: { at: 50, then: "empties", effects: [] } });
    run(0.2);
    tell(drop(14));
    run(14);
    const left = shown().pieces;
    expect(left).toBeGreaterThan(0);
    expect(left).toBeLessThan(14);
    expect(shown().full).toBeLessThan(50);
  });
  test("where the page can't keep up fewer move, and none is lost: they become part of the pile", () => {
    const { run, tell, shown } = page({ cap: 60 });
    run(0.2);
    tell(drop(60));
    run(8);
    expect(shown().bed).toBe(0);
    run(4, 0.35);
    tell(drop(1));
    run(6, 0.35);
    expect(shown().live).toBeLessThanOrEqual(22);
    expect(shown().bed + shown().pieces).toBe(61);
  });
  test("for who asked for less motion it lies there without any, and no worker is begun", () => {
    const { run, tell, shown, desks } = page({}, true);
    run(0.1);
    tell(drop(12));
    expect(run(0.2)).toBe(false);
    expect(shown()).toMatchObject({ pieces: 12, given: true });
    expect(desks.length).toBe(0);
  });
  test("a worker that dies is begun again, and told what lies there", () => {
    const { run, tell, shown, desks } = page();
    run(0.2);
    tell(drop(12));
    run(4);
    desks[0]!.die();
    run(2);
    expect(desks.length).toBe(2);
    expect(shown()).toMatchObject({ pieces: 12, crashes: 1, given: false });
  });
  test("until the physics is there the pile is drawn as it would lie, and then as it lies", () => {
    const { run, tell, shown, desks } = page();
    tell(drop(14), false);
    // The worker is begun with the first frame; this one takes its time.
    const silent = (): void => desks.forEach((d) => void (d.mute = true));
    run(1 / 60);
    silent();
    expect(shown().pieces).toBe(14);
    expect(shown().given).toBe(false);
    desks[0]!.mute = false;
    run(8);
    expect(shown()).toMatchObject({ pieces: 14, moves: false });
  });
  test("where no worker stays alive the pile is drawn as it would lie, and follows what falls", () => {
    const { run, tell, shown, desks } = page();
    tell(drop(14), false);
    for (let i = 0; i < 3; i += 1) {
      run(0.1);
      desks[desks.length - 1]!.die();
    }
    run(0.2);
    expect(shown()).toMatchObject({ given: true, pieces: 14 });
    tell(drop(3));
    run(0.2);
    expect(shown().pieces).toBe(17);
  });
  test("names pass by when so set, and go; an operator's own hand has none", () => {
    const { run, tell, shown } = page({ passing: { ...brimfulDefaults.passing, on: true, ms: 1_000 } });
    run(0.1);
    tell({ kind: "follow", viewer: ada });
    tell(drop(2));
    expect(shown().texts).toEqual(["Ada"]);
    run(1.2);
    expect(shown().texts).toEqual([]);
  });
  test("what it is told that is nothing it knows changes nothing", () => {
    const { scene, run, shown } = page();
    run(0.1);
    scene.effect({ do: "explode" }, 10);
    scene.effect(null, 10);
    scene.setView({ on: "maybe" });
    run(0.2);
    expect(shown().pieces).toBe(0);
  });
});
