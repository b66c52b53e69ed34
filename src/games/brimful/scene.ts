import { brimfulEffectSchema, type BrimfulView, brimfulViewSchema } from "../../core/games/brimful/settings";
import { mix32 } from "../../core/kernel/chance";
import { leastLetter, OwnSurface } from "../../overlay/own-surface";
import { PileClient } from "../../overlay/physics/client";
import { rowLength } from "../../overlay/physics/pile-world";
import { lieAngleOf } from "../../overlay/physics/vessel-motion";
import { restingPlaces } from "../../overlay/physics/rest";
import type { Box, Scene, SceneKit } from "../../overlay/scene";
import { SpriteBuffer } from "../../overlay/sprite-buffer";
import { beads, faceKey } from "../../overlay/drawn-sprites";
import type { SpriteLayer } from "../../overlay/sprite-layer";
import { type Geometry, geometryOf, groundOf } from "./geometry";
import { type Passing, paintPassing, withPassing } from "./passing";
import { type Ref, Refs } from "./refs";
import { paintBack, paintFront, paintLines } from "./vessels";

/** Pieces may fly so far beyond their place, in shares of it. */
const beyond = 0.4;
const pulseMs = 420;

/**
 * A vessel that fills. What lies in it, the engine says; how it falls there, the physics; so a page that was reloaded, or
 * away, shows the same pile. Drawn in three: the vessel's back with what lies still, what moves, the vessel's front.
 */
