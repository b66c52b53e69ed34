import type { SpriteBuffer } from "./sprite-buffer";

/** A way of drawing a flat buffer onto a canvas. */
export type Renderer = {
  readonly name: "instanced" | "bitmaps";
  /** Draws without turning, when the machine can't keep up. */
  coarse: boolean;
  draw: (flat: SpriteBuffer) => void;
  /** Goes through the motions of drawing, on a canvas that nobody sees. */
  rehearse: (flat: SpriteBuffer) => void;
  clear: () => void;
  resize: (width: number, height: number) => void;
  free: () => void;
};
