import { moneyInWords } from "../../signals/money-words";
import { blanksOf, say } from "../../words/blanks";
import { count, counted, plain, type Sentence } from "../../words/sentence";
import { type BrimfulSettings, brimfulSettingsSchema, type DropKind, dropKinds, type DropTier, type HowMany } from "./settings";

export const kindInWords: Readonly<Record<DropKind, Readonly<{ one: string; list: string; unit: readonly [string, string] | null }>>> = {
  follow: { one: "A follow", list: "Follows", unit: null },
  membership: { one: "A membership", list: "Memberships", unit: ["month", "months"] },
  gift: { one: "Memberships given away", list: "Gifts", unit: ["given", "given"] },
  tip: { one: "A tip", list: "Tips", unit: null },
  reaction: { one: "Paid reactions", list: "Paid reactions", unit: ["they are worth", "they are worth"] },
  raid: { one: "A raid", list: "Raids", unit: ["viewer", "viewers"] },
  host: { one: "Being hosted", list: "Hosting", unit: ["viewer", "viewers"] },
  message: { one: "A chat message", list: "Messages", unit: null },
};

/** An amount of a kind of signal: 5.00 EUR, 12 viewers, 300. */
export function amountOfKind(kind: DropKind, amount: number, home: string): string {
  if (kind === "tip") return moneyInWords(amount, home);
  const { unit } = kindInWords[kind];
  return kind === "reaction" || unit === null ? count(amount) : counted(amount, ...unit);
}
/** Which signals a tier answers: “A tip of 25.00 EUR or more”. */
export function tierInWords(kind: DropKind, tier: DropTier, home: string): string {
  const { one } = kindInWords[kind];
  if (tier.at === "exact") return `${one} of exactly ${amountOfKind(kind, tier.amount, home)}`;
  return tier.amount === 0 ? one : `${one} of ${amountOfKind(kind, tier.amount, home)} or more`;
}
function numberInWords(kind: DropKind, blank: HowMany, thing: string, home: string): string {
  if (blank.per === 0) return counted(Math.min(blank.give, blank.most), thing);
  const per = amountOfKind(kind, blank.per, home).replace(/^1 (?=viewer|month)/, "");
  const every = kind === "gift" ? (blank.per === 1 ? "one" : per) : per;
  return `${counted(blank.give, thing)} for every ${every} (at most ${count(blank.most)})`;
}
const massInWords = (mass: number): string => (mass >= 60 ? "heavy " : "");
/** “A tip of 25.00 EUR or more drops 1 heavy piece and 1 face of the viewer.” */
export function dropInWords(kind: DropKind, tier: DropTier, home: string): string {
  const thing = `${massInWords(tier.mass)}piece`;
  const parts = [
    ...(tier.pieces.give > 0 ? [numberInWords(kind, tier.pieces, thing, home)] : []),
    ...(tier.faces.give > 0 ? [numberInWords(kind, tier.faces, "face", home) + " of the viewer"] : []),
  ];
  const verb = kind === "gift" || kind === "reaction" ? "drop" : "drops";
  return `${tierInWords(kind, tier, home)} ${verb} ${parts.length === 0 ? "nothing" : parts.join(" and ")}${tier.emotes && tier.pieces.give > 0 ? ", of the emotes written with it" : ""}.`;
}
export const dropsInWords = (s: BrimfulSettings, home: string): readonly string[] =>
  dropKinds.flatMap((kind) => s.drops[kind].map((tier) => dropInWords(kind, tier, home)));

