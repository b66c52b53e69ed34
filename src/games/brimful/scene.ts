import { brimfulEffectSchema, type BrimfulView, brimfulViewSchema } from "../../core/games/brimful/settings";
import { leastLetter, OwnSurface } from "../../overlay/own-surface";
import { PileClient } from "../../overlay/physics/client";
import { rowLength } from "../../overlay/physics/pile-parts";
import { lieAngleOf } from "../../overlay/physics/vessel-motion";
import { restingPlaces } from "../../overlay/physics/rest";
import type { Box, Scene, SceneKit } from "../../overlay/scene";
import { SpriteBuffer } from "../../overlay/sprite-buffer";
import type { SpriteLayer } from "../../overlay/sprite-layer";
import { flownOver, type Geometry, geometryOf, gravityOf, groundKey, groundOf, turnCanvas, wayWithin } from "./geometry";
import { type Passing, paintPassing, withPassing } from "./passing";
import { Refs } from "./refs";
import { paintLines } from "./lines";
import { bodyOutlines, kindsOf, type On, paintBed, stamp, type VesselFacts } from "./pieces";
import { paintBack, paintFront } from "./vessels";

const pulseMs = 420;
/** The number that is shown follows what is so, by this much of the rest in so many milliseconds. */
const followMs = 139;
const mostFollowedMs = 50;

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
  let looksMark = "";
  let geometry: Geometry | null = null;
  let placed: Readonly<{ of: BrimfulView; width: number; height: number; letters: number }> | null = null;
  const refs = new Refs();
  let told = "";
  let shownFull = 0;
  let lastMs = 0;
  let pulseFrom = -Infinity;
  let texts: readonly Passing[] = [];
  let paintedBack = "";
  let paintedFront = "";
  let hushed = false;
  let turnedMs = -Infinity;
  let lain: Readonly<{ of: BrimfulView; on: Geometry }> | null = null;
  let outlined = false;
  let shownX = 0;
  let shownWidth = 0;
  let order = 0;
  let room = 1;
  const flat = new SpriteBuffer();
  const pile = new PileClient(desk, () => tellAll());
  if (still) pile.given = true;

  const capNow = (): number => Math.max(20, Math.round((view?.cap ?? 300) * room));
  /** Everything that lies there, to one who knows nothing yet. */
  function tellAll(): void {
    if (view === null || geometry === null) return;
    pile.restart();
    lain = null;
    const { vessel, gravity, bounce, lies } = view;
    pile.tell({ t: "begin", ground: groundOf(geometry, gravity), cap: capNow(), slides: vessel.free });
    const all = refs.wanted(view.pile, bounce);
    pile.tell({ t: "settle", drops: all, lies: lies === null ? null : wayOnPicture(lies) });
    pile.tell({ t: "want", all });
  }
  function tellSet(v: BrimfulView): void {
    pile.tell({ t: "set", cap: capNow(), gravity: gravityOf(v.gravity), slides: v.vessel.free });
  }
  /** Reckoned when what is shown or its place changes, not in each frame. */
  function place(v: BrimfulView, box: Box): Geometry {
    const letters = leastLetter(box, 1);
    if (geometry !== null && placed?.of === v && placed.width === box.width && placed.height === box.height && placed.letters === letters)
      return geometry;
    placed = { of: v, width: box.width, height: box.height, letters };
    geometry = geometryOf(v, box, letters);
    const key = groundKey(geometry, v);
    if (key !== told) {
      told = key;
      tellAll();
    }
    return geometry;
  }
  const wayOnPicture = (way: -1 | 1): -1 | 1 =>
    geometry === null ? way : wayWithin(way, shownX + geometry.footX, 12 * geometry.unit, shownWidth);

  return {
    get live() {
      return view?.on === true || (view?.pile.batches.length ?? 0) > 0 ? pile.count + pile.bed.length / rowLength : 0;
    },
    solid: () => view?.on === true,
    shown: (): VesselFacts | null =>
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
            kinds: kindsOf([pile.rows.subarray(0, pile.count * rowLength), pile.bed], refs),
            rows: [...pile.rows.slice(0, pile.count * rowLength)].map((n) => Math.round(n * 100) / 100),
          },
    setView: (given) => {
      const parsed = brimfulViewSchema.safeParse(given);
      if (!parsed.success) return;
      const before = view;
      // Outlines are for who sets it up.
      view = { ...parsed.data, looks: { ...parsed.data.looks, outlines: preview && parsed.data.looks.outlines } };
      looksMark = JSON.stringify(view.looks);
      paintedFront = "";
      if (before === null) shownFull = view.full;
      else if (before.full !== view.full) pulseFrom = sprites.nowMs;
      if (geometry === null || told === "") return;
      tellSet(view);
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
      shownX = box.x;
      shownWidth = box.stageWidth ?? box.width;
      const g = place(view, box);
      if (Math.abs(roomNow - room) > 0.01) {
        room = roomNow;
        tellSet(view);
      }
      pile.frame(nowMs);
      if (pile.given || pile.unheard) lieStill(view, g);
      const share = 1 - Math.exp(-Math.min(mostFollowedMs, nowMs - lastMs) / followMs);
      lastMs = nowMs;
      shownFull = Math.abs(view.full - shownFull) < 0.5 || still ? view.full : shownFull + (view.full - shownFull) * share;
      const away = !view.on && view.pile.batches.length + view.pile.older.length === 0;
      const animated = away ? false : drawPieces(box, g, nowMs);
      drawVessel(view, g, behind, ahead, nowMs, away, box);
      const passes = drawWords(view, g, box, nowMs);
      return pile.moves || passes || animated || shownFull !== view.full || (!still && nowMs - pulseFrom < pulseMs);
    },
  };

  /** Without any motion: as it would lie. */
  function lieStill(v: BrimfulView, g: Geometry): void {
    if (lain?.of === v && lain.on === g) return;
    lain = { of: v, on: g };
    const all = refs
      .wanted(v.pile, v.bounce)
      .flatMap(({ ref, count, piece }) =>
        Array.from({ length: count }, (_, index) => ({ ref, index, size: Math.max(piece.width, piece.height) })),
      );
    const shown = all.slice(-1_200);
    pile.rows = restingPlaces(g.wall, shown, rowLength);
    pile.count = v.lies === null ? shown.length : 0;
  }

  function drawPieces(box: Box, g: Geometry, nowMs: number): boolean {
    if (layer === null) return false;
    const area = flownOver(box);
    layer.fit(area, box.stageWidth ?? box.width);
    const { scale } = layer;
    flat.count = 0;
    let animated = false;
    const [x0, y0] = [(g.footX + box.x - area.x) * scale, (g.footY + box.y - area.y) * scale];
    const on: On = { sprites, refs, nowMs, unit: g.unit * scale, x0, y0 };
    for (let i = 0; i < pile.count; i += 1) if (stamp(flat, pile.rows, i * rowLength, on)) animated = true;
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
    const stage = box.stageWidth ?? box.width;
    for (const { context } of [behind, ahead]) if (context !== null) turnCanvas(context.canvas, g, box.width, x, y, angle);
    const looksKey = `${told} ${looksMark} ${behind.width}x${behind.height} ${stage} ${away}`;
    const bedKey = `${looksKey} ${pile.bedChanges} ${sprites.loads}`;
    if (behind.context !== null && bedKey !== paintedBack) {
      paintedBack = bedKey;
      if (away) back.empty();
      else {
        paintBack(behind.context, v, g, behind.scale);
        paintBed(behind.context, pile.bed, { sprites, refs, nowMs }, g, behind.scale);
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
    if (outlined) bodyOutlines(context, pile.rows.subarray(0, pile.count * rowLength), refs, g, scale);
    return texts.length > 0;
  }
}
