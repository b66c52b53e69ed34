import type { Hint } from "../../module/game";
import { count } from "../../words/sentence";
import { outlineOf } from "./outline";
import { shareOf, wholeVessel } from "./pile";
import { type BrimfulSettings, dropKinds } from "./settings";

const asPiece = (size: number) => ({ size, solid: 90, wide: 100, body: "circle" as const });

/** Settings that would spoil the game, told before the show. */
export function brimfulHints(s: BrimfulSettings): readonly Hint[] {
  const hints: Hint[] = [];
  const { area, mouth } = outlineOf(s.vessel);
  const wide = (mouth.right - mouth.left) * 1000;
  const tiers = dropKinds.flatMap((kind) => s.drops[kind]);
  const sizes = [s.size, s.face.size, ...tiers.map((t) => t.size).filter((n) => n > 0)];
  const largest = Math.max(...sizes);
  if (largest > wide)
    hints.push({
      id: "too-wide",
      text: `A piece of ${count(largest)} ‰ does not go through the mouth, which is ${count(Math.floor(wide))} ‰ wide. It will lie on the rim.`,
      path: "size",
    });
  else if (largest > wide * 0.6)
    hints.push({
      id: "jams",
      text: `Pieces of ${count(largest)} ‰ may jam in the mouth, which is ${count(Math.floor(wide))} ‰ wide.`,
      path: "size",
    });
  const needed = Math.ceil(((s.brim.at / 100) * wholeVessel) / shareOf(asPiece(s.size), area));
  if (needed > s.cap * 4)
    hints.push({
      id: "many",
      text: `It takes some ${count(needed)} pieces to fill it, and ${count(s.cap)} move at once: most of the pile will lie still. Larger pieces fill it sooner.`,
      path: "size",
    });
  if (needed <= 5) hints.push({ id: "few", text: `${count(needed)} pieces fill it: nearly every gift brims it over.`, path: "size" });
  if (tiers.every((t) => t.pieces.give === 0 && t.faces.give === 0))
    hints.push({ id: "nothing-falls", text: "Nothing falls by itself. Only rules, cues and operators can drop anything." });
  if (s.goal.on && s.goal.at >= s.brim.at)
    hints.push({
      id: "goal-late",
      text: "The line stands at the brim or above it, so it is reached at best together with it.",
      path: "goal.at",
    });
  if (s.vessel.stand === "free" && s.vessel.tipMass <= Math.max(5, s.face.mass))
    hints.push({
      id: "tips-always",
      text: `Pieces of mass ${count(s.vessel.tipMass)} tip it over: ordinary ones do that too, each time.`,
      path: "vessel.tipMass",
    });
  if (s.vessel.stand === "free" && !tiers.some((t) => t.mass >= s.vessel.tipMass && t.pieces.give > 0))
    hints.push({
      id: "tips-never",
      text: "Nothing that falls is heavy enough to tip it; only cues, rules and operators can.",
      path: "vessel.tipMass",
    });
  return hints;
}
