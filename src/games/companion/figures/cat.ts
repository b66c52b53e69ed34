import { type Drawn, ellipse, eyes, mirrored, type Shape } from "./drawn";

const front = "M40 64 C36 73 36 82 40 90";
const paw: Shape = { d: "M30 95 C30 88 45 88 46 95 C44 98.5 33 98.5 30 95 Z", fill: "glaze", line: 2 };
const ear = "M29 35 C26 27 25 20 26 13 C34 15 42 19 46 24 Z";
const inner = "M31 29 C29.5 25 29 22 29.5 19 C34 20 38 22 41 24.5 Z";

/** The kiln cat: sits upright, wears the potter's kerchief, has clay on one paw. */
export const cat: Drawn = {
  looks: "left",
  arms: 1,
  top: 14,
  wide: 52,
  parts: [
    {
      name: "tail",
      at: [64, 88],
      shapes: [
        { d: "M62 89 C80 93 91 82 85 67 C82 60 78 56 80 49", limb: 8.5, stroke: "glaze" },
        { d: "M80.4 53 C79.6 51 79.4 50.6 80 49", limb: 7.6, stroke: "dark" },
      ],
    },
    {
      name: "body",
      at: [50, 95],
      shapes: [
        { d: "M33 94 C25 80 30 60 42 52 C46 49 54 49 58 52 C70 60 75 80 67 94 C60 97.5 40 97.5 33 94 Z", fill: "glaze", line: 2.4 },
        { d: "M42 94 C38 84 41 70 50 70 C59 70 62 84 58 94 C54 96 46 96 42 94 Z", fill: "#E6D2B0" },
        { d: "M66 70 C69 70 70 71 71 73 M67.5 77 C70 77 71.4 78 72 80", stroke: "dark", line: 2 },
      ],
    },
    { name: "leg-left", at: [39, 90], shapes: [paw] },
    {
      name: "leg-right",
      at: [61, 90],
      shapes: [
        { ...paw, d: mirrored(paw.d) },
        { d: "M57 92.6 C58 91.4 60 91.2 61.6 92", stroke: "#C9A27E", line: 2.2 },
      ],
    },
    {
      name: "ear-left",
      at: [36, 30],
      shapes: [
        { d: ear, fill: "glaze", line: 2.4 },
        { d: inner, fill: "blush" },
      ],
    },
    {
      name: "ear-right",
      at: [64, 30],
      shapes: [
        { d: mirrored(ear), fill: "glaze", line: 2.4 },
        { d: mirrored(inner), fill: "blush" },
      ],
    },
    {
      name: "head",
      at: [50, 57],
      shapes: [
        { d: "M37 55 C43 60 57 60 63 55 C63 60 60 63 57 64 L50 71 L43 64 C40 63 37 60 37 55 Z", fill: "#3D6A8A", line: 2 },
        { d: "M50 21 C66 21 74 30 74 41 C74 52 63 59 50 59 C37 59 26 52 26 41 C26 30 34 21 50 21 Z", fill: "glaze", line: 2.5 },
        { d: "M50 22.5 L50 28.5 M44.5 23.4 L45.4 28 M55.5 23.4 L54.6 28", stroke: "dark", line: 2.4 },
        { d: "M50 44.5 C57 44.5 62 47.5 61 52 C59 56.5 41 56.5 39 52 C38 47.5 43 44.5 50 44.5 Z", fill: "#E6D2B0" },
        { d: "M47.2 45 C48.6 44.2 51.4 44.2 52.8 45 C52.4 47 51.2 48.2 50 48.4 C48.8 48.2 47.6 47 47.2 45 Z", fill: "ink" },
        { d: "M36 50 L24 48 M36 53 L25 55 M64 50 L76 48 M64 53 L75 55", stroke: "ink", line: 1.2 },
      ],
    },
    ...eyes(39, [40.5, 59.5], 6.2, "glaze"),
    {
      name: "mouth",
      at: [50, 50.6],
      shapes: [{ d: "M44.4 50.4 C46 53.2 49.4 53 50 49.6 C50.6 53 54 53.2 55.6 50.4", stroke: "ink", line: 1.9 }],
    },
    {
      name: "mouth-open",
      at: [50, 49.6],
      shapes: [
        { d: "M45 49.8 C45 57.5 55 57.5 55 49.8 C52 51.4 48 51.4 45 49.8 Z", fill: "#5A231C", line: 1.6 },
        { d: ellipse(50, 54.2, 2.6, 1.5), fill: "blush" },
      ],
    },
    { name: "arm-left", at: [40, 63], shapes: [{ d: front, limb: 8, stroke: "glaze" }] },
    {
      name: "arm-right",
      at: [60, 63],
      shapes: [
        { d: mirrored(front), limb: 8, stroke: "glaze" },
        { d: "M60.6 88.4 L60 90", limb: 7.4, stroke: "#C9A27E" },
      ],
    },
  ],
};
