import { lettering } from "../../overlay/dress";
import { shortened } from "../../overlay/letters";
import { ease, settle } from "../../overlay/motion";

/** Texts that pass by when something falls: they come up from the rim, stay, and go on upwards. */
export type Passing = { text: string; atMs: number; ms: number; lane: number };
const mostAtOnce = 4;
const families = {
  display: null,
  text: '"Atkinson Hyperlegible Next Variable","Noto Color Emoji",sans-serif',
  mono: '"Atkinson Hyperlegible Mono Variable","Noto Color Emoji",monospace',
} as const;

export function withPassing(all: readonly Passing[], text: string, ms: number, nowMs: number): readonly Passing[] {
  // In a storm the oldest makes room.
  const now = all.filter((p) => nowMs - p.atMs < p.ms).slice(-(mostAtOnce - 1));
  const taken = new Set(now.map((p) => p.lane));
  const lane = [0, 1, 2, 3].find((n) => !taken.has(n)) ?? 0;
  return [...now, { text, atMs: nowMs, ms, lane }];
}

export function paintPassing(
  context: CanvasRenderingContext2D,
  all: readonly Passing[],
  at: Readonly<{ nowMs: number; x: number; y: number; width: number; letters: number; font: keyof typeof families; still: boolean }>,
): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.clearRect(0, 0, context.canvas.width, context.canvas.height);
  const family = families[at.font];
  context.font = family === null ? lettering(700, at.letters) : `700 ${at.letters}px ${family}`;
  context.textAlign = "center";
  context.textBaseline = "middle";
  for (const p of all) {
    const u = (at.nowMs - p.atMs) / p.ms;
    if (u < 0 || u >= 1) continue;
    const text = shortened(context, p.text, at.width);
    const wide = context.measureText(text).width;
    const middle = Math.max(wide / 2 + 4, Math.min(context.canvas.width - wide / 2 - 4, at.x));
    const comes = at.still ? 1 : settle(at.nowMs - p.atMs, 420);
    const goes = ease((u - 0.78) / 0.22);
    const y = Math.max(at.letters, at.y - p.lane * at.letters * 1.35 - (at.still ? 0 : goes * at.letters * 0.3));
    context.save();
    context.globalAlpha = (1 - goes) * Math.min(1, (at.nowMs - p.atMs) / 120);
    context.translate(middle, y + (1 - comes) * at.letters * 1.2);
    context.scale(0.7 + 0.3 * comes, 0.7 + 0.3 * comes);
    context.lineJoin = "round";
    context.lineWidth = at.letters * 0.2;
    context.strokeStyle = "rgba(16,19,27,.88)";
    context.strokeText(text, 0, 0);
    context.fillStyle = "#FFF8E8";
    context.fillText(text, 0, 0);
    context.restore();
  }
}
