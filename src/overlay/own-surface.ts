import type { Box } from "./box";
import type { Surface } from "./surface";

/** A scene's own canvas, made when it is first drawn on: where it stands in the order of the stage, and how it goes. */
export class OwnSurface {
  private surface: Surface | null = null;
  private order = 0;
  constructor(private readonly make: () => Surface) {}

  /** Fitted to the box of this frame; its size in pixels, and where to draw. */
  fit(box: Box): Readonly<{ width: number; height: number; scale: number; context: CanvasRenderingContext2D | null }> {
    this.surface ??= this.make();
    const { canvas, context } = this.surface;
    canvas.style.zIndex = String(this.order);
    canvas.style.opacity = String(box.opacity ?? 1);
    const size = this.surface.fit(box, box.stageWidth ?? box.width);
    return { ...size, scale: this.surface.scale, context };
  }
  /** Puts a film under the canvas, over these pixels of it, with this much of its own cover; seen where the canvas is empty. */
  under(film: HTMLElement, at: Readonly<{ x: number; y: number; width: number; height: number }>, opacity: number): void {
    const canvas = this.surface?.canvas;
    if (canvas === undefined) return;
    // Beside it, and before it: of two at one place in the order the later lies above.
    if (film.nextElementSibling !== canvas) canvas.before(film);
    const css = parseFloat(canvas.style.width) / Math.max(1, canvas.width);
    const { style } = film;
    style.position = "absolute";
    style.pointerEvents = "none";
    style.objectFit = "fill";
    style.left = `${parseFloat(canvas.style.left) + at.x * css}px`;
    style.top = `${parseFloat(canvas.style.top) + at.y * css}px`;
    style.width = `${at.width * css}px`;
    style.height = `${at.height * css}px`;
    style.zIndex = canvas.style.zIndex;
    style.opacity = String(Number(canvas.style.opacity) * opacity);
  }
  empty(): void {
    const { context, canvas } = this.surface ?? { context: null, canvas: { width: 0, height: 0 } };
    // Whoever painted last may have left it turned.
    context?.setTransform(1, 0, 0, 1, 0, 0);
    context?.clearRect(0, 0, canvas.width, canvas.height);
  }
  stack(order: number): void {
    this.order = order;
    if (this.surface !== null) this.surface.canvas.style.zIndex = String(order);
  }
  free(): void {
    this.surface?.free();
  }
}

/** The smallest letter on a scene's own canvas, pixels: a share of the stage's height, however small the scene is. */
export const leastLetter = (box: Box, scale: number): number => (box.stageWidth ?? box.width) * 0.5625 * scale * 0.024;
