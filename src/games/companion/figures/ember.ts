import { type Drawn, ellipse, eyes, mirrored } from "./drawn";

const flame = "M35 58 C26 52 25 43 29 35 C36 40 41 47 41 55 Z";
const arm = "M30 75 C23 76 20 81 21 87";

/** An ember of the kiln: a small fire on two coals, which burns brighter the better its mood. */
export const ember: Drawn = {
  looks: "left",
  arms: 0.9,
  top: 20,
  wide: 58,
  glows: true,
  parts: [
    { name: "tail", at: [50, 50], shapes: [{ d: "M44 52 C39 40 46 33 47 20 C57 27 63 38 57 51 Z", fill: "light", line: 2.2 }] },
    { name: "ear-left", at: [39, 57], shapes: [{ d: flame, fill: "glaze", line: 2.2 }] },
    { name: "ear-right", at: [61, 57], shapes: [{ d: mirrored(flame), fill: "glaze", line: 2.2 }] },
    { name: "leg-left", at: [41, 92], shapes: [{ d: "M32 95 C32 89 46 88 47 95 C45 98.6 34 98.6 32 95 Z", fill: "#3A2A24", line: 2 }] },
    {
      name: "leg-right",
      at: [59, 92],
      shapes: [{ d: mirrored("M32 95 C32 89 46 88 47 95 C45 98.6 34 98.6 32 95 Z"), fill: "#3A2A24", line: 2 }],
    },
    { name: "arm-left", at: [30, 75], shapes: [{ d: arm, limb: 5.4, stroke: "glaze" }] },
    { name: "arm-right", at: [70, 75], shapes: [{ d: mirrored(arm), limb: 5.4, stroke: "glaze" }] },
    {
      name: "body",
      at: [50, 95],
      shapes: [
        {
          d: "M50 36 C57 46 78 54 77 75 C76 89 65 94.5 50 94.5 C35 94.5 24 89 23 75 C22 61 33 56 37 46 C41 49 43.6 52 44.4 55 C47.6 48 49.4 43 50 36 Z",
          fill: "glaze",
          line: 2.5,
        },
        { d: "M50 57 C56 64 68 69 66 80 C64 89 58 91.5 50 91.5 C42 91.5 36 89 34 80 C33 71 43 66 50 57 Z", fill: "pale" },
      ],
    },
    {
      name: "head",
      at: [50, 84],
      shapes: [
        { d: ellipse(37, 79, 3, 1.9), fill: "blush" },
        { d: ellipse(63, 79, 3, 1.9), fill: "blush" },
      ],
    },
    ...eyes(71, [42, 58], 5.7, "pale"),
    { name: "mouth", at: [50, 81], shapes: [{ d: "M44.6 80.4 C47 84 53 84 55.4 80.4", stroke: "ink", line: 2 }] },
    {
      name: "mouth-open",
      at: [50, 80],
      shapes: [{ d: "M45 80 C45.6 89 54.4 89 55 80 C52 81.6 48 81.6 45 80 Z", fill: "#5A231C", line: 1.7 }],
    },
  ],
};
