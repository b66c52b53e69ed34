import { type Drawn, ellipse, eyes } from "./drawn";

/** The snail: carries a lidded pot where others have a shell. */
export const snail: Drawn = {
  looks: "right",
  arms: 0,
  top: 28,
  wide: 84,
  parts: [
    { name: "tail", at: [26, 92], shapes: [{ d: "M30 84 C18 84 9 88 5 95 C14 97 26 97 34 96 Z", fill: "#D9C2A0", line: 2.3 }] },
    {
      name: "body",
      at: [50, 96],
      shapes: [
        {
          d: "M22 90 C30 82 50 84 60 83 C68 82 69 74 69 66 C69 56 75 51 82 52 C90 53 93 61 92 70 C91 84 86 96 72 96.5 L24 96.5 C18 96.5 18 93 22 90 Z",
          fill: "#D9C2A0",
          line: 2.4,
        },
        { d: "M26 93.4 C40 90.4 62 94 78 90", stroke: "#B4946A", line: 1.8 },
      ],
    },
    {
      name: "back",
      at: [43, 88],
      shapes: [
        { d: "M23 86 C13 72 18 54 31 48 L30.4 42 L55.6 42 L55 48 C68 54 73 72 63 86 C53 90.5 33 90.5 23 86 Z", fill: "glaze", line: 2.5 },
        { d: "M19.4 66 C30 70 56 70 66.6 66 L67 72 C56 76 30 76 19 72 Z", fill: "light" },
        { d: "M28 56 C26 58 24.6 60 24 62", stroke: "white", line: 2.2 },
        { d: "M28 42 C28 37.5 58 37.5 58 42 C58 44.5 28 44.5 28 42 Z", fill: "dark", line: 2.2 },
        { d: ellipse(43, 37.4, 3.4, 2.8), fill: "glaze", line: 2 },
      ],
    },
    {
      name: "head",
      at: [80, 66],
      shapes: [
        { d: "M76 56 C75 50 74 46 73 42", limb: 3.2, stroke: "#D9C2A0" },
        { d: "M85 56 C86 50 87 47 88.4 43", limb: 3.2, stroke: "#D9C2A0" },
        { d: ellipse(78, 67, 2.8, 1.7), fill: "blush" },
      ],
    },
    ...eyes(38, [72, 89], 5.4, "#D9C2A0"),
    { name: "mouth", at: [85, 66], shapes: [{ d: "M81 64.6 C83.4 68.4 88 68 89.6 63.8", stroke: "ink", line: 2 }] },
    {
      name: "mouth-open",
      at: [85, 65],
      shapes: [{ d: "M81 64 C82 73 90 72 90 63.4 C87 65.6 84 65.6 81 64 Z", fill: "#5A231C", line: 1.7 }],
    },
  ],
};
