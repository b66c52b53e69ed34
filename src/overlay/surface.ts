import type { Box } from "./box";

const mostPixels = 1_600 * 1_200;

/**
 * A canvas of a scene's own, only as large as the scene's box: what is drawn with paths would otherwise
 * make the whole picture be painted anew in every frame.
 */
export class Surface {
  readonly canvas = document.createElement("canvas");
  readonly context: CanvasRenderingContext2D | null;
  private placed = "";
  /** Pixels of this canvas per pixel of the stage's. */
  scale = 1;

  constructor(private readonly host: HTMLElement) {
    this.canvas.style.cssText = "position:absolute;pointer-events:none";
    this.canvas.setAttribute("aria-hidden", "true");
    this.context = this.canvas.getContext("2d");
    host.append(this.canvas);
  }

  /** Puts it over a box given in pixels of a stage that is `stageWidth` wide. Returns its own size. */
  fit(box: Box, stageWidth: number): Readonly<{ width: number; height: number }> {
    const css = this.host.clientWidth / Math.max(1, stageWidth);
    this.scale = Math.min(1, Math.sqrt(mostPixels / Math.max(1, box.width * box.height)));
    const width = Math.max(1, Math.round(box.width * this.scale));
    const height = Math.max(1, Math.round(box.height * this.scale));
    const placed = [box.x, box.y, box.width, box.height, css, width, height].map((n) => n.toFixed(2)).join(" ");
    if (placed !== this.placed) {
      this.placed = placed;
      this.canvas.width = width;
      this.canvas.height = height;
      this.canvas.style.left = `${box.x * css}px`;
      this.canvas.style.top = `${box.y * css}px`;
      this.canvas.style.width = `${box.width * css}px`;
      this.canvas.style.height = `${box.height * css}px`;
    }
    return { width, height };
  }

  free(): void {
    this.canvas.remove();
  }
}
