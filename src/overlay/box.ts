/**
 * Where a scene draws, in pixels of the stage's canvas, which is `stageWidth` wide. `letters` changes when fonts came
 * in: text that was drawn before stands in another font, so a scene that keeps its picture draws it anew.
 */
export type Box = Readonly<{
  x: number;
  y: number;
  width: number;
  height: number;
  stageWidth?: number;
  opacity?: number;
  letters?: number;
}>;
