import { alertLookDefaults } from "../alerts/alert";
import type { RuleEffect } from "../rules/effect";
import { type Cue, newCue } from "./settings";

const shown = (text: string, ms: number): RuleEffect => ({
  do: "show",
  picture: "",
  sound: "",
  volume: 80,
  text,
  ms,
  queue: "",
  look: alertLookDefaults,
});

/** Three cues that any channel can use as they are: they show words, so that no picture, sound or game must be there. */
export const starterCues = (idOf: (n: number) => string): Cue[] => [
  { ...newCue(idOf(0), "Back soon"), key: "q", kind: "on-off", effects: [shown("Back in five minutes", 60_000)] },
  {
    ...newCue(idOf(1), "Thank you all"),
    key: "w",
    cooldownMs: 10_000,
    effects: [shown("Thank you for being here", 6_000), { do: "say", text: "Thank you for being here, all of you." }],
  },
  { ...newCue(idOf(2), "Last question"), key: "e", cooldownMs: 10_000, effects: [shown("One last question?", 8_000)] },
];
