import { lettering } from "../../overlay/dress";
import type { WheelView } from "../../core/games/wheel/settings";
import type { Pattern } from "../../core/pictures/patterns";
import { turn } from "../../core/games/wheel/settings";
import { lettersOn, shade } from "../../overlay/colour";
import { shortened } from "../../overlay/letters";
import { glaze } from "../../overlay/glaze";
import type { SpriteBook } from "../../overlay/sprites";

export const weights = { light: 500, bold: 700, heavy: 800 } as const;
/** More parts than this can’t be read on a plate: a list beside it follows the pointer. */
export const mostNamed = 60;

/** Shares of the plate's radius. */
export const shape = { rim: 1, pegs: 0.945, glaze: 0.9, hub: 0.31, foot: 0.22 } as const;

/** What of a view the plate itself depends on. */
export type Plate = Readonly<Pick<WheelView, "segments" | "arcs" | "looks">>;
export const plateKey = ({ segments, arcs, looks }: Plate): string => JSON.stringify([segments, arcs, looks]);

const angleOf = (part: number): number => (part / turn) * Math.PI * 2 - Math.PI / 2;

/** A plate with its pegs, seen from above and not turned, on a square canvas; `least` is the smallest letter in pixels. */
export function paintPlate(
  context: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
  plate: Plate,
  side: number,
  least: number,
  sprites: SpriteBook,
): void {
  const { segments, arcs, looks } = plate;
  const r = side / 2;
  context.clearRect(0, 0, side, side);
  context.save();
  context.translate(r, r);
  disc(context, r * 0.995, looks.rim);
  ring(context, r * 0.985, r * 0.02, shade(looks.rim, 0.22));
  ring(context, r * (shape.glaze + 0.012), r * 0.03, shade(looks.rim, -0.3));
  for (const arc of arcs) {
    const segment = segments[arc.segment];
    if (segment === undefined) continue;
    context.save();
    wedge(context, r * shape.glaze, angleOf(arc.from), angleOf(arc.to));
    context.fillStyle = segment.colour;
    context.fill();
    context.clip();
    glaze(context, segment.pattern, segment.colour, r);
    if (segment.rests) {
      context.fillStyle = "rgba(25,28,38,.45)";
      context.fillRect(-r, -r, side, side);
    }
    context.restore();
  }
  if (arcs.length > 1) {
    context.strokeStyle = "rgba(255,248,232,.9)";
    context.lineWidth = Math.max(1, r * (arcs.length > mostNamed ? 0.003 : 0.008));
    for (const arc of arcs) {
      context.beginPath();
      context.moveTo(0, 0);
      context.lineTo(Math.cos(angleOf(arc.from)) * r * shape.glaze, Math.sin(angleOf(arc.from)) * r * shape.glaze);
      context.stroke();
    }
  }
  // A breath of light from above, as on anything that was glazed.
  const shine = context.createRadialGradient(0, 0, r * 0.3, 0, 0, r * shape.glaze);
  shine.addColorStop(0, "rgba(255,255,255,.10)");
  shine.addColorStop(0.8, "rgba(255,255,255,0)");
  shine.addColorStop(1, "rgba(25,28,38,.18)");
  disc(context, r * shape.glaze, shine);
  if (arcs.length <= mostNamed) for (const arc of arcs) label(context, plate, arc, r, least, sprites);
  context.restore();
}

export function paintPegs(
  context: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
  pegs: readonly number[],
  side: number,
): void {
  const r = side / 2;
  const size = Math.max(1.5, Math.min(r * 0.024, (r * 1.6) / Math.max(1, pegs.length)));
  for (const peg of pegs) {
    const a = peg * Math.PI * 2 - Math.PI / 2;
    const [x, y] = [r + Math.cos(a) * r * shape.pegs, r + Math.sin(a) * r * shape.pegs];
    context.beginPath();
    context.arc(x, y, size, 0, Math.PI * 2);
    context.fillStyle = "#6B4A2C";
    context.fill();
    context.beginPath();
    context.arc(x, y, size * 0.72, 0, Math.PI * 2);
    context.fillStyle = "#FBF3DF";
    context.fill();
  }
}

