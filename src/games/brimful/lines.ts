import { lettering } from "../../overlay/dress";
import type { BrimfulView } from "../../core/games/brimful/settings";
import { lettersOn } from "../../overlay/colour";
import { acrossAt, type Geometry, levelAt, tagLetters, thickness } from "./geometry";

/** The dashed line at the brim with how full it is on a tag beside it, and the line on the way. */
export function paintLines(
  context: CanvasRenderingContext2D,
  view: BrimfulView,
  g: Geometry,
  scale: number,
  full: number,
  pulse: number,
  leastPx: number,
): void {
  if (!view.looks.number && view.goal === null) return;
  if (view.lies !== null) return;
  const letters = Math.max(leastPx / (scale * g.unit), tagLetters);
  if (view.goal !== null) line(view.goal.label, view.goal.at, view.goal.reached ? "#8DB868" : "#F0E2C4", false, 1);
  if (view.looks.number) line(`${Math.round(full)} % full`, view.brimAt, view.looks.line, true, pulse);

  function line(text: string, percent: number, colour: string, tagRight: boolean, swell: number): void {
    const y = levelAt(g, percent / 100);
    const across = acrossAt(g.wall, Math.max(y, (g.outline.rimY - 1) * 10 + 0.01));
    context.beginPath();
    context.moveTo(across.left, y);
    context.lineTo(across.right, y);
    context.setLineDash([0.36, 0.26]);
    context.strokeStyle = colour;
    context.lineWidth = 0.13;
    context.stroke();
    context.setLineDash([]);
    context.save();
    context.font = lettering(700, 100);
    const wide = (context.measureText(text).width / 100) * letters + letters * 1.1;
    const tall = letters * 1.5;
    // Beside it where there is room; else the tag hangs inwards.
    const roomRight = (g.width - g.footX) / g.unit - (across.right + thickness);
    const roomLeft = g.footX / g.unit + (across.left - thickness);
    const right = tagRight ? roomRight >= wide || roomRight >= roomLeft : roomLeft < wide && roomRight > roomLeft;
    const out = right ? roomRight >= wide : roomLeft >= wide;
    const x = right ? (out ? across.right + thickness : across.right) : out ? across.left - thickness : across.left;
    const way = right === out ? 1 : -1;
    context.translate(x, y);
    context.scale(swell, swell);
    context.beginPath();
    context.moveTo(0, 0);
    context.lineTo(way * tall * 0.4, -tall / 2);
    context.lineTo(way * wide, -tall / 2);
    context.lineTo(way * wide, tall / 2);
    context.lineTo(way * tall * 0.4, tall / 2);
    context.closePath();
    context.fillStyle = colour;
    context.fill();
    context.fillStyle = lettersOn(colour);
    context.textAlign = "center";
    context.textBaseline = "middle";
    context.translate(way * (wide / 2 + tall * 0.14), letters * 0.04);
    // A canvas knows no letters of less than a pixel: they are set large and drawn small.
    context.scale(letters / 100, letters / 100);
    context.fillText(text, 0, 0);
    context.restore();
  }
}
