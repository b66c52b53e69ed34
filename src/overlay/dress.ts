import { type Dress, dressDefaults, type LookName } from "../core/dress/dress";
import { ink, luminance } from "./colour";

/** Everything that a look decides: letters, panels, bars, and the temper of what moves. */
export type Look = Readonly<{
  family: string;
  /** Added to the weight that a painter asks for. */
  heavier: number;
  panel: Readonly<{ fill: string; alpha: number; round: number; edge: "none" | "double" | "torn" | "cut" }>;
  letters: string;
  soft: string;
  accent: string;
  bar: "round" | "square" | "notched" | "ruled";
  /** How far things go beyond where they come to rest, and how long they take beside the usual. */
  overshoot: number;
  pace: number;
  /** So thick is the dark edge of letters that stand on no panel, in shares of their size. */
  outline: number;
}>;

const emoji = '"Noto Color Emoji",sans-serif';
const bricolage = `"Bricolage Grotesque Variable",${emoji}`;
const looks: Readonly<Record<LookName, Look>> = {
  kiln: {
    family: bricolage,
    heavier: 0,
    panel: { fill: "#10131B", alpha: 0.72, round: 0.8, edge: "none" },
    letters: "#FFF8E8",
    soft: "#D8CFBD",
    accent: "#FFE3A3",
    bar: "round",
    overshoot: 1.7,
    pace: 1,
    outline: 0.2,
  },
  porcelain: {
    family: `"Atkinson Hyperlegible Next Variable",${emoji}`,
    heavier: -100,
    panel: { fill: "#FBF8F2", alpha: 0.95, round: 0.35, edge: "double" },
    letters: "#191C26",
    soft: "#565B69",
    accent: "#8F3B22",
    bar: "square",
    overshoot: 0.35,
    pace: 1.25,
    outline: 0.16,
  },
  linocut: {
    family: bricolage,
    heavier: 200,
    panel: { fill: "#221A16", alpha: 0.34, round: 0, edge: "cut" },
    letters: "#FFF3D6",
    soft: "#F0DDB8",
    accent: "#F2B63C",
    bar: "notched",
    overshoot: 2.7,
    pace: 1.1,
    outline: 0.3,
  },
  ledger: {
    family: `"Atkinson Hyperlegible Mono Variable",${emoji}`,
    heavier: 0,
    panel: { fill: "#EFE6D2", alpha: 0.97, round: 0.15, edge: "torn" },
    letters: "#23281F",
    soft: "#57584A",
    accent: "#7A2E1D",
    bar: "ruled",
    overshoot: 0,
    pace: 0.7,
    outline: 0.18,
  },
};

/** The family of an uploaded font. */
export const ownFamily = "Izzam Own";
let dress: Dress = dressDefaults;
let look: Look = looks.kiln;
/** The font that was loaded last, or is being. */
let worn = "";

function made(of: Dress): Look {
  const base = looks[of.look];
  const { panel, letters, accent } = of.colours;
  const fill = panel === "" ? base.panel.fill : panel;
  // Letters that were chosen for another ground would be lost on this one: unless they were chosen too.
  const turned = panel !== "" && letters === "" && luminance(fill) > 0.26 !== luminance(base.panel.fill) > 0.26;
  const own = letters === "" ? (turned ? (luminance(fill) > 0.26 ? ink : "#FFF8E8") : base.letters) : letters;
  return {
    ...base,
    // Until it has come, and where it can't be read, the look's own letters stand in.
    family: of.font.url === "" ? base.family : `"${ownFamily}",${base.family}`,
    panel: { ...base.panel, fill },
    letters: own,
    soft: letters === "" && !turned ? base.soft : own,
    accent: accent === "" ? (turned ? own : base.accent) : accent,
  };
}

/** A page shows one overlay, so it wears one dress; whether it is another one. `arrived` once its font has come. */
export function wear(next: Dress, arrived: () => void = () => undefined): boolean {
  const same = JSON.stringify(next) === JSON.stringify(dress);
  dress = next;
  look = made(dress);
  const { url } = next.font;
  if (same || url === "" || url === worn) return !same;
  worn = url;
  for (const old of [...document.fonts]) if (old.family.replace(/"/g, "") === ownFamily) document.fonts.delete(old);
  const face = new FontFace(ownFamily, `url(${url})`, { weight: "200 900" });
  void face.load().then(
    () => {
      // Another one may have been chosen meanwhile.
      if (worn !== url) return;
      document.fonts.add(face);
      arrived();
    },
    () => {
      // Asked for again with the next dress.
      if (worn === url) worn = "";
    },
  );
  return true;
}
export const lookNow = (): Look => look;
export const dressNow = (): Dress => dress;
/** A font as a canvas takes it. */
export const lettering = (weight: number, px: number): string =>
  `${Math.max(200, Math.min(800, weight + look.heavier))} ${px}px ${look.family}`;
