import type { Sample } from "../../module/game";
import { commanded, one, platformSamples } from "../../module/samples";
import type { BrimfulDurable, BrimfulSettings } from "./settings";
import { piecesIn } from "./pile";

/** Every signal a vessel can meet, with an amount of one's own; what an operator may do with it too. */
export const brimfulSamples: readonly Sample[] = [
  ...platformSamples,
  {
    id: "storm",
    label: "A thousand at once",
    key: "u",
    weight: 0,
    make: () => one("you drop 1,000 pieces", commanded({ do: "drop", amount: 1_000, what: "pieces", size: 0, mass: 5 })),
  },
  {
    id: "drop",
    label: "Your drop",
    key: "i",
    weight: 3,
    make: ({ amount }) =>
      one(`you drop ${amount}`, commanded({ do: "drop", amount: Math.max(1, amount), what: "pieces", size: 0, mass: 5 })),
  },
  {
    id: "heavy",
    label: "A heavy one",
    key: "o",
    weight: 1,
    make: ({ settings }) => {
      // Settings that the game's own schema has accepted.
      const { vessel } = settings as BrimfulSettings;
      return one(
        "you drop a heavy one",
        commanded({ do: "drop", amount: 1, what: "pieces", size: 250, mass: Math.max(80, vessel.tipMass) }),
      );
    },
  },
  { id: "shake", label: "Shake", weight: 1, make: () => one("you shake it", commanded({ do: "shake", strength: 100 })) },
  {
    id: "upright",
    label: "Stand it up",
    weight: 1,
    make: ({ durable }) =>
      // The preview's rules have made it.
      (durable as BrimfulDurable).lies === null
        ? one("it stands: you tip it over", commanded({ do: "tip", way: "either" }))
        : one("you stand it up", commanded({ do: "upright" })),
  },
  {
    id: "empty",
    label: "Empty",
    weight: 1,
    make: ({ durable }) => one(`you empty it of ${piecesIn((durable as BrimfulDurable).pile)}`, commanded({ do: "empty" })),
  },
];
