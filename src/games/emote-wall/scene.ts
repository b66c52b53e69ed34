import { mix32, unitAt } from "../../core/kernel/chance";
import { type Motion, wallEffectSchema, type WallView, wallViewSchema } from "../../core/games/emote-wall/settings";
import { motions } from "../../core/games/emote-wall/limits";
import type { SpriteBuffer } from "../../overlay/sprite-buffer";
import type { Box, Scene, SceneKit } from "../../overlay/scene";
import { type Moves, moves, type Pose } from "./motion";
import { WallPile } from "./pile";

const numbersEach = 8;
/** Sizes come in this many steps, so that the bitmaps of one size serve many emotes. */
const sizeSteps = 5;
const retireS = 0.35;
/** Alive, retiring and not yet due together; a storm of flocks can't fill the memory. */
const mostHeld = 6_000;
const motionNames = Object.keys(moves) as Moves[];

/**
 * Draws the wall. Emotes live in flat arrays in the order they came, so the oldest are first; each frame
 * works out where every one of them is from its age, and closes the gaps of those that have gone.
 */
export function wallScene({ sprites, still, desk, frames }: SceneKit): Scene {
  let view: WallView | null = null;
  let held = 0;
  let live = 0;
  const bornMs = new Float64Array(mostHeld);
  const lifeMs = new Float64Array(mostHeld);
  /** When it began to leave before its time; 0 while it stays. */
  const leftMs = new Float64Array(mostHeld);
  const sprite = new Int32Array(mostHeld);
  const motion = new Uint8Array(mostHeld);
  const sizes = new Float32Array(mostHeld);
  /** The signal each came of. */
  const origin = new Float64Array(mostHeld);
  /** What each wears: a place in the list of what was ever worn together. */
  const worn = new Uint16Array(mostHeld);
  const outfits: (readonly string[])[] = [[]];
  let pile: WallPile | null = null;
  const numbers = new Float32Array(mostHeld * numbersEach);
  const pose: Pose = { x: 0, y: 0, angle: 0, scaleX: 1, scaleY: 1, alpha: 1 };
  const life = { lifeS: 1, size: 0.1, aspect: 1.78 };
  let base = 0;
  let lastRoom = 1;
  let dressed: ReadonlyMap<string, Readonly<{ id: number; size: number; x: number; y: number }>> = new Map();
  const number = (k: number): number => numbers[base + (k & 7)] ?? 0;

  const move = (from: number, to: number): void => {
    bornMs[to] = bornMs[from] ?? 0;
    lifeMs[to] = lifeMs[from] ?? 0;
    leftMs[to] = leftMs[from] ?? 0;
    sprite[to] = sprite[from] ?? 0;
    motion[to] = motion[from] ?? 0;
    sizes[to] = sizes[from] ?? 0;
    origin[to] = origin[from] ?? 0;
    worn[to] = worn[from] ?? 0;
    numbers.copyWithin(to * numbersEach, from * numbersEach, (from + 1) * numbersEach);
  };

  const spawn = (
    keys: readonly string[],
    count: number,
    seed: number,
    overMs: number,
    way: Motion,
    of: number,
    trims: readonly string[],
    nowMs: number,
  ): void => {
    if (view === null) return;
    const ids = keys.map((key) => sprites.id(key));
    const outfit = outfitOf(trims);
    if (way === "pile" && !still) {
      const side = view.sizeShare / view.area.height;
      pile ??= new WallPile(desk, () => Math.max(1, Math.floor((view?.cap ?? 400) * lastRoom)));
      // The same few sizes as elsewhere, by turns.
      for (let step = 0; step < sizeSteps; step += 1) {
        const some = Math.floor(count / sizeSteps) + (step < count % sizeSteps ? 1 : 0);
        const own = ids.filter((_, i) => i % sizeSteps === step % Math.min(sizeSteps, ids.length));
        const size = side * (1 + view.sizeSpread * ((step / (sizeSteps - 1)) * 2 - 1) * (count < sizeSteps ? 0 : 1));
        if (some > 0) pile.spawn(own.length > 0 ? own : ids, some, mix32(seed, step), size, of, outfit, nowMs + view.lifeMs);
      }
      return;
    }
    const room = Math.min(count, mostHeld);
    if (held + room > mostHeld) {
      const gone = held + room - mostHeld;
      for (let i = gone; i < held; i += 1) move(i, i - gone);
      held -= gone;
    }
    const name: Moves = still || way === "pile" ? "still" : way;
    for (let i = 0; i < room; i += 1) {
      const own = mix32(seed, i);
      const at = held;
      const jitter = unitAt(own, 20);
      bornMs[at] = nowMs + (overMs * (i + jitter * 0.9)) / room;
      lifeMs[at] = view.lifeMs * (0.92 + 0.16 * unitAt(own, 21));
      leftMs[at] = 0;
      origin[at] = of;
      sprite[at] = ids[i % ids.length] ?? 0;
      worn[at] = outfit;
      motion[at] = motionNames.indexOf(name);
      const step = Math.floor(unitAt(own, 22) * sizeSteps) / (sizeSteps - 1);
      sizes[at] = view.sizeShare * (1 + view.sizeSpread * (step * 2 - 1));
      for (let k = 0; k < numbersEach; k += 1) numbers[at * numbersEach + k] = unitAt(own, k);
      held += 1;
    }
  };

  return {
    get live() {
      return live + (pile?.live ?? 0);
    },
    shown: () => ({ piled: pile?.live ?? 0, outfits: outfits.length - 1 }),
    free: () => pile?.free(),
    setView: (given) => {
      const next = wallViewSchema.parse(given);
      if (view !== null && view.on && !next.on) {
        held = 0;
        pile?.clear(false);
      }
      view = next;
      dressed = new Map(next.trims.map((t) => [t.id, { ...t, id: t.picture === "" ? -1 : sprites.id(t.picture) }]));
    },
    effect: (given, nowMs) => {
      const effect = wallEffectSchema.safeParse(given);
      if (!effect.success || view === null || !view.on) return;
      switch (effect.data.do) {
        case "spawn": {
          const { keys, count, seed, overMs, motion: way, of, trims } = effect.data;
          spawn(keys, count, seed, overMs, way ?? view.motion, of, trims, nowMs);
          return;
        }
        case "clear":
          pile?.clear(false);
          for (let i = 0; i < held; i += 1) if ((leftMs[i] ?? 0) === 0) leftMs[i] = nowMs;
          // What is not born yet never will be.
          held = compact((i) => (bornMs[i] ?? 0) <= nowMs);
          return;
        case "remove": {
          const { of } = effect.data;
          pile?.remove(of);
          held = compact((i) => origin[i] !== of || (bornMs[i] ?? 0) <= nowMs);
          for (let i = 0; i < held; i += 1) if (origin[i] === of && (leftMs[i] ?? 0) === 0) leftMs[i] = nowMs;
          return;
        }
      }
    },
    rehearse: (box, out) => {
      if (view === null || held > 0) return;
      const [first = ""] = sprites.known();
      for (const way of motions.filter((m) => m !== "pile")) {
        const told = wallEffectSchema.parse({ do: "spawn", keys: [first], count: 300, seed: 1, overMs: 0, motion: way });
        if (told.do === "spawn") spawn(told.keys, told.count, told.seed, told.overMs, way, 0, [], 0);
        for (let i = 1; i < 24; i += 1) {
          out.count = 0;
          held = compact((n) => (bornMs[n] ?? 0) <= i * 90);
          for (let n = 0; n < held; n += 1) put(n, i * 90, box, out, view);
        }
        held = 0;
      }
      live = 0;
    },
    clear: (nowMs, atOnce) => {
      pile?.clear(atOnce);
      if (atOnce) held = 0;
      else for (let i = 0; i < held; i += 1) if ((leftMs[i] ?? 0) === 0) leftMs[i] = nowMs;
    },
    frame: (nowMs, box, out, room) => {
      lastRoom = room;
      const lies = view === null || pile === null ? false : heaps(pile, nowMs, box, out, view);
      if (view === null || held === 0) {
        live = 0;
        return lies;
      }
      retire(nowMs, Math.max(1, Math.floor(view.cap * room)));
      held = compact((i) => {
        const age = nowMs - (bornMs[i] ?? 0);
        const left = leftMs[i] ?? 0;
        return age < (lifeMs[i] ?? 0) && (left === 0 || nowMs - left < retireS * 1000);
      });
      live = 0;
      for (let i = 0; i < held; i += 1) if (nowMs >= (bornMs[i] ?? 0)) put(i, nowMs, box, out, view);
      return held > 0 || lies;
    },
  };

  /** The place of what is worn together in the list of it. */
  function outfitOf(trims: readonly string[]): number {
    if (trims.length === 0) return 0;
    const found = outfits.findIndex((o) => o.length === trims.length && o.every((id, i) => id === trims[i]));
    if (found > 0) return found;
    // There are few ways to be dressed in an evening; one more than can be told apart goes as it is.
    return outfits.length >= 1_000 ? 0 : outfits.push(trims) - 1;
  }
  /** What an emote wears, over it: turned and fading with it. */
  function dress(outfit: number, x: number, y: number, side: number, angle: number, alpha: number, out: SpriteBuffer): void {
    for (const id of outfits[outfit] ?? []) {
      const trim = dressed.get(id);
      if (trim === undefined || trim.id < 0) continue;
      const picture = sprites.get(trim.id);
      if (picture === undefined || picture.picture === null) continue;
      const [dx, dy] = [(trim.x / 100) * side, (trim.y / 100) * side];
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      const tall = (side * trim.size) / 100;
      const ratio = Math.sqrt(picture.frameWidth / picture.frameHeight);
      out.push(x + dx * c - dy * s, y + dx * s + dy * c, tall * ratio, tall / ratio, angle, alpha, trim.id, 0);
    }
  }
  function heaps(own: WallPile, nowMs: number, box: Box, out: SpriteBuffer, look: WallView): boolean {
    const area: Box = {
      x: box.x + look.area.x * box.width,
      y: box.y + look.area.y * box.height,
      width: look.area.width * box.width,
      height: look.area.height * box.height,
    };
    return own.frame(nowMs, area, look.onFrames ? frames() : [], (id, x, y, side, angle, squash, alpha, outfit, index) => {
      const picture = sprites.get(id);
      if (picture === undefined || picture.picture === null) return;
      const ratio = Math.sqrt(picture.frameWidth / picture.frameHeight);
      const upright = Math.abs(Math.cos(angle)) > 0.7 ? 1 : -1;
      const frame = picture.frames > 1 && picture.frameMs > 0 ? Math.floor(nowMs / picture.frameMs + index) % picture.frames : 0;
      out.push(
        x,
        y,
        side * ratio * (1 + squash * upright),
        (side / ratio) * (1 - squash * upright),
        angle,
        alpha * look.opacity,
        id,
        frame,
      );
      if (outfit > 0) dress(outfit, x, y, side, angle, alpha * look.opacity, out);
    });
  }

  function compact(keep: (i: number) => boolean): number {
    let to = 0;
    for (let i = 0; i < held; i += 1) {
      if (!keep(i)) continue;
      if (to !== i) move(i, to);
      to += 1;
    }
    return to;
  }

  /** Over the cap the oldest begin to leave. */
  function retire(nowMs: number, cap: number): void {
    let staying = 0;
    for (let i = 0; i < held; i += 1) if ((leftMs[i] ?? 0) === 0 && (bornMs[i] ?? 0) <= nowMs) staying += 1;
    for (let i = 0; i < held && staying > cap; i += 1) {
      if ((leftMs[i] ?? 0) !== 0 || (bornMs[i] ?? 0) > nowMs) continue;
      leftMs[i] = nowMs;
      staying -= 1;
    }
  }

  function put(i: number, nowMs: number, box: Box, out: SpriteBuffer, look: WallView): void {
    live += 1;
    const picture = sprites.get(sprite[i] ?? 0);
    if (picture === undefined || picture.picture === null) return;
    const areaHeight = look.area.height * box.height;
    const areaWidth = look.area.width * box.width;
    const ageMs = nowMs - (bornMs[i] ?? 0);
    base = i * numbersEach;
    // Sizes are shares of the whole placement, places are shares of the area.
    life.size = (sizes[i] ?? 0.1) * (box.height / areaHeight);
    life.lifeS = (lifeMs[i] ?? 1000) / 1000;
    life.aspect = areaWidth / areaHeight;
    moves[motionNames[motion[i] ?? 0] ?? "drift"](ageMs / 1000, life, number, pose);
    const left = leftMs[i] ?? 0;
    const going = left === 0 ? 1 : Math.max(0, 1 - (nowMs - left) / (retireS * 1000));
    const side = (sizes[i] ?? 0.1) * box.height;
    const ratio = Math.sqrt(picture.frameWidth / picture.frameHeight);
    const frame =
      picture.frames > 1 && picture.frameMs > 0 ? Math.floor(ageMs / picture.frameMs + number(6) * picture.frames) % picture.frames : 0;
    out.push(
      box.x + look.area.x * box.width + pose.x * areaHeight,
      box.y + look.area.y * box.height + pose.y * areaHeight,
      side * ratio * Math.max(0, pose.scaleX) * (0.6 + 0.4 * going),
      (side / ratio) * Math.max(0, pose.scaleY) * (0.6 + 0.4 * going),
      pose.angle,
      pose.alpha * going * look.opacity,
      picture.id,
      frame,
    );
    if ((worn[i] ?? 0) > 0)
      dress(
        worn[i] ?? 0,
        box.x + look.area.x * box.width + pose.x * areaHeight,
        box.y + look.area.y * box.height + pose.y * areaHeight,
        side * Math.max(0, Math.min(pose.scaleX, pose.scaleY)) * (0.6 + 0.4 * going),
        pose.angle,
        pose.alpha * going * look.opacity,
        out,
      );
  }
}
