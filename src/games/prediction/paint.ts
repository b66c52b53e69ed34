import { lettering, lookNow } from "../../overlay/dress";
import { letterOf } from "../../core/games/prediction/letters";
import { type Pattern, patterns } from "../../core/pictures/patterns";
import { ink, luminance, shade } from "../../overlay/colour";
import { ease, settle } from "../../overlay/motion";
import { glaze } from "../../overlay/glaze";
import { shortened } from "../../overlay/letters";
import { edgeOf, paintPanel, writeOn } from "../../overlay/panel";
import type { PredictionView, Shown } from "./view";

type Brush = CanvasRenderingContext2D;
export type JarsNow = Readonly<{
  shown: Shown;
  looks: PredictionView["looks"];
  /** How full each jar is drawn, 0 to 1: it follows what backs it. */
  fill: readonly number[];
  nowMs: number;
  width: number;
  height: number;
  least: number;
  there: number;
  /** Seconds until it locks; −1 for none. */
  clock: number;
  /** Share of its time that is left. */
  left: number;
  /** Seconds since the result. */
  resultS: number;
  still: boolean;
}>;
/** Which pattern an outcome's jar has: the letters go on where patterns begin again. */
export const patternOf = (index: number): Pattern => order[index % order.length] ?? "plain";
const order: readonly Pattern[] = ["dots", "stripes", "crosses", "waves", "net", "triangles", "grain", ...patterns.slice(0, 1)];

/** A row of jars, lettered and patterned, that fill with what backs them. */
export function paintJars(context: Brush, now: JarsNow): void {
  const { shown, width, height, least, there } = now;
  if (!paintPanel(context, width, height, there)) return;
  const pad = edgeOf(height);
  const large = Math.max(least * 1.1, height * 0.075);
  const small = Math.max(least, height * 0.055);
  const ring = now.clock < 0 ? 0 : large * 2.2;
  const room = width - 2 * pad - (ring > 0 ? ring + pad * 0.6 : 0);
  context.textAlign = "left";
  context.textBaseline = "alphabetic";
  let y = pad;
  for (const line of titleLines(context, shown.title, room, large)) {
    context.font = lettering(800, large);
    context.fillStyle = lookNow().letters;
    writeOn(context, line, pad, y + large * 0.86, large);
    y += large * 1.15;
  }
  context.font = lettering(600, small);
  context.fillStyle = shown.over === "result" ? lookNow().accent : lookNow().soft;
  writeOn(context, shortened(context, shown.line, room), pad, y + small * 0.9, small);
  y += small * 1.5;
  if (ring > 0) clock(context, width - pad - ring / 2, pad + ring / 2, ring / 2, now, small);
  jars(context, now, { x: pad, y, width: width - 2 * pad, height: height - y - pad * 0.7 }, small);
  context.globalAlpha = 1;
}

/** On one line where it fits, else on two. */
function titleLines(context: Brush, title: string, room: number, size: number): readonly string[] {
  context.font = lettering(800, size);
  if (context.measureText(title).width <= room) return [title];
  const words = title.split(" ");
  let first = "";
  while (words.length > 1 && context.measureText(`${first} ${words[0] ?? ""}`).width <= room)
    first = `${first} ${words.shift() ?? ""}`.trim();
  return first === "" ? [shortened(context, title, room)] : [first, shortened(context, words.join(" "), room)];
}

function clock(context: Brush, x: number, y: number, r: number, { clock: s, left }: JarsNow, letters: number): void {
  context.lineWidth = r * 0.22;
  context.strokeStyle = lookNow().soft;
  context.beginPath();
  context.arc(x, y, r * 0.86, 0, Math.PI * 2);
  context.stroke();
  context.strokeStyle = "#E0A025";
  context.beginPath();
  context.arc(x, y, r * 0.86, -Math.PI / 2, -Math.PI / 2 + Math.PI * 2 * left);
  context.stroke();
  context.fillStyle = lookNow().letters;
  context.textAlign = "center";
  context.textBaseline = "middle";
  const text = s >= 3_600 ? `${Math.floor(s / 3_600)} h` : `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}`;
  context.font = lettering(700, Math.min(letters, r * 0.62));
  writeOn(context, text, x, y + r * 0.03, r * 0.5);
}

type Area = Readonly<{ x: number; y: number; width: number; height: number }>;
function jars(context: Brush, now: JarsNow, area: Area, letters: number): void {
  const { shown, looks, fill, resultS, still } = now;
  const many = shown.jars.length;
  // More than six stand in two rows.
  const rows = many > 6 ? 2 : 1;
  const columns = Math.ceil(many / rows);
  const cell = { w: area.width / columns, h: area.height / rows };
  const tops = looks.top && rows === 1 && shown.jars.some((j) => j.top.length > 0);
  const lines = rows === 1 ? (tops ? 3 : 2) : 1;
  const words = lines * letters * 1.22;
  const h = Math.max(letters * 1.6, cell.h - words - letters * 0.4);
  const w = Math.min(cell.w * 0.82, h * 0.92);
  shown.jars.forEach((jar, i) => {
    const x = area.x + (i % columns) * cell.w + cell.w / 2;
    const y = area.y + Math.floor(i / columns) * cell.h;
    const won = shown.result === i;
    const lost = shown.result !== null && !won;
    const hop = won && !still ? Math.sin(Math.PI * Math.min(1, resultS / 0.7)) * h * 0.09 : 0;
    const swell = won ? 1 + 0.05 * (still ? 1 : settle(resultS, 0.8)) : 1;
    context.save();
    if (lost) context.globalAlpha *= 1 - 0.55 * (still ? 1 : ease(resultS / 0.8));
    context.save();
    context.translate(x, y + h - hop);
    context.scale(swell, swell);
    oneJar(context, {
      i,
      w,
      h,
      level: fill[i] ?? 0,
      colour: looks.fills[i % looks.fills.length] ?? "#B7C9A8",
      glass: seenGlass(looks.glass),
      won,
    });
    context.restore();
    context.textAlign = "center";
    context.textBaseline = "alphabetic";
    let line = y + h + letters * 1.05;
    const room = cell.w * 0.96;
    // In two rows there is room for the name alone; how full its jar is says the rest.
    context.font = lettering(700, rows === 1 ? letters : letters * 0.92);
    context.fillStyle = won ? lookNow().accent : lookNow().letters;
    writeOn(context, shortened(context, jar.label, room), x, line, letters);
    context.font = lettering(500, letters);
    context.fillStyle = lookNow().soft;
    if (rows === 1) writeOn(context, shortened(context, jar.under, room), x, (line += letters * 1.22), letters);
    if (tops) writeOn(context, namesWithin(context, jar.top, room), x, line + letters * 1.22, letters);
    context.restore();
  });
}

