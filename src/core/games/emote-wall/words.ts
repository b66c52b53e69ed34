import type { Hint } from "../../module/game";
import { blanksOf, say } from "../../words/blanks";
import { type Blank, count, plain, seconds, type Sentence } from "../../words/sentence";
import { type WallSettings, wallSettingsSchema } from "./settings";

/** The rules of a wall as sentences with blanks, in the order in which they are applied. */
export function wallSentences(s: WallSettings): readonly Sentence[] {
  const { whole, time, toggle, choice, roles } = blanksOf(wallSettingsSchema, s);
  const lines: Sentence[] = [
    say("who", "Emotes written by ", roles("roles", "Who may send emotes"), " fly across the picture."),
    say(
      "sources",
      "The channel’s own emotes ",
      toggle("sources.own", "The channel’s own emotes", "count", "do not count"),
      ", the chat platform’s ",
      toggle("sources.marked", "The chat platform’s emotes", "count", "do not count"),
      ", and emoji ",
      toggle("sources.emoji", "Emoji", "count", "do not count"),
      ".",
    ),
    say(
      "message",
      "Of one message, each emote shows ",
      toggle("eachOncePerMessage", "How often one emote shows per message", "once", "as often as it is written"),
      ", and at most ",
      whole("mostPerMessage", "Most emotes from one message"),
      " in all.",
    ),
    say(
      "combo",
      "An emote shows ",
      toggle("combo.on", "When an emote shows", "only when several write it", "as soon as it is written"),
      ".",
    ),
  ];
  if (s.combo.on) {
    lines.push(
      say(
        "together",
        "That takes ",
        whole("combo.needed", "Copies needed"),
        " of the same within ",
        time("combo.withinMs", "Time for the copies"),
        ", counting ",
        choice("combo.counted", "What counts", { copies: "every copy", viewers: "each viewer once" }),
        ". Then ",
        choice("combo.spawns", "What shows", { one: "one appears", all: "all of them appear" }),
        " and the count begins again.",
      ),
      say(
        "apart",
        "It goes for emotes of ",
        roles("combo.roles", "Whose emotes need that"),
        "; emoji ",
        toggle("combo.emoji", "Whether emoji need that", "need it too", "need none"),
        ". What needs none ",
        toggle("singles", "What needs no other", "shows at once", "stays off"),
        ".",
      ),
    );
  } else {
    lines.push(say("singles", "Single emotes ", toggle("singles", "Single emotes", "show", "stay off: only flocks fly"), "."));
  }
  lines.push(
    s.perViewer.on
      ? say(
          "viewer",
          "One viewer may show ",
          toggle("perViewer.on", "Limit per viewer", "at most", "any number"),
          " ",
          whole("perViewer.most", "Most per viewer"),
          " within ",
          time("perViewer.withinMs", "Time for the limit"),
          ".",
        )
      : say("viewer", "One viewer may show ", toggle("perViewer.on", "Limit per viewer", "at most", "any number"), "."),
    say(
      "flock",
      "A flock is ",
      whole("flock.count", "Emotes in a flock"),
      " emotes within ",
      time("flock.overMs", "Time for a flock"),
      ", of ",
      choice("flock.from", "Which emotes flock", { "most-used": "those written most", chosen: "chosen ones" }),
      ...(s.flock.from === "most-used"
        ? [" in the last ", whole("flock.minutes", "Minutes looked back"), s.flock.minutes === 1 ? " minute" : " minutes"]
        : [
            ": ",
            {
              path: "flock.chosen",
              label: "Chosen emotes",
              text: s.flock.chosen.length === 0 ? "none yet" : `${s.flock.chosen.length} chosen`,
              field: { kind: "emotes" },
            } satisfies Blank,
          ]),
      ".",
    ),
    say("cap", "At most ", whole("cap", "Most emotes at once"), " are on the picture at once; the oldest leave first."),
  );
  if (s.motion === "pile" || s.flock.motion === "pile")
    lines.push(
      say(
        "frames",
        "What piles up lies on the ground, and ",
        toggle("onFrames", "Whether it lands on other games", "on the other games’ frames too", "passes behind other games"),
        ".",
      ),
    );
  return lines;
}

/** The rules as a viewer is told them. */
export const wallRulesInWords = (s: WallSettings): readonly string[] =>
  wallSentences(s)
    .filter((l) => l.id !== "cap" && l.id !== "flock" && l.id !== "frames")
    .map(plain);

/** Settings that will disappoint, said before the show and not during it. */
export function wallHints(s: WallSettings, facts: Readonly<{ ownEmotes: number }>): readonly Hint[] {
  const hints: Hint[] = [];
  const { own, marked, emoji } = s.sources;
  if (!own && !marked && !emoji)
    hints.push({
      id: "no-source",
      text: "No kind of emote counts, so nothing can ever show. Let one of the three count.",
      path: "sources.own",
    });
  else if (own && !marked && !emoji && facts.ownEmotes === 0)
    hints.push({
      id: "no-emotes",
      text: "Only the channel’s own emotes count, and the channel has none yet. Add some under Emotes.",
      path: "sources.own",
    });
  if (!s.singles && !s.combo.on)
    hints.push({ id: "only-flocks", text: "Single emotes stay off, so chat alone shows nothing; only flocks fly.", path: "singles" });
  if (s.combo.on && s.combo.counted === "copies" && s.mostPerMessage >= s.combo.needed)
    hints.push({
      id: "alone",
      text: `One viewer can make it alone: a message may hold ${count(s.mostPerMessage)} copies and ${count(s.combo.needed)} are needed. Count each viewer once to prevent it.`,
      path: "combo.counted",
    });
  if (s.combo.on && s.combo.needed / (s.combo.withinMs / 1000) > 20)
    hints.push({
      id: "rare",
      text: `${count(s.combo.needed)} copies within ${seconds(s.combo.withinMs)} needs a very large chat; it may never happen.`,
      path: "combo.needed",
    });
  if (s.flock.count > s.cap)
    hints.push({
      id: "flock-cap",
      text: `A flock of ${count(s.flock.count)} is more than the ${count(s.cap)} that fit at once; its first will leave early.`,
      path: "cap",
    });
  if (s.flock.from === "chosen" && s.flock.chosen.length === 0)
    hints.push({ id: "flock-none", text: "Flocks are of chosen emotes, and none is chosen yet.", path: "flock.chosen" });
  if (s.cap > 1_000)
    hints.push({
      id: "cap",
      text: "More than 1,000 at once is heavy for a computer without a graphics card. Izzam then thins out the motion before frames are lost.",
      path: "cap",
    });
  return hints;
}
