import { luminance, shade } from "./colour";
import { lookNow } from "./dress";

/** So wide is the edge of a panel of this height. */
export const edgeOf = (height: number): number => Math.max(6, height * 0.05);

type Brush = CanvasRenderingContext2D;
/** The outline of a panel, by the look: torn off at its right, or cut by hand. */
export function outline(context: Brush, width: number, height: number): void {
  const { panel } = lookNow();
  const e = edgeOf(height);
  context.beginPath();
  if (panel.edge === "torn") {
    const tooth = e * 0.5;
    const teeth = Math.max(4, Math.round(height / tooth));
    context.moveTo(0, 0);
    context.lineTo(width - tooth, 0);
    for (let i = 0; i < teeth; i += 1) {
      context.lineTo(width, ((i + 0.5) * height) / teeth);
      context.lineTo(width - tooth, ((i + 1) * height) / teeth);
    }
    context.lineTo(0, height);
    context.closePath();
    return;
  }
  if (panel.edge === "cut") {
    context.moveTo(e * 0.3, e * 0.1);
    context.lineTo(width * 0.55, 0);
    context.lineTo(width - e * 0.1, e * 0.4);
    context.lineTo(width, height * 0.6);
    context.lineTo(width - e * 0.5, height - e * 0.1);
    context.lineTo(width * 0.4, height);
    context.lineTo(e * 0.2, height - e * 0.35);
    context.lineTo(0, height * 0.4);
    context.closePath();
    return;
  }
  context.roundRect(0, 0, width, height, e * panel.round);
}

/**
 * A panel over all of a scene's own canvas, so that letters are read over any picture. False where there is nothing to
 * draw: it is away, or its page has no size yet.
 */
export function paintPanel(context: Brush, width: number, height: number, there: number): boolean {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.clearRect(0, 0, width, height);
  if (there <= 0 || width < 40 || height < 40) return false;
  drawPanel(context, width, height, there);
  return true;
}
/** The panel alone, from the corner where the brush stands. */
export function drawPanel(context: Brush, width: number, height: number, there: number): void {
  const { panel } = lookNow();
  outline(context, width, height);
  context.fillStyle = panel.fill;
  context.globalAlpha = there * panel.alpha;
  context.fill();
  context.globalAlpha = there;
  if (panel.edge === "double") {
    const e = edgeOf(height);
    context.strokeStyle = shade(panel.fill, luminance(panel.fill) > 0.4 ? -0.42 : 0.4);
    for (const [inset, thick] of [
      [e * 0.14, e * 0.12],
      [e * 0.38, e * 0.05],
    ] as const) {
      context.lineWidth = Math.max(1, thick);
      context.beginPath();
      context.roundRect(inset, inset, width - 2 * inset, height - 2 * inset, e * panel.round * 0.8);
      context.stroke();
    }
  }
  if (panel.edge === "torn") {
    context.strokeStyle = shade(panel.fill, -0.3);
    context.lineWidth = Math.max(1, edgeOf(height) * 0.06);
    context.setLineDash([edgeOf(height) * 0.25, edgeOf(height) * 0.2]);
    context.beginPath();
    context.moveTo(width - edgeOf(height) * 0.95, 0);
    context.lineTo(width - edgeOf(height) * 0.95, height);
    context.stroke();
    context.setLineDash([]);
  }
}

/** Letters over a panel that hardly covers what is behind it get a dark edge of their own. */
export function writeOn(context: Brush, text: string, x: number, y: number, size: number, most?: number): void {
  const { panel, outline: edge } = lookNow();
  if (panel.alpha < 0.6) {
    context.lineJoin = "round";
    context.lineWidth = size * edge;
    context.strokeStyle = "rgba(16,12,10,.9)";
    if (most === undefined) context.strokeText(text, x, y);
    else context.strokeText(text, x, y, most);
  }
  if (most === undefined) context.fillText(text, x, y);
  else context.fillText(text, x, y, most);
}

/** A bar that is so full, in the look's own form. */
export function paintBar(context: Brush, x: number, y: number, w: number, h: number, share: number, full: string, empty: string): void {
  const { bar } = lookNow();
  const filled = w * Math.min(1, Math.max(0, share));
  const round = bar === "round" ? h * 0.3 : 0;
  context.save();
  context.beginPath();
  if (bar === "notched") {
    context.moveTo(x, y + h * 0.12);
    context.lineTo(x + w - h * 0.4, y);
    context.lineTo(x + w, y + h * 0.5);
    context.lineTo(x + w - h * 0.4, y + h);
    context.lineTo(x + h * 0.1, y + h * 0.9);
    context.closePath();
  } else context.roundRect(x, y, w, h, round);
  context.fillStyle = bar === "square" || bar === "ruled" ? "#FBF8F2" : "rgba(16,19,27,.72)";
  context.fill();
  context.clip();
  const inset = bar === "ruled" ? h * 0.18 : h * 0.1;
  context.beginPath();
  context.roundRect(x + inset, y + inset, w - 2 * inset, h - 2 * inset, Math.max(0, round - inset * 0.8));
  context.clip();
  context.fillStyle = empty;
  context.fillRect(x, y, w, h);
  context.fillStyle = full;
  context.fillRect(x, y, filled, h);
  if (bar === "ruled") {
    // Filled by strokes, as one keeps count.
    context.fillStyle = "#FBF8F2";
    for (let at = x + h * 0.62; at < x + w; at += h * 0.62) context.fillRect(at, y, h * 0.12, h);
  } else {
    context.fillStyle = "rgba(255,255,255,.22)";
    context.fillRect(x, y + h * 0.12, filled, h * 0.22);
  }
  context.restore();
  if (bar !== "notched") return;
  context.strokeStyle = "rgba(16,12,10,.9)";
  context.lineWidth = h * 0.12;
  context.strokeRect(x + filled, y + h * 0.06, 0.01, h * 0.88);
}
