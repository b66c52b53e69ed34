import { lettering } from "../../overlay/dress";
import type { WheelView } from "../../core/games/wheel/settings";
import { turn } from "../../core/games/wheel/settings";
import type { SpriteBook } from "../../overlay/sprites";
import { ink, lettersOn, shade } from "../../overlay/colour";
import { settle } from "../../overlay/motion";
import { shortened } from "../../overlay/letters";
import { disc, type Plate, shape, wedge, weights } from "./plate";

/** All that one picture of the wheel depends on beside its plate. */
export type WheelNow = Readonly<{
  plate: Plate;
  /** The plate as it was painted; null before it was. */
  picture: CanvasImageSource | null;
  /** The surface, in its own pixels. */
  width: number;
  height: number;
  /** Smallest letter, pixels. */
  least: number;
  /** 0 away, 1 there. */
  there: number;
  /** Turns clockwise. */
  turned: number;
  /** 0 upright, 1 as far as the pointer goes. */
  lean: number;
  result: Readonly<{ label: string; segment: number; by: string; sinceS: number; leaves: number }> | null;
  /** Names beside the plate, the one under the pointer in the middle; null where the plate holds its names. */
  list: readonly Readonly<{ label: string; colour: string; here: boolean }>[] | null;
  sprites: SpriteBook;
}>;

/** Where the plate is on the surface. */
export function plateBox(width: number, height: number, listed: boolean, panel: boolean): Readonly<{ x: number; y: number; r: number }> {
  const foot = panel ? 0.13 : 0.03;
  const r = Math.min(((listed ? 0.6 : 1) * width) / 2 / 1.06, (height * (1 - foot)) / 2 / 1.05);
  return { x: listed ? Math.min(width * 0.32, r * 1.06) : width / 2, y: Math.min(height * (1 - foot) - r * 1.02, height / 2), r };
}

export function paintWheel(context: CanvasRenderingContext2D, now: WheelNow): void {
  const { plate, width, height, there } = now;
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.clearRect(0, 0, width, height);
  if (there <= 0) return;
  const { looks } = plate;
  const at = plateBox(width, height, now.list !== null, looks.panel);
  const { r } = at;
  context.globalAlpha = there;
  context.save();
  context.translate(at.x, at.y + (1 - there) * r * 0.08);
  context.save();
  context.scale(1, 0.16);
  context.translate(0, (r * 1.02) / 0.16);
  disc(context, r * 0.86, "rgba(16,19,27,.28)");
  context.restore();
  context.save();
  context.rotate(now.turned * Math.PI * 2);
  if (now.picture !== null) context.drawImage(now.picture, -r, -r, 2 * r, 2 * r);
  if (now.result !== null) highlight(context, now, r);
  context.restore();
  hub(context, now, r);
  pointer(context, now, r);
  context.restore();
  if (now.list !== null) names(context, now, at);
  if (now.result !== null && looks.panel) panel(context, now, at);
  context.globalAlpha = 1;
}

/** The part that came stays bright; the rest steps back. */
function highlight(context: CanvasRenderingContext2D, { plate, result }: WheelNow, r: number): void {
  if (result === null) return;
  const shown = Math.min(1, result.sinceS / 0.3) * result.leaves;
  for (const arc of plate.arcs) {
    const [from, to] = [arc.from, arc.to].map((p) => (p / turn) * Math.PI * 2 - Math.PI / 2) as [number, number];
    wedge(context, r * shape.glaze, from, to);
    if (arc.segment !== result.segment) {
      context.fillStyle = `rgba(25,28,38,${(0.42 * shown).toFixed(3)})`;
      context.fill();
      continue;
    }
    context.lineWidth = r * 0.022;
    context.strokeStyle = `rgba(255,248,232,${shown.toFixed(3)})`;
    context.stroke();
  }
}

