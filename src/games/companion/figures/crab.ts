import { type Drawn, ellipse, eyes, mirrored, type Shape } from "./drawn";

const legs: readonly Shape[] = [
  { d: "M30 78 C21 79 17 85 15 93", limb: 3.6, stroke: "dark" },
  { d: "M35 83 C28 86 26 90 26 95.5", limb: 3.6, stroke: "dark" },
  { d: "M41 85 C37 89 36.4 92 37 96.5", limb: 3.6, stroke: "dark" },
];
const claw: readonly Shape[] = [
  { d: "M27 70 C19 70 14 64 14 56", limb: 5.6, stroke: "glaze" },
  {
    d: "M13 58 C4 54 3 42 11 35 C11 41 14 44.5 18 45.5 C18 40 21 36 26 35 C30 44 27 55 18 58.6 C16 59.2 14.6 59 13 58 Z",
    fill: "glaze",
    line: 2.2,
  },
  { d: "M8.6 48 C8 45 8.6 42.4 10 40", stroke: "light", line: 1.8 },
];
const flip = (shapes: readonly Shape[]): Shape[] => shapes.map((s) => ({ ...s, d: mirrored(s.d) }));

/** The crab: broad, on six legs, eyes on stalks, dabs of another glaze on its shell. */
export const crab: Drawn = {
  looks: "right",
  arms: 0.2,
  top: 26,
  wide: 82,
  parts: [
    { name: "leg-left", at: [36, 80], shapes: legs },
    { name: "leg-right", at: [64, 80], shapes: flip(legs) },
    {
      name: "body",
      at: [50, 90],
      shapes: [
        { d: "M17 71 C17 55 32 47 50 47 C68 47 83 55 83 71 C83 84 67 89 50 89 C33 89 17 84 17 71 Z", fill: "glaze", line: 2.5 },
        { d: "M22 76 C29 86 71 86 78 76 C74 85 62 88 50 88 C38 88 26 85 22 76 Z", fill: "pale" },
        { d: ellipse(29, 61, 3.4, 2.6), fill: "light" },
        { d: ellipse(36, 54.6, 2.2, 1.7), fill: "light" },
        { d: ellipse(70, 60, 3.8, 2.8), fill: "light" },
        { d: ellipse(63, 54.4, 1.9, 1.5), fill: "light" },
        { d: ellipse(30, 74, 3.4, 2), fill: "blush" },
        { d: ellipse(70, 74, 3.4, 2), fill: "blush" },
      ],
    },
    { name: "arm-left", at: [27, 70], shapes: claw },
    { name: "arm-right", at: [73, 70], shapes: flip(claw) },
    {
      name: "head",
      at: [50, 54],
      shapes: [
        { d: "M43 52 C42 46 41 42 40 38", limb: 3.8, stroke: "glaze" },
        { d: "M57 52 C58 46 59 42 60 38", limb: 3.8, stroke: "glaze" },
      ],
    },
    ...eyes(33, [39, 61], 6.6, "glaze"),
    { name: "mouth", at: [50, 70], shapes: [{ d: "M41 68 C45 74 55 74 59 68", stroke: "ink", line: 2.2 }] },
    {
      name: "mouth-open",
      at: [50, 68],
      shapes: [{ d: "M42 67.6 C43 79 57 79 58 67.6 C53 69.6 47 69.6 42 67.6 Z", fill: "#5A231C", line: 1.8 }],
    },
  ],
};
