import { mix32 } from "../../core/kernel/chance";
import { rowLength } from "../../overlay/physics/pile-parts";
import { SpriteBuffer, stride } from "../../overlay/sprite-buffer";
import type { SpriteBook } from "../../overlay/sprites";
import type { Geometry } from "./geometry";
import type { Ref, Refs } from "./refs";

/** What a piece looks like: its own picture, of several by turns; a face; a bead where nothing was chosen. */
export function keyOf({ look, keys, seed }: Ref, index: number): string {
  const n = look.face || look.pictures.length > 0 ? index : mix32(seed, index);
  return keys[n % keys.length] ?? "bead:0";
}

/** Where rows are stamped: `unit` pixels to each length of the physics, its origin at x0, y0. Made once for all of a frame. */
export type On = Readonly<{ sprites: SpriteBook; refs: Refs; nowMs: number; unit: number; x0: number; y0: number }>;
/** One row of the physics as a sprite; whether its picture moves by itself. */
export function stamp(out: SpriteBuffer, rows: Float32Array, at: number, on: On): boolean {
  const { sprites, refs, nowMs, unit, x0, y0 } = on;
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

const lain = new SpriteBuffer();
/** What has become part of the pile: painted with the vessel, once. */
export function paintBed(
  context: CanvasRenderingContext2D,
  bed: Float32Array,
  on: Pick<On, "sprites" | "refs" | "nowMs">,
  g: Geometry,
  scale: number,
): void {
  lain.count = 0;
  const own: On = { ...on, unit: 1, x0: 0, y0: 0 };
  for (let at = 0; at < bed.length; at += rowLength) stamp(lain, bed, at, own);
  context.setTransform(scale * g.unit, 0, 0, scale * g.unit, g.footX * scale, g.footY * scale);
  const d = lain.data;
  for (let i = 0; i < lain.count * stride; i += stride) {
    const sprite = on.sprites.get(d[i + 6] ?? 0);
    if (sprite === undefined || sprite.picture === null) continue;
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

/** The solid part of each piece: what the others feel of it. */
export function bodyOutlines(context: CanvasRenderingContext2D, rows: Float32Array, refs: Refs, g: Geometry, scale: number): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.lineWidth = Math.max(1, scale * 1.5);
  context.strokeStyle = "#FFF8E8";
  const u = g.unit * scale;
  for (let at = 0; at < rows.length; at += rowLength) {
    const ref = refs.of(rows[at] ?? 0);
    if (ref === undefined) continue;
    const { width, height, form } = ref.piece;
    context.save();
    context.translate(g.footX * scale + (rows[at + 2] ?? 0) * u, g.footY * scale + (rows[at + 3] ?? 0) * u);
    context.rotate(rows[at + 4] ?? 0);
    context.beginPath();
    const round = form === "box" ? 0 : (Math.min(width, height) * u) / 2;
    context.roundRect((-width / 2) * u, (-height / 2) * u, width * u, height * u, round);
    context.stroke();
    context.restore();
  }
}

type Kind = { size: number; mass: number; body: string; face: boolean; count: number };
/** What a vessel's scene stands at, for tests. */
export type VesselFacts = Readonly<{
  full: number;
  pieces: number;
  bed: number;
  live: number;
  angle: number;
  moves: boolean;
  crashes: number;
  /** Drawn as it would lie: no worker is to be had, or less motion was asked for. */
  given: boolean;
  stepMs: number;
  texts: readonly string[];
  kinds: readonly Readonly<Kind>[];
  /** What moves, as the physics gives it, to two digits. */
  rows: readonly number[];
}>;
/** How many there are of each making. */
export function kindsOf(lists: readonly Float32Array[], refs: Refs): readonly Readonly<Kind>[] {
  const sums = new Map<number, Kind>();
  for (const list of lists)
    for (let at = 0; at < list.length; at += rowLength) {
      const look = refs.of(list[at] ?? 0)?.look;
      if (look === undefined) continue;
      const { size, mass, body, face } = look;
      sums.set(look.n, { size, mass, body, face, count: 1 + (sums.get(look.n)?.count ?? 0) });
    }
  return [...sums.values()];
}