export function brimfulScene({ sprites, still, preview = false, paint, layer: makeLayer, desk }: SceneKit): Scene {
  const back = new OwnSurface(paint);
  let layer: SpriteLayer | null = null;
  const front = new OwnSurface(paint);
  const words = new OwnSurface(paint);
  let view: BrimfulView | null = null;
  let geometry: Geometry | null = null;
  const refs = new Refs();
  let told = "";
  let shownFull = 0;
  let pulseFrom = -Infinity;
  let texts: readonly Passing[] = [];
  let paintedBack = "";
  let paintedFront = "";
  let hushed = false;
  let turnedMs = -Infinity;
  let lain = "";
  let outlined = false;
  let shownX = 0;
  let shownWidth = 0;
  let order = 0;
  let room = 1;
  const flat = new SpriteBuffer();
  const pile = new PileClient(
    desk,
    () => tellAll(),
    () => undefined,
  );
  if (still) pile.given = true;

  const capNow = (): number => Math.max(20, Math.round((view?.cap ?? 300) * room));
  /** Everything that lies there, to one who knows nothing yet. */
  function tellAll(): void {
    if (view === null || geometry === null) return;
    pile.restart();
    const { vessel, gravity, bounce, lies } = view;
    pile.tell({ t: "begin", ground: groundOf(geometry, gravity), cap: capNow(), slides: vessel.free });
    const all = refs.wanted(view.pile, bounce);
    pile.tell({ t: "settle", drops: all, lies: lies === null ? null : wayOnPicture(lies) });
    pile.tell({ t: "want", all });
  }
  const groundKey = (g: Geometry, v: BrimfulView): string =>
    JSON.stringify([
      v.vessel.shape,
      v.vessel.points,
      g.unit.toFixed(3),
      g.footX.toFixed(1),
      g.footY.toFixed(1),
      g.width.toFixed(0),
      v.bounce,
    ]);

  /** It falls over within the picture, where it would fall out of it. */
  const wayOnPicture = (way: -1 | 1): -1 | 1 => {
    if (geometry === null) return way;
    const reach = 12 * geometry.unit;
    const at = shownX + geometry.footX;
    const leaves = (to: -1 | 1): boolean => (to < 0 ? at - reach < 0 : at + reach > shownWidth);
    return leaves(way) && !leaves(way < 0 ? 1 : -1) ? (way < 0 ? 1 : -1) : way;
  };
  const keyOf = (ref: Ref, index: number): string => {
    if (ref.look.face) return faceKey(ref.by.slice(0, 60));
    const { pictures } = ref.look;
    const all = pictures.length > 0 ? pictures : beads;
    const n = pictures.length > 0 ? index : mix32(ref.seed, index);
    return all[n % all.length] ?? "bead:0";
  };
  /** Its picture, as large as it is, into a list to be drawn; whether it is one that moves by itself. */
  function stamp(out: SpriteBuffer, rows: Float32Array, at: number, unit: number, x0: number, y0: number, nowMs: number): boolean {
    const ref = refs.of(rows[at] ?? 0);
    if (ref === undefined) return false;
    const index = rows[at + 1] ?? 0;
    const id = sprites.id(keyOf(ref, index));
    const sprite = sprites.get(id);
    const side = (ref.look.size / 100) * unit;
    const wide = sprite === undefined ? 1 : sprite.frameWidth / sprite.frameHeight;
    const angle = rows[at + 4] ?? 0;
    const squash = rows[at + 5] ?? 0;
    // Flattened by the ground, however it has turned.
    const upright = Math.abs(Math.cos(angle)) > 0.7 ? 1 : -1;
    const w = (wide >= 1 ? side : side * wide) * (1 + squash * upright);
    const h = (wide >= 1 ? side / wide : side) * (1 - squash * upright);
    const frames = sprite?.frames ?? 1;
    const frame = frames > 1 && (sprite?.frameMs ?? 0) > 0 ? Math.floor(nowMs / (sprite?.frameMs ?? 100) + index * 3) % frames : 0;
    out.push(x0 + (rows[at + 2] ?? 0) * unit, y0 + (rows[at + 3] ?? 0) * unit, w, h, angle, rows[at + 6] ?? 1, id, frame);
    return frames > 1;
  }

  return {
    get live() {
      return view?.on === true || (view?.pile.batches.length ?? 0) > 0 ? pile.count + pile.bed.length / rowLength : 0;
    },
    shown: () =>
      view === null
        ? null
        : {
            full: view.full,
            pieces: pile.count,
            bed: pile.bed.length / rowLength,
            live: pile.live,
            angle: pile.stands.angle,
            moves: pile.moves,
            crashes: pile.crashes,
            given: pile.given,
            stepMs: pile.stepMs,
            texts: texts.map((t) => t.text),
            kinds: kinds(),
            rows: [...pile.rows.slice(0, pile.count * rowLength)].map((n) => Math.round(n * 100) / 100),
          },
    setView: (given) => {
      const parsed = brimfulViewSchema.safeParse(given);
      if (!parsed.success) return;
      const before = view;
      // Outlines are for who sets it up.
      view = { ...parsed.data, looks: { ...parsed.data.looks, outlines: preview && parsed.data.looks.outlines } };
      paintedFront = "";
      if (before === null) shownFull = view.full;
      else if (before.full !== view.full) pulseFrom = sprites.nowMs;
      if (geometry === null || told === "") return;
      pile.tell({ t: "set", cap: capNow(), gravity: 32 * (view.gravity / 100), slides: view.vessel.free });
      pile.tell({ t: "want", all: refs.wanted(view.pile, view.bounce) });
      // Only an effect that was missed leaves it standing otherwise than it does.
      if (before !== null && before.lies !== view.lies && sprites.nowMs - turnedMs > 4_000) tellAll();
    },
    effect: (given, nowMs) => {
      const effect = brimfulEffectSchema.safeParse(given);
      if (!effect.success || view === null) return;
      const e = effect.data;
      const { bounce, passing } = view;
      switch (e.do) {
        case "drop": {
          const drops = e.batches.map((b) => {
            const { ref, from } = refs.add(b, bounce);
            return { ref: ref.ref, count: b.count, seed: ref.seed, piece: ref.piece, from };
          });
          if (geometry !== null && told !== "") pile.tell({ t: "drop", drops });
          if (e.text !== "") texts = withPassing(texts, e.text, passing.ms, nowMs);
          return;
        }
        case "brim":
          pulseFrom = nowMs;
          if (e.empties) refs.newFilling();
          return pile.tell({ t: "burst", seed: e.seed, empties: e.empties });
        case "empty":
          refs.newFilling();
          return pile.tell({ t: "empty" });
        case "shake":
          return pile.tell({ t: "shake", seed: e.seed, strength: still ? 0 : e.strength });
        case "tip":
          turnedMs = nowMs;
          return pile.tell({ t: "tip", way: wayOnPicture(e.way) });
        case "upright":
          turnedMs = nowMs;
          return pile.tell({ t: "upright" });
      }
    },
    rehearse: () => undefined,
    clear: (_, atOnce) => {
      texts = [];
      if (!atOnce) return;
      hushed = true;
      paintedBack = paintedFront = "";
      back.empty();
      front.empty();
      words.empty();
      layer?.clear();
    },
    stack: (n) => {
      order = n;
      back.stack(n);
      layer?.stack(n);
      front.stack(n);
      words.stack(n);
    },
    free: () => {
      pile.free();
      back.free();
      layer?.free();
      front.free();
      words.free();
    },
    frame: (nowMs, box, _, roomNow) => {
      if (view === null) return false;
      if (hushed) {
        hushed = false;
        paintedBack = paintedFront = "";
      }
      const behind = back.fit(box);
      if (layer === null) {
        layer = makeLayer();
        layer.stack(order);
      }
      const ahead = front.fit(box);
      const g = geometryOf(view, box);
      geometry = g;
      shownX = box.x;
      shownWidth = box.stageWidth ?? box.width;
      const key = groundKey(g, view);
      if (key !== told) {
        told = key;
        tellAll();
      }
      if (Math.abs(roomNow - room) > 0.01) {
        room = roomNow;
        pile.tell({ t: "set", cap: capNow(), gravity: 32 * (view.gravity / 100), slides: view.vessel.free });
      }
      pile.frame(nowMs);
      if (pile.given) lieStill(view, g);
      const share = 1 - Math.exp(-Math.min(1, 0.12));
      shownFull = Math.abs(view.full - shownFull) < 0.5 || still ? view.full : shownFull + (view.full - shownFull) * share;
      const away = !view.on && view.pile.batches.length + view.pile.older.length === 0;
      const animated = away ? false : drawPieces(box, g, nowMs);
      drawVessel(view, g, behind, ahead, nowMs, away, box);
      const passes = drawWords(view, g, box, nowMs);
      return pile.moves || passes || animated || shownFull !== view.full || nowMs - pulseFrom < pulseMs;
    },
  };

  /** How many there are of each making, for tests. */
  function kinds(): readonly Readonly<{ size: number; mass: number; body: string; face: boolean; count: number }>[] {
    const counts = new Map<Ref["look"], number>();
    for (const list of [pile.rows.subarray(0, pile.count * rowLength), pile.bed])
      for (let at = 0; at < list.length; at += rowLength) {
        const look = refs.of(list[at] ?? 0)?.look;
        if (look !== undefined) counts.set(look, (counts.get(look) ?? 0) + 1);
      }
    const sums = new Map<number, { size: number; mass: number; body: string; face: boolean; count: number }>();
    for (const [{ n, size, mass, body, face }, count] of counts) {
      const before = sums.get(n);
      sums.set(n, { size, mass, body, face, count: count + (before?.count ?? 0) });
    }
    return [...sums.values()];
  }

  /** Without any motion: as it would lie. */
  function lieStill(v: BrimfulView, g: Geometry): void {
    const all = refs
      .wanted(v.pile, v.bounce)
      .flatMap(({ ref, count, piece }) =>
        Array.from({ length: count }, (_, index) => ({ ref, index, size: Math.max(piece.width, piece.height) })),
      );
    const mark = `${told} ${all.length} ${all[0]?.ref ?? 0} ${all[all.length - 1]?.ref ?? 0}`;
    if (mark === lain) return;
    lain = mark;
    const shown = all.slice(-1_200);
    pile.rows = restingPlaces(g.wall, shown, rowLength);
    pile.count = v.lies === null ? shown.length : 0;
  }

  function drawPieces(box: Box, g: Geometry, nowMs: number): boolean {
    if (layer === null) return false;
    const wide = box.width * beyond;
    const stageWidth = box.stageWidth ?? box.width;
    const x = Math.max(0, box.x - wide);
    const y = Math.max(0, box.y - box.height * beyond);
    const area: Box = {
      ...box,
      x,
      width: Math.min(stageWidth, box.x + box.width + wide) - x,
      y,
      height: Math.min(stageWidth * 0.5625, box.y + box.height) - y,
    };
    layer.fit(area, stageWidth);
    const { scale } = layer;
    flat.count = 0;
    let animated = false;
    const unit = g.unit * scale;
    const x0 = (g.footX + box.x - area.x) * scale;
    const y0 = (g.footY + box.y - area.y) * scale;
    for (let i = 0; i < pile.count; i += 1) if (stamp(flat, pile.rows, i * rowLength, unit, x0, y0, nowMs)) animated = true;
    layer.coarse = room < 1;
    layer.draw(flat);
    return animated;
  }

  function drawVessel(
    v: BrimfulView,
    g: Geometry,
    behind: ReturnType<OwnSurface["fit"]>,
    ahead: ReturnType<OwnSurface["fit"]>,
    nowMs: number,
    away: boolean,
    box: Box,
  ): void {
    const { x, y, angle } = pile.given && v.lies !== null ? { x: 0, y: 0, angle: wayOnPicture(v.lies) * lieAngleOf(g.wall) } : pile.stands;
    const css = `translate(${(x * g.unit).toFixed(2)}px,${(y * g.unit).toFixed(2)}px) rotate(${angle.toFixed(4)}rad)`;
    const stage = box.stageWidth ?? box.width;
    for (const s of [behind, ahead]) {
      const canvas = s.context?.canvas;
      if (canvas === undefined) continue;
      const pxPer = canvas.clientWidth / Math.max(1, box.width);
      canvas.style.transformOrigin = `${g.footX * pxPer}px ${g.footY * pxPer}px`;
      canvas.style.transform =
        x === 0 && y === 0 && angle === 0 ? "" : css.replace(/(-?[\d.]+)px/g, (_, n: string) => `${(Number(n) * pxPer).toFixed(2)}px`);
    }
    const looksKey = `${told} ${JSON.stringify(v.looks)} ${behind.width}x${behind.height} ${stage} ${away}`;
    const bedKey = `${looksKey} ${pile.bedChanges} ${bedReady()}`;
    if (behind.context !== null && bedKey !== paintedBack) {
      paintedBack = bedKey;
      if (away) back.empty();
      else {
        paintBack(behind.context, v, g, behind.scale);
        drawBed(behind.context, g, behind.scale, nowMs);
      }
    }
    const pulse = still ? 1 : 1 + 0.14 * Math.sin(Math.min(1, (nowMs - pulseFrom) / pulseMs) * Math.PI);
    const frontKey = `${looksKey} ${Math.round(shownFull)} ${pulse.toFixed(2)} ${v.goal?.reached ?? ""} ${v.lies ?? ""} ${box.letters ?? 0}`;
    if (ahead.context !== null && frontKey !== paintedFront) {
      paintedFront = frontKey;
      if (away) front.empty();
      else {
        paintFront(ahead.context, v, g, ahead.scale);
        paintLines(ahead.context, v, g, ahead.scale, shownFull, pulse, leastLetter(box, ahead.scale));
      }
    }
  }
  /** Pictures that were not there yet when the bed was painted. */
  function bedReady(): number {
    let ready = 0;
    for (let i = 0; i < pile.bed.length; i += rowLength) {
      const ref = refs.of(pile.bed[i] ?? 0);
      if (ref !== undefined && sprites.get(sprites.id(keyOf(ref, pile.bed[i + 1] ?? 0)))?.picture !== null) ready += 1;
    }
    return ready;
  }
  function drawBed(context: CanvasRenderingContext2D, g: Geometry, scale: number, nowMs: number): void {
    const list = new SpriteBuffer();
    for (let at = 0; at < pile.bed.length; at += rowLength) stamp(list, pile.bed, at, 1, 0, 0, nowMs);
    context.setTransform(scale * g.unit, 0, 0, scale * g.unit, g.footX * scale, g.footY * scale);
    const d = list.data;
    for (let i = 0; i < list.count * 8; i += 8) {
      const sprite = sprites.get(d[i + 6] ?? 0);
      if (sprite?.picture === null || sprite === undefined) continue;
      context.save();
      context.translate(d[i] ?? 0, d[i + 1] ?? 0);
      context.rotate(d[i + 4] ?? 0);
      const [w, h] = [d[i + 2] ?? 0, d[i + 3] ?? 0];
      const frame = d[i + 7] ?? 0;
      const { frameWidth: fw, frameHeight: fh, columns } = sprite;
      context.drawImage(sprite.picture, (frame % columns) * fw, Math.floor(frame / columns) * fh, fw, fh, -w / 2, -h / 2, w, h);
      context.restore();
    }
  }
  function drawWords(v: BrimfulView, g: Geometry, box: Box, nowMs: number): boolean {
    const before = texts.length;
    texts = texts.filter((t) => nowMs - t.atMs < t.ms);
    if (texts.length === 0 && !v.looks.outlines) {
      if (before > 0 || outlined) words.empty();
      outlined = false;
      return false;
    }
    const { context, scale } = words.fit(box);
    if (context === null) return true;
    const letters = Math.max(leastLetter(box, scale), (box.stageWidth ?? box.width) * 0.5625 * scale * (v.passing.size / 100));
    paintPassing(context, texts, {
      nowMs,
      x: g.footX * scale,
      y: (g.footY + (g.outline.rimY - 1) * 10 * g.unit) * scale - letters,
      width: box.width * scale * 0.96,
      letters,
      font: v.passing.font,
      still,
    });
    outlined = v.looks.outlines;
    if (outlined) outlineBodies(context, g, scale);
    return texts.length > 0;
  }
  /** The solid part of each piece: what the others feel of it. */
  function outlineBodies(context: CanvasRenderingContext2D, g: Geometry, scale: number): void {
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.lineWidth = Math.max(1, scale * 1.5);
    context.strokeStyle = "#FFF8E8";
    for (let at = 0; at < pile.count * rowLength; at += rowLength) {
      const ref = refs.of(pile.rows[at] ?? 0);
      if (ref === undefined) continue;
      const u = g.unit * scale;
      const { width, height, form } = ref.piece;
      context.save();
      context.translate(g.footX * scale + (pile.rows[at + 2] ?? 0) * u, g.footY * scale + (pile.rows[at + 3] ?? 0) * u);
      context.rotate(pile.rows[at + 4] ?? 0);
      context.beginPath();
      const round = form === "box" ? 0 : (Math.min(width, height) * u) / 2;
      context.roundRect((-width / 2) * u, (-height / 2) * u, width * u, height * u, round);
      context.stroke();
      context.restore();
    }
  }
}