/** The rules as sentences with blanks; what falls for which signal is a list beside them. */
export function brimfulSentences(s: BrimfulSettings): readonly Sentence[] {
  const { whole, time, toggle, choice, text } = blanksOf(brimfulSettingsSchema, s);
  const lines: Sentence[] = [
    say(
      "size",
      "A piece measures ",
      whole("size", "Size of a piece"),
      " ‰ of the vessel’s height, a face ",
      whole("face.size", "Size of a face"),
      " ‰, where nothing else is said.",
    ),
    say(
      "face",
      "A face has a mass of ",
      whole("face.mass", "Mass of a face"),
      " and bounces ",
      whole("face.bounce", "Bounce of a face"),
      " % of the height it fell from.",
    ),
    say(
      "brim",
      "It brims when it is ",
      whole("brim.at", "How full it is at the brim"),
      " % full. Then it ",
      choice("brim.then", "What comes then", {
        empties: "empties",
        waits: "stays as it is, and can brim again once it has fallen below four fifths of that",
      }),
      ".",
    ),
    s.goal.on
      ? say(
          "goal",
          "A line at ",
          whole("goal.at", "Where the line is"),
          " % ",
          toggle("goal.on", "A line to reach", "is shown", "no line on the way"),
          ", called ",
          text("goal.label", "What it is called", "Half full"),
          "; rules can answer when it is reached.",
        )
      : say("goal", "There is ", toggle("goal.on", "A line to reach", "a line", "no line"), " to reach on the way."),
    s.vessel.stand === "free"
      ? say(
          "stand",
          "The vessel ",
          choice("vessel.stand", "How it stands", { fixed: "stands fast", free: "may slide, and tip over" }),
          ": a piece of mass ",
          whole("vessel.tipMass", "Mass that tips it over"),
          " or more tips it, and ",
          whole("vessel.spill", "How much spills"),
          " % of what it holds spills. It stands up again ",
          s.vessel.upAfterMs === 0 ? "" : "after ",
          s.vessel.upAfterMs === 0
            ? { ...time("vessel.upAfterMs", "When it stands up again; 0 for not by itself"), text: "when it is told to" }
            : time("vessel.upAfterMs", "When it stands up again; 0 for not by itself"),
          "; what comes meanwhile waits.",
        )
      : say(
          "stand",
          "The vessel ",
          choice("vessel.stand", "How it stands", { fixed: "stands fast", free: "may slide, and tip over" }),
          ".",
        ),
    s.passing.on
      ? say(
          "passing",
          "With each gift ",
          toggle("passing.on", "A text that passes by", "a text passes by", "no text passes by"),
          ": ",
          text("passing.text", "The passing text", "{viewer}"),
          ", ",
          whole("passing.size", "Size of the text"),
          " % of the picture’s height, for ",
          time("passing.ms", "How long it is seen"),
          ", ",
          choice("passing.font", "Letters of the text", {
            display: "in display letters",
            text: "in plain letters",
            mono: "in letters of one width",
          }),
          ".",
        )
      : say("passing", "With each gift ", toggle("passing.on", "A text that passes by", "a text passes by", "no text passes by"), "."),
    say(
      "touch",
      "Blows in other games ",
      toggle("touch.blows", "Blows in other games", "are felt here", "are not felt here"),
      ", pictures that are drawn there ",
      toggle("touch.pictures", "Pictures drawn in other games", "fall in", "stay there"),
      ", and faces of who had luck there ",
      toggle("touch.people", "Faces of who had luck in other games", "fall in", "stay away"),
      ".",
    ),
    say("cap", "At most ", whole("cap", "Most live pieces"), " pieces move at once; the oldest fade into the pile and still count."),
  ];
  return lines;
}

/** The rules as a viewer is told them. */
export function brimfulRulesInWords(s: BrimfulSettings, home: string): readonly string[] {
  return [
    ...dropKinds.flatMap((kind) =>
      s.drops[kind].filter((t) => t.pieces.give > 0 || t.faces.give > 0).map((t) => dropInWords(kind, t, home)),
    ),
    ...brimfulSentences(s)
      .filter((l) => l.id === "brim" || (l.id === "goal" && s.goal.on) || (l.id === "stand" && s.vessel.stand === "free"))
      .map(plain),
  ];
}
