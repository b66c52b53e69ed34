import { blanksOf, say } from "../../words/blanks";
import { counted, type Sentence } from "../../words/sentence";
import { type GreetingSettings, greetingSettingsSchema, type ListName, lists } from "./settings";

export const listWords: Readonly<Record<ListName, string>> = {
  fresh: "who was never here before",
  away: "who was away for long",
  moderator: "moderators",
  guest: "guests",
  member: "members",
  everybody: "everybody else",
};

/** The rules as sentences with blanks; the lines themselves stand below them. */
export function greetingSentences(s: GreetingSettings): readonly Sentence[] {
  const { whole, time, toggle } = blanksOf(greetingSettingsSchema, s);
  const kinds = lists.filter((name) => s.lines[name].length > 0);
  return [
    say(
      "first",
      "The first message of a viewer in a show is greeted for ",
      time("showMs", "Seconds a greeting is shown"),
      ", ",
      toggle("chat", "Whether chat is told too", "on the picture and in chat", "on the picture alone"),
      ".",
    ),
    say(
      "lines",
      kinds.length === 0
        ? "No line is written yet, so nobody is greeted."
        : `There are lines for ${kinds.map((k) => `${listWords[k]} (${counted(s.lines[k].length, "line")})`).join(", ")}. The first of these that fits answers; no line comes again until all were said.`,
    ),
    say("away", "Who was away for ", whole("awayDays", "Days away"), " days or longer is welcomed back."),
    say(
      "lane",
      "One after another, with ",
      time("gapMs", "Pause between two"),
      " between; at most ",
      whole("mostWaiting", "How many may wait"),
      " wait, and the rest share one card.",
    ),
    s.raidMs === 0
      ? say(
          "raid",
          "Who comes with a raid is greeted like anybody: for ",
          time("raidMs", "Seconds after a raid"),
          " after it they are greeted together.",
        )
      : say(
          "raid",
          "For ",
          time("raidMs", "Seconds after a raid"),
          " after a raid those who come are greeted together, with the raider’s name.",
        ),
    say(
      "streamer",
      toggle("streamer", "Whether the streamer is greeted", "The streamer is greeted too", "The streamer is not greeted"),
      ".",
    ),
  ];
}
/** As viewers read it: without what is of use to operators alone. */
export const toldToViewers = (s: GreetingSettings): readonly string[] => [
  s.chat
    ? "Your first message in a show is greeted, on the picture and in chat."
    : "Your first message in a show is greeted on the picture.",
];
