import { alertLookDefaults } from "../alerts/alert";
import { newReward, type Reward } from "./settings";

/** Three rewards that any channel can sell as they are: no picture, sound or game must be there. */
export const starterRewards = (idOf: (n: number) => string): Reward[] => [
  {
    ...newReward(idOf(0), "A sip of water", 50),
    about: "Everybody is reminded to drink something.",
    sharedRestMs: 300_000,
    words: ["!water"],
    effects: [{ do: "say", text: "{viewer} says: time for a sip of water." }],
  },
  {
    ...newReward(idOf(1), "Your words on screen", 300),
    about: "What you write is shown, once somebody has read it.",
    text: { how: "must", asks: "What shall be shown?" },
    words: ["!words"],
    approval: true,
    ownRestMs: 60_000,
    effects: [
      { do: "show", picture: "", sound: "", volume: 80, text: "{viewer}: {text}", ms: 8_000, queue: "main", look: alertLookDefaults },
    ],
  },
  {
    ...newReward(idOf(2), "Choose what comes next", 1_000),
    about: "You say what is done next; it is done when somebody has said yes.",
    text: { how: "must", asks: "What comes next?" },
    words: ["!next"],
    approval: true,
    perShow: 3,
    effects: [{ do: "say", text: "{viewer} chose what comes next: {text}" }],
  },
];
