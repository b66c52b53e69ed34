import type { Creature } from "../../core/games/boss-battle/settings";

/** The vessel-creatures, drawn in a square of 100 by 100: y runs down, the feet stand at 96. */
export type Figure = Readonly<{
  /** The vessel itself: what glaze drains from, what cracks. */
  body: string;
  /** Handles and spouts: thick strokes behind the body. */
  limbs: readonly Readonly<{ path: string; width: number }>[];
  /** The opening at the top: an ellipse. */
  rim: Readonly<{ x: number; y: number; rx: number; ry: number }>;
  eyes: Readonly<{ y: number; apart: number; size: number }>;
  feet: number;
  /** Where the glaze ends when it is full, and when it is gone. */
  top: number;
  bottom: number;
}>;

export const figures: Readonly<Record<Creature, Figure>> = {
  jug: {
    body: "M33 20 L21 13 L29 27 C24 35 17 44 16 58 C15 79 28 93 50 93 C72 93 84 79 82 58 C81 43 71 33 67 22 C66 16 59 13 50 13 C42 13 35 15 33 20 Z",
    limbs: [{ path: "M77 40 C100 34 101 74 80 72", width: 7 }],
    rim: { x: 49, y: 18, rx: 16, ry: 4 },
    eyes: { y: 50, apart: 12, size: 7 },
    feet: 17,
    top: 18,
    bottom: 93,
  },
  bottle: {
    body: "M42 8 L58 8 L57 29 C74 37 81 51 81 67 C81 85 69 93 50 93 C31 93 19 85 19 67 C19 51 26 37 43 29 Z",
    limbs: [
      { path: "M22 62 C10 64 8 52 14 46", width: 6 },
      { path: "M78 62 C90 64 92 52 86 46", width: 6 },
    ],
    rim: { x: 50, y: 9, rx: 9, ry: 2.6 },
    eyes: { y: 57, apart: 11, size: 6.5 },
    feet: 15,
    top: 10,
    bottom: 93,
  },
  bowl: {
    body: "M7 40 C8 68 20 90 38 90 L36 94 L64 94 L62 90 C80 90 92 68 93 40 C93 33 7 33 7 40 Z",
    limbs: [],
    rim: { x: 50, y: 40, rx: 42, ry: 6 },
    eyes: { y: 62, apart: 15, size: 8 },
    feet: 13,
    top: 38,
    bottom: 92,
  },
  teapot: {
    body: "M23 46 C17 72 28 93 51 93 C74 93 85 72 79 46 C77 41 71 37 66 36 C63 27 58 25 55 24 C57 20 54 16 51 16 C48 16 45 20 47 24 C44 25 39 27 36 36 C31 37 25 41 23 46 Z",
    limbs: [
      { path: "M27 68 C9 68 13 48 3 40", width: 10 },
      { path: "M77 50 C99 42 100 84 76 78", width: 7 },
    ],
    rim: { x: 51, y: 36, rx: 16, ry: 3 },
    eyes: { y: 58, apart: 12, size: 7.5 },
    feet: 17,
    top: 17,
    bottom: 93,
  },
  urn: {
    body: "M35 9 L65 9 L62 23 C82 29 90 45 84 61 C79 75 66 80 61 88 L66 94 L34 94 L39 88 C34 80 21 75 16 61 C10 45 18 29 38 23 Z",
    limbs: [
      { path: "M36 14 C16 8 8 32 18 40", width: 5.5 },
      { path: "M64 14 C84 8 92 32 82 40", width: 5.5 },
    ],
    rim: { x: 50, y: 10, rx: 15, ry: 3 },
    eyes: { y: 48, apart: 13, size: 7.5 },
    feet: 12,
    top: 11,
    bottom: 93,
  },
};
export const figureOf = (name: string): Figure | null => (Object.hasOwn(figures, name) ? figures[name as Creature] : null);
