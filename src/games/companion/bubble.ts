import { shade } from "../../overlay/colour";
import { lettering, lookNow } from "../../overlay/dress";
import { twoLines } from "../../overlay/card";
import { settle } from "../../overlay/motion";

type Brush = CanvasRenderingContext2D;

/**
 * What a figure says, over its head: in at most two lines, within the width of its place, its tail at whoever says it.
 * `grows` is how far it has come in, 0 to 1.
 */
export function paintBubble(
  context: Brush,
  text: string,
  { x, y, width, least, there, grows }: Readonly<{ x: number; y: number; width: number; least: number; there: number; grows: number }>,
): void {
  const { panel, letters, outline } = lookNow();
  const size = least * 1.06;
  context.font = lettering(650, size);
  const pad = size * 0.62;
  const lines = twoLines(context, text, width - 2 * pad - 4);
  const wide = Math.min(width - 4, Math.max(...lines.map((l) => context.measureText(l).width)) + 2 * pad);
  const high = lines.length * size * 1.18 + pad * 0.9;
  const tail = size * 0.7;
  const left = Math.min(width - wide - 2, Math.max(2, x - wide * 0.42));
  const top = Math.max(2, y - tail - high);
  const s = grows >= 1 ? 1 : 0.4 + 0.6 * settle(grows * 320, 320);
  context.save();
  context.globalAlpha = there;
  context.translate(x, top + high + tail);
  context.scale(s, s);
  context.translate(-x, -(top + high + tail));
  const round = Math.min(high / 2, size * 0.5 * Math.max(0.3, panel.round + 0.4));
  const foot = Math.min(left + wide - round - tail, Math.max(left + round + tail * 0.4, x - tail * 0.2));
  context.beginPath();
  context.roundRect(left, top, wide, high, round);
  context.moveTo(foot, top + high - 1);
  context.lineTo(x, top + high + tail);
  context.lineTo(foot + tail * 0.8, top + high - 1);
  context.closePath();
  // Letters are read over any picture: a bubble always covers it.
  context.fillStyle = panel.fill;
  context.globalAlpha = there * Math.max(0.9, panel.alpha);
  context.fill();
  context.globalAlpha = there;
  if (panel.edge === "double") {
    context.strokeStyle = shade(panel.fill, -0.42);
    context.lineWidth = Math.max(1.5, size * 0.06);
    context.stroke();
  }
  context.fillStyle = letters;
  context.textAlign = "center";
  context.textBaseline = "alphabetic";
  lines.forEach((line, i) => {
    const at = top + pad * 0.45 + size * (0.9 + i * 1.18);
    if (panel.alpha < 0.6) {
      context.lineWidth = size * outline * 0.5;
      context.strokeStyle = "rgba(16,12,10,.9)";
      context.strokeText(line, left + wide / 2, at);
    }
    context.fillText(line, left + wide / 2, at);
  });
  context.restore();
}
