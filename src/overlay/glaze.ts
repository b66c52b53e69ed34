import type { Pattern } from "../core/pictures/patterns";
import { luminance, shade } from "./colour";

type Brush = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;
/** The pattern of a glaze over the whole of a segment: what tells it apart beside its colour. */
export function glaze(context: Brush, pattern: Pattern, colour: string, r: number): void {
  if (pattern === "plain") return;
  const u = Math.max(5, r * 0.075);
  context.strokeStyle = context.fillStyle = shade(colour, luminance(colour) > 0.45 ? -0.2 : 0.24);
  context.lineWidth = u * 0.13;
  context.globalAlpha = 0.75;
  const span = Math.ceil(r / u) * u;
  for (let y = -span; y <= span; y += u)
    for (let x = -span, i = 0; x <= span; x += u, i += 1) {
      const odd = Math.round(y / u) % 2 !== 0;
      mark(context, pattern, x + (odd ? u / 2 : 0), y, u);
    }
  context.globalAlpha = 1;
}
function mark(context: Brush, pattern: Pattern, x: number, y: number, u: number): void {
  context.beginPath();
  switch (pattern) {
    case "dots":
      context.arc(x, y, u * 0.14, 0, Math.PI * 2);
      return context.fill();
    case "grain":
      context.arc(x, y, u * 0.06, 0, Math.PI * 2);
      context.arc(x + u * 0.5, y + u * 0.45, u * 0.05, 0, Math.PI * 2);
      return context.fill();
    case "stripes":
      context.moveTo(x - u * 0.55, y + u * 0.55);
      context.lineTo(x + u * 0.55, y - u * 0.55);
      return context.stroke();
    case "waves":
      context.moveTo(x - u / 2, y);
      context.quadraticCurveTo(x - u / 4, y - u * 0.4, x, y);
      context.quadraticCurveTo(x + u / 4, y + u * 0.4, x + u / 2, y);
      return context.stroke();
    case "crosses":
      context.moveTo(x - u * 0.2, y);
      context.lineTo(x + u * 0.2, y);
      context.moveTo(x, y - u * 0.2);
      context.lineTo(x, y + u * 0.2);
      return context.stroke();
    case "triangles":
      context.moveTo(x, y - u * 0.24);
      context.lineTo(x + u * 0.24, y + u * 0.18);
      context.lineTo(x - u * 0.24, y + u * 0.18);
      context.closePath();
      return context.stroke();
    case "net":
      context.moveTo(x - u / 2, y - u / 2);
      context.lineTo(x + u / 2, y + u / 2);
      context.moveTo(x + u / 2, y - u / 2);
      context.lineTo(x - u / 2, y + u / 2);
      return context.stroke();
    case "plain":
      return;
  }
}
