import { blanksOf, say } from "../../words/blanks";
import type { Sentence } from "../../words/sentence";
import { type PresentingSettings, presentingSettingsSchema } from "./settings";

export function presentingSentences(s: PresentingSettings): readonly Sentence[] {
  const { whole, time } = blanksOf(presentingSettingsSchema, s);
  return [
    say(
      "show",
      "Somebody who is presented is looked for on the platform by their name, and shown on a card for ",
      time("showMs", "Seconds a card is shown"),
      ". Who can’t be found is not shown, and chat is told so.",
    ),
    say(
      "lane",
      "One after another, with ",
      time("gapMs", "Pause between two"),
      " between; at most ",
      whole("mostWaiting", "How many may wait"),
      " wait.",
    ),
    say("again", "The same person is not presented again within ", time("againMs", "Pause until the same again"), ", but by hand."),
    s.raidLeast === 0
      ? say("raid", "Raids present nobody: from ", whole("raidLeast", "Least viewers of a raid"), " viewers on they would.")
      : say("raid", "A raid of at least ", whole("raidLeast", "Least viewers of a raid"), " viewers presents who brought it."),
  ];
}

export const presentingToViewers = (): readonly string[] => ["Now and then somebody worth knowing is presented, with their page."];