type Brush = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;
export function disc(context: Brush, radius: number, fill: string | CanvasGradient): void {
  context.beginPath();
  context.arc(0, 0, radius, 0, Math.PI * 2);
  context.fillStyle = fill;
  context.fill();
}
function ring(context: Brush, radius: number, width: number, stroke: string): void {
  context.beginPath();
  context.arc(0, 0, radius, 0, Math.PI * 2);
  context.lineWidth = width;
  context.strokeStyle = stroke;
  context.stroke();
}
export function wedge(context: Brush, radius: number, from: number, to: number): void {
  context.beginPath();
  context.moveTo(0, 0);
  context.arc(0, 0, radius, from, to);
  context.closePath();
}

/** How high letters may be in a part of the rim, and no smaller than which they are left out; pixels. */
const lettersIn = (arc: Plate["arcs"][number], r: number, least: number, letterSize: number) => {
  const part = ((arc.to - arc.from) / turn) * Math.PI * 2;
  // Half a plate, or all of it, is as wide as its letters need.
  const room = part >= Math.PI ? r * 0.4 : 2 * Math.sin(part / 2) * r * 0.52;
  const usual = r * 0.105 * (letterSize / 100);
  return { room, size: Math.min(usual, room * 0.78), small: Math.min(usual, least) };
};
/** Whether most names can stand on a plate of this radius; where not, a list beside it follows the pointer. */
export const namesFit = ({ arcs, looks }: Pick<Plate, "arcs" | "looks">, r: number, least: number): boolean =>
  arcs.length <= mostNamed &&
  arcs.filter((arc) => {
    const { size, small } = lettersIn(arc, r, least, looks.letterSize);
    return size >= small * 0.7;
  }).length *
    2 >=
    arcs.length;

/** A segment's name from the middle outwards, so that it reads well under the pointer: shrunk, then shortened, then left out. */
function label(
  context: Brush,
  { segments, looks }: Plate,
  arc: Plate["arcs"][number],
  r: number,
  least: number,
  sprites: SpriteBook,
): void {
  const segment = segments[arc.segment];
  if (segment === undefined) return;
  const middle = (arc.from + arc.to) / 2;
  const { room, size, small } = lettersIn(arc, r, least, looks.letterSize);
  const from = r * (shape.hub + 0.045);
  const to = r * (shape.glaze - 0.035);
  const reads = looks.pointerAt <= 180;
  context.save();
  context.rotate(angleOf(middle) + (reads ? 0 : Math.PI));
  const along = (d: number): number => (reads ? d : -d);
  let inner = from;
  const picture = segment.picture === "" ? null : (sprites.get(sprites.id(segment.picture)) ?? null);
  if (segment.picture !== "") {
    const height = Math.min(room * 0.8, r * 0.26, to - from);
    const at = segment.label === "" ? (from + to) / 2 : to - height / 2;
    if (picture?.picture != null)
      context.drawImage(
        picture.picture,
        0,
        0,
        picture.frameWidth,
        picture.frameHeight,
        along(at) - height / 2,
        -height / 2,
        height,
        height * (picture.frameHeight / Math.max(1, picture.frameWidth)),
      );
    if (segment.label !== "") inner = from - height * 0.2;
  }
  const outer = segment.picture === "" || segment.label === "" ? to : to - Math.min(room * 0.8, r * 0.26) - r * 0.02;
  if (segment.label !== "" && size >= small * 0.7) {
    const length = outer - inner;
    const fontOf = (px: number): string => lettering(weights[looks.letters], px);
    let px = size;
    context.font = fontOf(px);
    const measured = context.measureText(segment.label).width;
    if (measured > length) px = Math.max(Math.min(size, small * 0.85), (px * length * 0.98) / measured);
    context.font = fontOf(px);
    const text = shortened(context, segment.label, length);
    context.textAlign = "center";
    context.textBaseline = "middle";
    context.fillStyle = lettersOn(segment.colour);
    const two = looks.chances && px * 1.9 < room;
    context.fillText(text, along((inner + outer) / 2), two ? -px * 0.42 : 0);
    if (two) {
      context.font = fontOf(px * 0.66);
      context.fillText(segment.chance, along((inner + outer) / 2), px * 0.55);
    }
  }
  context.restore();
}

/** A square of a glaze, for lists. */
export function swatch(context: Brush, colour: string, pattern: Pattern, side: number): void {
  context.save();
  context.fillStyle = colour;
  context.fillRect(0, 0, side, side);
  context.translate(side / 2, side / 2);
  glaze(context, pattern, colour, side * 2.4);
  context.restore();
}
