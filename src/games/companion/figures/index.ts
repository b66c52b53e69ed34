import { figures } from "../../../core/games/companion/settings";
import { cat } from "./cat";
import { crab } from "./crab";
import type { Drawn } from "./drawn";
import { ember } from "./ember";
import { snail } from "./snail";

export const drawnFigures: Readonly<Record<(typeof figures)[number], Drawn>> = { cat, crab, snail, ember };
export const figureWords: Readonly<Record<(typeof figures)[number], string>> = {
  cat: "kiln cat",
  crab: "crab",
  snail: "snail with a pot",
  ember: "ember",
};
export const drawnOf = (name: string): Drawn | null =>
  // Only the names of the list are its own keys.
  Object.hasOwn(drawnFigures, name) ? drawnFigures[name as (typeof figures)[number]] : null;