/** As many whole names as fit; of a first one that does not, what fits. */
function namesWithin(context: Brush, names: readonly string[], room: number): string {
  for (let n = names.length; n > 1; n -= 1) {
    const all = names.slice(0, n).join(", ");
    if (context.measureText(all).width <= room) return all;
  }
  return shortened(context, names[0] ?? "", room);
}

/** Glass is seen against whatever panel the look has. */
function seenGlass(glass: string): string {
  const { panel } = lookNow();
  return Math.abs(luminance(glass) - luminance(panel.fill)) < 0.3 ? shade(glass, luminance(panel.fill) > 0.4 ? -0.6 : 0.6) : glass;
}
type One = Readonly<{ i: number; w: number; h: number; level: number; colour: string; glass: string; won: boolean }>;
/** One jar standing on 0: its foot in the middle. */
function oneJar(context: Brush, { i, w, h, level, colour, glass, won }: One): void {
  const body = (): void => {
    const neck = w * 0.3;
    const top = -h * 0.97;
    const r = w * 0.2;
    context.beginPath();
    context.moveTo(-neck, top);
    context.lineTo(-neck, top + h * 0.1);
    context.bezierCurveTo(-w * 0.5, top + h * 0.2, -w * 0.5, -h * 0.5, -w * 0.5, -h * 0.42);
    context.lineTo(-w * 0.5, -r);
    context.quadraticCurveTo(-w * 0.5, 0, -w * 0.5 + r, 0);
    context.lineTo(w * 0.5 - r, 0);
    context.quadraticCurveTo(w * 0.5, 0, w * 0.5, -r);
    context.lineTo(w * 0.5, -h * 0.42);
    context.bezierCurveTo(w * 0.5, -h * 0.5, w * 0.5, top + h * 0.2, neck, top + h * 0.1);
    context.lineTo(neck, top);
    context.closePath();
  };
  body();
  context.fillStyle = "rgba(255,248,232,.12)";
  context.fill();
  context.save();
  body();
  context.clip();
  const full = h * 0.84 * level;
  if (full > 0) {
    context.beginPath();
    const crest = Math.min(full, h * 0.03);
    context.moveTo(-w, 0);
    context.lineTo(-w, -full + crest);
    for (let k = -4; k < 4; k += 1)
      context.quadraticCurveTo(((k + 0.5) * w) / 4, -full + (k % 2 === 0 ? -crest : crest), ((k + 1) * w) / 4, -full);
    context.lineTo(w, 0);
    context.closePath();
    context.fillStyle = colour;
    context.fill();
    context.clip();
    context.translate(0, -h * 0.4);
    glaze(context, patternOf(i), colour, Math.max(w, h) * 1.1);
  }
  context.restore();
  body();
  context.strokeStyle = won ? "#E0A025" : glass;
  context.lineWidth = Math.max(1.5, w * 0.035);
  context.lineJoin = "round";
  context.stroke();
  // A rim over the neck, and light on the glass.
  context.beginPath();
  context.moveTo(-w * 0.36, -h * 0.97);
  context.lineTo(w * 0.36, -h * 0.97);
  context.lineCap = "round";
  context.lineWidth = Math.max(2, w * 0.06);
  context.stroke();
  context.globalAlpha *= 0.5;
  context.lineWidth = Math.max(1.5, w * 0.03);
  context.strokeStyle = "#FFF8E8";
  context.beginPath();
  context.moveTo(-w * 0.38, -h * 0.52);
  context.quadraticCurveTo(-w * 0.4, -h * 0.3, -w * 0.36, -h * 0.16);
  context.stroke();
  context.globalAlpha /= 0.5;
  letter(context, letterOf(i), w * 0.34, -h * 0.42);
}
function letter(context: Brush, text: string, side: number, y: number): void {
  context.save();
  context.translate(0, y);
  context.rotate(-0.05);
  context.beginPath();
  context.roundRect(-side / 2, -side / 2, side, side, side * 0.12);
  context.fillStyle = "#FFF6E0";
  context.fill();
  context.strokeStyle = "#8F6208";
  context.lineWidth = Math.max(1, side * 0.05);
  context.stroke();
  context.fillStyle = ink;
  context.textAlign = "center";
  context.textBaseline = "middle";
  context.font = lettering(800, side * 0.72);
  context.fillText(text, 0, side * 0.05);
  context.restore();
}
