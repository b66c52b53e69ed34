import { lettering } from "./dress";
import { initialsOf } from "../core/pictures/initials";
import { lettersOn, shade } from "./colour";
import { glaze } from "./glaze";

/** Pictures that no file holds: faces without one of their own, and the beads that fall where nothing else was chosen. */
const px = 160;
const beadGlazes = [
  ["#C88558", "grain"],
  ["#3F7A74", "waves"],
  ["#E0A025", "dots"],
  ["#B23A2B", "stripes"],
  ["#F0E2C4", "crosses"],
  ["#37598A", "net"],
] as const;
export const beads: readonly string[] = beadGlazes.map((_, i) => `bead:${i}`);
export const faceKey = (name: string): string => `face:${name}`;
export const isFace = (key: string): boolean => key.startsWith("face:");
export const nameOfFace = (key: string): string => key.slice("face:".length);
export const isDrawn = (key: string): boolean => key.startsWith("bead:") || key.startsWith("face:");

function canvasOf(): Readonly<{ canvas: HTMLCanvasElement; context: CanvasRenderingContext2D }> {
  const canvas = document.createElement("canvas");
  canvas.width = canvas.height = px;
  const context = canvas.getContext("2d");
  if (context === null) throw new Error("no canvas");
  context.translate(px / 2, px / 2);
  return { canvas, context };
}
function disc(context: CanvasRenderingContext2D, r: number, fill: string): void {
  context.beginPath();
  context.arc(0, 0, r, 0, Math.PI * 2);
  context.fillStyle = fill;
  context.fill();
}

/** A face by its initials: a maker's mark pressed into a disc. */
function face(name: string): HTMLCanvasElement {
  const { canvas, context } = canvasOf();
  const { letters, colour, pattern } = initialsOf(name);
  disc(context, 78, "#FFF8E8");
  context.save();
  disc(context, 70, colour);
  context.clip();
  context.globalAlpha = 0.5;
  glaze(context, pattern, colour, 70);
  context.restore();
  disc(context, 46, colour);
  context.font = lettering(700, letters.length > 1 ? 58 : 70);
  context.textAlign = "center";
  context.textBaseline = "alphabetic";
  const size = context.measureText(letters);
  context.fillStyle = lettersOn(colour);
  context.fillText(letters, 0, (size.actualBoundingBoxAscent - size.actualBoundingBoxDescent) / 2);
  return canvas;
}

/** Somebody's picture in the same disc; null where there is none to be had. */
export async function pictureFace(url: string): Promise<HTMLCanvasElement | null> {
  const response = await fetch(url);
  // No content where there is none to be shown: initials, and nothing to be told.
  if (response.status !== 200) return null;
  const picture = await createImageBitmap(await response.blob());
  const { canvas, context } = canvasOf();
  disc(context, 78, "#FFF8E8");
  context.beginPath();
  context.arc(0, 0, 70, 0, Math.PI * 2);
  context.clip();
  context.drawImage(picture, -70, -70, 140, 140);
  picture.close();
  return canvas;
}

/** A glazed bead: round, lit from above, with the glaze's own pattern. */
function bead(n: number): HTMLCanvasElement {
  const { canvas, context } = canvasOf();
  const [colour, pattern] = beadGlazes[n % beadGlazes.length] ?? beadGlazes[0];
  disc(context, 76, shade(colour, -0.55));
  context.save();
  disc(context, 70, colour);
  context.clip();
  glaze(context, pattern, colour, 90);
  const light = context.createRadialGradient(-22, -26, 6, 0, 0, 78);
  light.addColorStop(0, "rgba(255,255,255,.5)");
  light.addColorStop(0.4, "rgba(255,255,255,0)");
  light.addColorStop(1, "rgba(0,0,0,.34)");
  context.fillStyle = light;
  context.fillRect(-80, -80, 160, 160);
  context.restore();
  return canvas;
}

/** Draws it once its letters are there. */
export async function drawnSprite(key: string): Promise<HTMLCanvasElement> {
  if (key.startsWith("bead:")) return bead(Number(key.slice(5)) || 0);
  const name = key.slice(5);
  await document.fonts.load(lettering(700, 58), initialsOf(name).letters).catch(() => []);
  return face(name);
}
