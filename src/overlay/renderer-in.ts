import type { Renderer } from "./renderer";
import { BitmapRenderer } from "./renderer-bitmaps";
import { InstancedRenderer } from "./renderer-instanced";
import type { SpriteBook } from "./sprites";

/** A canvas over all of the stage with who draws on it: by the graphics card where that is wanted and there is one. */
export function rendererIn(sprites: SpriteBook, tryInstanced: boolean): [HTMLCanvasElement, Renderer] {
  const fresh = (): HTMLCanvasElement => {
    const canvas = document.createElement("canvas");
    canvas.style.cssText = "position:absolute;inset:0;width:100%;height:100%;pointer-events:none";
    canvas.setAttribute("aria-hidden", "true");
    return canvas;
  };
  if (tryInstanced)
    try {
      const canvas = fresh();
      return [canvas, new InstancedRenderer(canvas, sprites)];
    } catch {
      // No such card, or not now: without one it goes as well.
    }
  const canvas = fresh();
  return [canvas, new BitmapRenderer(canvas, sprites)];
}
