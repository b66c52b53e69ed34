import type { Flat } from "./flat";

/** A way of drawing a flat buffer onto a canvas. */
export type Pen = {
  readonly name: "instanced" | "bitmaps";
  /** Draws without turning, when the machine can't keep up. */
  coarse: boolean;
  draw: (flat: Flat) => void;
  /** Goes through the motions of drawing, on a canvas that nobody sees. */
  rehearse: (flat: Flat) => void;
  clear: () => void;
  resize: (width: number, height: number) => void;
  free: () => void;
};
