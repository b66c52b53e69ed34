import type { WordFacts } from "../../module/game";
import { moneyInWords } from "../../signals/money-words";
import { blanksOf, say } from "../../words/blanks";
import { count, rolesInWords, seconds, type Sentence } from "../../words/sentence";
import { type ClipsSettings, clipsSettingsSchema } from "./settings";

export function clipsSentences(s: ClipsSettings, { home, points: name }: Pick<WordFacts, "home" | "points">): readonly Sentence[] {
  const { whole, time, toggle, money, choice, text, roles } = blanksOf(clipsSettingsSchema, s);
  return [
    say(
      "word",
      "Clips may be sent by ",
      roles("roles", "Who may send clips"),
      ", with ",
      text("word", "Chat word", "!clip"),
      " and an address in chat, once every ",
      time("ownRestMs", "Rest of one's own"),
      ".",
    ),
    say(
      "points",
      "A second costs ",
      whole("points.perSecond", "Points for a second"),
      ` ${name}`,
      s.points.perSecond === 0 ? " (0: no clips by points)" : "",
      ", at least ",
      whole("points.least", "The least payment in points"),
      ".",
    ),
    say(
      "tips",
      `A tip with “${s.word}” and an address in its text buys a second for `,
      money("tips.perSecond", "Money for a second", home),
      s.tips.perSecond === 0 ? " (0: none)" : "",
      ", from ",
      money("tips.least", "The least tip", home),
      " on.",
    ),
    say(
      "long",
      "A clip lasts ",
      time("usualMs", "Usual length"),
      " where nobody says how long, and at most ",
      time("mostMs", "Longest clip"),
      "; its film may last ",
      time("mostSourceMs", "Longest film"),
      ".",
    ),
    say(
      "approve",
      "A clip ",
      toggle("approve", "Whether somebody must say yes", "waits until somebody lets it through", "needs nobody’s yes"),
      ".",
    ),
    say(
      "themselves",
      "Clips ",
      toggle("byThemselves", "Whether they begin by themselves", "begin by themselves", "are begun by hand"),
      ", ",
      time("gapMs", "Gap between clips"),
      " after one another; at most ",
      whole("mostWaiting", "Most waiting"),
      " wait.",
    ),
    say(
      "shown",
      "What begins is ",
      toggle("shownAtOnce", "Whether it is shown at once", "shown at once", "hidden until somebody shows it"),
      ".",
    ),
    say(
      "checks",
      "A clip that flashes ",
      choice("flashes", "What flashes", { refuse: "is refused", dim: "is dimmed while it does" }),
      ", one that is black all through ",
      choice("black", "What is black", { refuse: "is refused", show: "is shown" }),
      ", one without a sound ",
      choice("silent", "What is silent", { show: "is shown", refuse: "is refused" }),
      ".",
    ),
    say(
      "skipped",
      "What is skipped before it was seen is given back; skipped while it is seen, ",
      choice("skipped", "What a skip gives back", {
        all: "all of it is given back",
        rest: "what is left of it is given back",
        nothing: "nothing is given back",
      }),
      ".",
    ),
    say("line", "Under it stands ", text("looks.line", "The line under it", "what its sender calls it"), "."),
    say(
      "size",
      "Clips are made ",
      choice("size", "Size", { small: "854 × 480", large: "1,280 × 720" }),
      ", and heard at ",
      whole("volume", "Volume"),
      " %.",
    ),
  ];
}

export function clipsToViewers(s: ClipsSettings, { home, points: name }: Pick<WordFacts, "home" | "points">): readonly string[] {
  const lines: string[] = [];
  if (s.points.perSecond > 0) {
    const whose = s.roles.includes("viewer") ? "" : ` For ${rolesInWords(s.roles)}.`;
    lines.push(
      `Write “${s.word} https://… 0:07 12s” in chat, and twelve seconds of that film are shown from 0:07 on, for ${count(s.points.perSecond)} ${name} a second, at least ${count(s.points.least)}.${whose}`,
    );
  }
  if (s.tips.perSecond > 0)
    lines.push(
      `A tip of at least ${moneyInWords(Math.max(s.tips.least, s.tips.perSecond), home)} with “${s.word}” and an address in its text shows a second for every ${moneyInWords(s.tips.perSecond, home)}.`,
    );
  lines.push(`At most ${seconds(s.mostMs)}.${s.approve ? " A moderator looks at it first." : ""} What is not shown is given back.`);
  return lines;
}