function hub(context: CanvasRenderingContext2D, { plate, sprites, turned }: WheelNow, r: number): void {
  const { looks } = plate;
  disc(context, r * shape.hub, shade(looks.rim, -0.12));
  disc(context, r * (shape.hub - 0.014), looks.hub);
  context.beginPath();
  context.arc(0, 0, r * (shape.hub - 0.055), 0, Math.PI * 2);
  context.lineWidth = r * 0.006;
  context.strokeStyle = shade(looks.hub, -0.2);
  context.stroke();
  const side = r * shape.hub * 1.24;
  const middle = looks.middle === "" ? undefined : sprites.get(sprites.id(looks.middle));
  if (middle?.picture != null) {
    const high = side * (middle.frameHeight / Math.max(1, middle.frameWidth));
    const fit = Math.min(1, side / high);
    context.drawImage(
      middle.picture,
      0,
      0,
      middle.frameWidth,
      middle.frameHeight,
      (-side * fit) / 2,
      (-high * fit) / 2,
      side * fit,
      high * fit,
    );
    return;
  }
  // A spiral, as a thrown plate has it from the potter's finger; it turns with the plate.
  context.save();
  context.rotate(turned * Math.PI * 2);
  context.beginPath();
  for (let i = 0; i <= 90; i += 1) {
    const a = (i / 90) * Math.PI * 5;
    const d = r * (0.02 + 0.17 * (i / 90));
    context.lineTo(Math.cos(a) * d, Math.sin(a) * d);
  }
  context.lineWidth = r * 0.013;
  context.lineCap = "round";
  context.strokeStyle = shade(looks.hub, -0.28);
  context.stroke();
  context.restore();
}

/** A wooden rib that touches the rim, and gives way to each peg. */
function pointer(context: CanvasRenderingContext2D, { plate, lean, sprites }: WheelNow, r: number): void {
  const { looks } = plate;
  context.save();
  context.rotate((looks.pointerAt / 180) * Math.PI);
  context.translate(0, -r * 1.13);
  // The wheel turns clockwise, so a peg takes the tip along that way.
  context.rotate(-lean * 0.42);
  const own = looks.pointerPicture === "" ? undefined : sprites.get(sprites.id(looks.pointerPicture));
  if (own?.picture != null) {
    const size = r * 0.34;
    context.drawImage(own.picture, 0, 0, own.frameWidth, own.frameHeight, -size / 2, -size * 0.4, size, size);
    context.restore();
    return;
  }
  const u = r * 0.19;
  context.beginPath();
  context.moveTo(0, u * 1.28);
  context.bezierCurveTo(-u * 0.3, u * 0.75, -u * 0.72, u * 0.4, -u * 0.66, -u * 0.1);
  context.bezierCurveTo(-u * 0.6, -u * 0.62, u * 0.52, -u * 0.72, u * 0.68, -u * 0.12);
  context.bezierCurveTo(u * 0.8, u * 0.36, u * 0.3, u * 0.72, 0, u * 1.28);
  context.closePath();
  context.fillStyle = looks.pointer;
  context.shadowColor = "rgba(16,19,27,.45)";
  context.shadowBlur = u * 0.3;
  context.shadowOffsetY = u * 0.12;
  context.fill();
  context.shadowColor = "transparent";
  context.lineWidth = u * 0.11;
  context.strokeStyle = shade(looks.pointer, -0.5);
  context.stroke();
  context.beginPath();
  context.moveTo(-u * 0.4, u * 0.16);
  context.quadraticCurveTo(-u * 0.34, -u * 0.36, u * 0.12, -u * 0.42);
  context.lineWidth = u * 0.1;
  context.lineCap = "round";
  context.strokeStyle = shade(looks.pointer, 0.3);
  context.stroke();
  context.beginPath();
  context.arc(u * 0.04, -u * 0.02, u * 0.16, 0, Math.PI * 2);
  context.fillStyle = shade(looks.pointer, -0.62);
  context.fill();
  context.restore();
}

