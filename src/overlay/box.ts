/** Where a scene draws, in pixels of the stage's canvas, which is `stageWidth` wide. */
export type Box = Readonly<{ x: number; y: number; width: number; height: number; stageWidth?: number; opacity?: number }>;
