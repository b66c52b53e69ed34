import { type FigureFacts, type FigureState, hangsOn, type PartName, standsFor } from "../../core/props/figure";
import { shade } from "../../overlay/colour";
import type { LoadedSprite } from "../../overlay/sprites";
import type { Drawn, DrawnPart, Paint, Shape } from "./figures/drawn";
import type { PartPose, Pose } from "./pose";

type Brush = CanvasRenderingContext2D;
const ground = 96;
const ink = "#1E1712";

const paths = new Map<string, Path2D>();
const path = (d: string): Path2D => {
  let made = paths.get(d);
  if (made === undefined) paths.set(d, (made = new Path2D(d)));
  return made;
};

function colour(paint: Paint, glaze: string): string {
  switch (paint) {
    case "glaze":
      return glaze;
    case "dark":
      return shade(glaze, -0.32);
    case "light":
      return shade(glaze, 0.38);
    case "pale":
      return shade(glaze, 0.66);
    case "ink":
      return ink;
    case "white":
      return "#FFFDF6";
    case "blush":
      return "#D98A72";
    default:
      return paint;
  }
}

function drawShape(context: Brush, { d, fill, line, stroke, limb }: Shape, glaze: string): void {
  const p = path(d);
  if (limb !== undefined) {
    context.strokeStyle = ink;
    context.lineWidth = limb + 4.2;
    context.stroke(p);
    context.strokeStyle = colour(stroke ?? "glaze", glaze);
    context.lineWidth = limb;
    context.stroke(p);
    return;
  }
  if (fill !== undefined) {
    context.fillStyle = colour(fill, glaze);
    context.fill(p);
  }
  if (line !== undefined) {
    context.strokeStyle = stroke === undefined ? ink : colour(stroke, glaze);
    context.lineWidth = line;
    context.stroke(p);
  }
}

/** Turns and moves the brush as a part does, about the point at which it hangs. */
function hang(context: Brush, pose: PartPose, x: number, y: number, swing = 1): void {
  context.translate(x + pose.x, y + pose.y);
  context.rotate(pose.angle * swing);
  context.scale(pose.width, pose.height);
  context.translate(-x, -y);
}
/** From what bears all down to the part itself. */
function chain<P extends Readonly<{ name: PartName }>>(part: P, find: (name: PartName) => P | undefined): readonly P[] {
  const on = hangsOn[part.name];
  if (on === null) return [part];
  const bearer = find(on);
  if (bearer !== undefined) return [...chain(bearer, find), part];
  // What bears it is not drawn: it hangs on what would have borne that.
  let next: PartName | null = hangsOn[on];
  while (next !== null && find(next) === undefined) next = hangsOn[next];
  const above = next === null ? undefined : find(next);
  return above === undefined ? [part] : [...chain(above, find), part];
}
const isArm = (name: PartName): boolean => name === "arm-left" || name === "arm-right";

const chains = new WeakMap<DrawnPart, readonly DrawnPart[]>();
/** One of the drawn figures, in a square of 100 by 100 with its feet at 96; the caller has placed and turned it. */
export function drawDrawn(context: Brush, figure: Drawn, pose: Pose, glaze: string, mood: number): void {
  context.lineJoin = "round";
  context.lineCap = "round";
  context.save();
  hang(context, pose.whole, 50, ground);
  if (figure.glows === true) glow(context, glaze, mood);
  for (const part of figure.parts) {
    const { alpha } = pose.parts[part.name];
    if (alpha <= 0) continue;
    let along = chains.get(part);
    if (along === undefined) chains.set(part, (along = chain(part, (name) => figure.parts.find((p) => p.name === name))));
    context.save();
    for (const each of along) hang(context, pose.parts[each.name], each.at[0], each.at[1], isArm(each.name) ? figure.arms : 1);
    context.globalAlpha *= alpha;
    for (const shape of part.shapes) drawShape(context, shape, glaze);
    context.restore();
  }
  context.restore();
}

function glow(context: Brush, glaze: string, mood: number): void {
  const size = 26 + mood * 0.24;
  const light = context.createRadialGradient(50, 72, 8, 50, 72, size);
  const strength = 0.12 + mood * 0.0045;
  const at = (alpha: number): string =>
    shade(glaze, 0.45)
      .replace("rgb(", "rgba(")
      .replace(")", `,${alpha.toFixed(3)})`);
  light.addColorStop(0, at(strength));
  light.addColorStop(1, at(0));
  context.fillStyle = light;
  context.fillRect(50 - size, 72 - size, size * 2, size * 2);
}

/** Where a frame lies on its sheet, and its size within a square of 100, standing on the ground. */
function cell(context: Brush, sprite: LoadedSprite, index: number): void {
  const { picture, columns, frameWidth: w, frameHeight: h } = sprite;
  if (picture === null) return;
  const scale = 92 / Math.max(w, h);
  const [dw, dh] = [w * scale, h * scale];
  context.drawImage(picture, (index % columns) * w, Math.floor(index / columns) * h, w, h, 50 - dw / 2, ground - dh, dw, dh);
}

/**
 * A figure of one's own: by its frames, by its parts, or one picture that is squashed and stretched. What has frames of
 * its own is shown as it was drawn.
 */
export function drawOwn(
  context: Brush,
  sprite: LoadedSprite,
  facts: FigureFacts | null,
  pose: Pose,
  state: FigureState,
  sinceMs: number,
): void {
  const own = facts?.states[state] ?? (state !== standsFor(state) ? facts?.states[standsFor(state)] : undefined);
  const run = own ?? facts?.states.rest ?? { first: 0, frames: sprite.frames, frameMs: sprite.frameMs, loop: true };
  context.save();
  // Its own frames are the motion; what has none borrows rest's and is moved as a whole.
  if (own === undefined || own.frames === 1) hang(context, pose.whole, 50, ground);
  if (facts === null || facts.parts.length === 0) {
    const n = run.frameMs > 0 ? Math.floor(sinceMs / run.frameMs) : 0;
    cell(context, sprite, run.first + (run.loop ? n % run.frames : Math.min(n, run.frames - 1)));
  } else {
    const { frameWidth: w, frameHeight: h } = sprite;
    const scale = 92 / Math.max(w, h);
    const at = (share: readonly [number, number]) => [50 + (share[0] - 0.5) * w * scale, ground - (1 - share[1]) * h * scale] as const;
    const has = (name: PartName): boolean => facts.parts.some((p) => p.name === name);
    // Who has no lids narrows its eyes; who has one mouth alone opens that.
    if (!has("lids") && pose.parts.lids.alpha > 0) pose.parts.eyes.height = pose.parts.pupils.height = 0.12;
    if (!has("mouth-open") && pose.parts["mouth-open"].alpha > 0) Object.assign(pose.parts.mouth, { alpha: 1, height: 1.7 });
    if (facts.under !== null) cell(context, sprite, facts.under);
    for (const part of facts.parts) {
      const { alpha } = pose.parts[part.name];
      if (alpha <= 0) continue;
      context.save();
      for (const each of chain(part, (name) => facts.parts.find((p) => p.name === name))) {
        const [x, y] = at([each.x, each.y]);
        hang(context, pose.parts[each.name], x, y);
      }
      context.globalAlpha *= alpha;
      cell(context, sprite, part.cell);
      context.restore();
    }
  }
  context.restore();
}