/** The tag that tells what came. */
function panel(context: CanvasRenderingContext2D, now: WheelNow, at: Readonly<{ x: number; y: number; r: number }>): void {
  const { result, plate, width, height, least } = now;
  if (result === null) return;
  const { looks } = plate;
  const size = Math.max(least * 1.25, at.r * 0.15 * (looks.panelSize / 100));
  const small = Math.max(least, size * 0.46);
  const label = result.label === "" ? "This one" : result.label;
  const by = result.by === "" ? "" : `for ${result.by}`;
  context.font = lettering(800, size);
  const most = width * 0.92 - size * 1.9;
  const name = shortened(context, label, most);
  const wide = context.measureText(name).width;
  context.font = lettering(600, small);
  const who = shortened(context, by, Math.max(wide, most * 0.7));
  const w = Math.max(wide, context.measureText(who).width) + size * 1.9;
  const h = size * 1.34 + (who === "" ? 0 : small * 1.15);
  const drop = settle(result.sinceS, 0.55);
  context.save();
  context.globalAlpha *= Math.min(1, result.sinceS / 0.15) * result.leaves;
  context.translate(Math.min(width - w / 2 - 4, Math.max(w / 2 + 4, at.x)), Math.min(height - h * 0.62, at.y + at.r * 0.98));
  context.rotate(-0.025 * drop);
  context.scale(0.6 + 0.4 * drop, 0.6 + 0.4 * drop);
  const notch = h * 0.3;
  context.beginPath();
  context.moveTo(-w / 2, 0);
  context.lineTo(-w / 2 + notch, -h / 2);
  context.lineTo(w / 2, -h / 2);
  context.lineTo(w / 2, h / 2);
  context.lineTo(-w / 2 + notch, h / 2);
  context.closePath();
  context.shadowColor = "rgba(16,19,27,.5)";
  context.shadowBlur = size * 0.35;
  context.shadowOffsetY = size * 0.12;
  context.fillStyle = "#FFF6E0";
  context.fill();
  context.shadowColor = "transparent";
  context.lineWidth = Math.max(1.5, size * 0.06);
  context.strokeStyle = "#B98A2E";
  context.stroke();
  context.beginPath();
  context.arc(-w / 2 + notch * 1.15, 0, size * 0.16, 0, Math.PI * 2);
  context.fillStyle = "#6B4A1E";
  context.fill();
  context.textAlign = "left";
  context.textBaseline = "middle";
  context.fillStyle = ink;
  context.font = lettering(800, size);
  const x = -w / 2 + notch * 1.15 + size * 0.5;
  context.fillText(name, x, who === "" ? size * 0.04 : -small * 0.55);
  if (who !== "") {
    context.font = lettering(600, small);
    context.fillStyle = "#565B69";
    context.fillText(who, x, size * 0.55);
  }
  context.restore();
}

/** Names that don't fit on the plate, the one under the pointer in their middle. */
function names(
  context: CanvasRenderingContext2D,
  { list, plate, width, least }: WheelNow,
  at: Readonly<{ x: number; y: number; r: number }>,
): void {
  if (list === null) return;
  const x = at.x + at.r * 1.14;
  const room = width - x - 4;
  const size = Math.max(least, Math.min(at.r * 0.11, room * 0.13));
  const row = size * 1.5;
  context.textAlign = "left";
  context.textBaseline = "middle";
  list.forEach(({ label, colour, here }, i) => {
    const y = at.y + (i - (list.length - 1) / 2) * row;
    const away = Math.abs(i - (list.length - 1) / 2);
    context.save();
    context.globalAlpha *= here ? 1 : Math.max(0.25, 0.85 - away * 0.16);
    context.beginPath();
    context.roundRect(x, y - row * 0.46, room, row * 0.9, size * 0.25);
    context.fillStyle = here ? colour : "rgba(16,19,27,.66)";
    context.fill();
    context.font = lettering(here ? 800 : weights[plate.looks.letters], size);
    context.fillStyle = here ? lettersOn(colour) : "#FFF8E8";
    context.fillText(shortened(context, label, room - size), x + size * 0.5, y + size * 0.04);
    context.restore();
  });
}
export type { WheelView };
