import type { Box } from "./box";
import type { Renderer } from "./renderer";
import type { SpriteBuffer } from "./sprite-buffer";

const mostPixels = 1_920 * 1_200;

/** A canvas of a scene's own for sprites, so that they can stand between two of its painted ones. Places are its own pixels. */
export class SpriteLayer {
  private placed = "";
  private corner = { x: 0, y: 0 };
  /** Pixels of this canvas per pixel of the stage's. */
  scale = 1;
  constructor(
    private readonly host: HTMLElement,
    private canvas: HTMLCanvasElement,
    private renderer: Renderer,
    private readonly again: () => readonly [HTMLCanvasElement, Renderer],
    /** Told where on the stage the youngest sprite stands. */
    private readonly sees: (x: number, y: number) => void = () => undefined,
  ) {
    this.adopt();
    canvas.addEventListener("webglcontextlost", () => this.replace());
  }
  private adopt(): void {
    this.canvas.style.cssText = "position:absolute;pointer-events:none";
    this.canvas.setAttribute("aria-hidden", "true");
  }
  /** Its card went away: it goes on without one. */
  private replace(): void {
    const [canvas, renderer] = this.again();
    canvas.style.zIndex = this.canvas.style.zIndex;
    this.canvas.replaceWith(canvas);
    this.canvas = canvas;
    this.renderer = renderer;
    const z = this.canvas.style.zIndex;
    this.adopt();
    this.canvas.style.zIndex = z;
    this.placed = "";
  }
  set coarse(on: boolean) {
    this.renderer.coarse = on;
  }
  fit(box: Box, stageWidth: number): void {
    this.corner = { x: box.x, y: box.y };
    const css = this.host.clientWidth / Math.max(1, stageWidth);
    this.scale = Math.min(1, Math.sqrt(mostPixels / Math.max(1, box.width * box.height)));
    const width = Math.max(1, Math.round(box.width * this.scale));
    const height = Math.max(1, Math.round(box.height * this.scale));
    const placed = [box.x, box.y, box.width, box.height, css, width, height].map((n) => n.toFixed(2)).join(" ");
    this.canvas.style.opacity = String(box.opacity ?? 1);
    if (placed === this.placed) return;
    this.placed = placed;
    this.renderer.resize(width, height);
    const { style } = this.canvas;
    style.left = `${box.x * css}px`;
    style.top = `${box.y * css}px`;
    style.width = `${box.width * css}px`;
    style.height = `${box.height * css}px`;
  }
  draw(flat: SpriteBuffer): void {
    if (flat.count > 0) this.renderer.draw(flat);
    else this.renderer.clear();
    flat.youngest((x, y) => this.sees(this.corner.x + x / this.scale, this.corner.y + y / this.scale));
  }
  clear(): void {
    this.renderer.clear();
  }
  stack(order: number): void {
    this.canvas.style.zIndex = String(order);
  }
  free(): void {
    this.renderer.free();
    this.canvas.remove();
  }
}
