import { chancesInWords } from "../../chance/odds";
import { inShort } from "../../chance/round";
import type { Hint } from "../../module/game";
import { blanksOf, say } from "../../words/blanks";
import { count, counted, plain, type Sentence } from "../../words/sentence";
import { inPlay, mayCome } from "./layout";
import { type SpinResult, type WheelDurable, type WheelSettings, wheelSettingsSchema } from "./settings";
import { nameOfSegment } from "./stands";

/** The rules of a wheel as sentences with blanks. */
export function wheelSentences(s: WheelSettings): readonly Sentence[] {
  const { whole, time, toggle, choice } = blanksOf(wheelSettingsSchema, s);
  return [
    say(
      "spin",
      "A spin takes ",
      time("spinMs", "How long a spin takes"),
      "; its result is shown for ",
      time("panelMs", "How long the result is shown; 0 until the next spin"),
      s.panelMs === 0 ? ", which means until the next spin." : ".",
    ),
    say(
      "angles",
      "Around the wheel, segments are ",
      choice("angles", "How large segments are drawn", {
        weight: "as large as they are likely",
        equal: "all of one size, with their chances written out",
      }),
      ".",
    ),
    say(
      "leaves",
      "A segment that was drawn ",
      toggle("leaves", "What a drawn segment does", "leaves the wheel until all are brought back", "stays on the wheel"),
      ", and the same one ",
      toggle("again", "Whether one comes twice running", "may", "never"),
      s.again ? " come twice running." : " comes twice running.",
    ),
    say(
      "waiting",
      "While it turns, up to ",
      whole("mostWaiting", "Most spins that wait"),
      s.mostWaiting === 1 ? " spin of viewers waits its turn." : " spins of viewers wait their turn.",
    ),
    say(
      "says",
      "Chat hears ",
      choice("says", "What chat hears of a spin", {
        nothing: "nothing of it",
        result: "the result",
        promise: "the result, and what the next spin is promised by",
      }),
      ".",
    ),
  ];
}

export const wheelRulesInWords = (s: WheelSettings): readonly string[] => [
  `On the wheel: ${listed(s.segments.map((x) => nameOfSegment(x.label)))}.`,
  ...wheelSentences(s)
    .filter((l) => l.id !== "waiting" && l.id !== "says")
    .map(plain),
];

const mostListed = 12;

function listed(labels: readonly string[]): string {
  const some = labels.slice(0, mostListed);
  return labels.length > mostListed ? `${some.join(", ")} and ${count(labels.length - mostListed)} more` : some.join(", ");
}

/** The chances of the next spin, for chat: no longer than a line may be. */
export function chancesTold(settings: WheelSettings, durable: WheelDurable, name: string): string {
  const may = [...mayCome(settings, durable)].sort((a, b) => b.weight - a.weight);
  const words = chancesInWords(may.map((s) => s.weight));
  const parts = may.slice(0, mostListed).map((s, i) => `${nameOfSegment(s.label)} ${words[i] ?? ""}`);
  const more = may.length > mostListed ? ` and ${count(may.length - mostListed)} more` : "";
  return may.length === 0 ? `${name}: every segment was drawn.` : `${name}, next spin: ${parts.join(", ")}${more}.`.slice(0, 380);
}

export function resultTold(says: WheelSettings["says"], { label, n, by }: SpinResult, commitment: string): string {
  if (says === "nothing") return "";
  const told = `${nameOfSegment(label)}, for ${by}: round ${count(n)}.`;
  return says === "promise" ? `${told} The next is promised by ${inShort(commitment)}.` : told;
}

/** Settings that will disappoint, said before the show and not during it. */
export function wheelHints(s: WheelSettings): readonly Hint[] {
  const hints: Hint[] = [];
  if (s.segments.length === 1) hints.push({ id: "one", text: "There is one segment, so it always comes. Add another.", path: "segments" });
  const seen = new Map<string, number>();
  for (const { label } of s.segments) if (label !== "") seen.set(label.toLowerCase(), (seen.get(label.toLowerCase()) ?? 0) + 1);
  const twice = [...seen].find(([, n]) => n > 1)?.[0];
  if (twice !== undefined)
    hints.push({
      id: "twice",
      text: `“${s.segments.find((x) => x.label.toLowerCase() === twice)?.label ?? twice}” stands there more than once, so viewers can’t tell which of them came.`,
      path: "segments",
    });
  if (s.leaves && s.segments.some((x) => x.stock > 1))
    hints.push({ id: "leaves", text: "A drawn segment leaves at once, so how many there are of it never counts.", path: "leaves" });
  if (s.segments.length > 60)
    hints.push({
      id: "many",
      text: `${counted(s.segments.length, "segment")} are too many to read on a wheel: the names stand in a list beside it that follows the pointer.`,
      path: "segments",
    });
  const total = s.segments.reduce((sum, x) => sum + x.weight, 0);
  const rare = s.segments.find((x) => x.weight * 2_000 < total);
  if (rare !== undefined && s.angles === "weight")
    hints.push({
      id: "rare",
      text: `“${nameOfSegment(rare.label)}” is so unlikely that it is but a line on the wheel. Drawn all of one size, it can be read.`,
      path: "angles",
    });
  return hints;
}

export const leftOf = (settings: WheelSettings, durable: WheelDurable): number => inPlay(settings, durable).length;
