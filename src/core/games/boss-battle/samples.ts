import { counted } from "../../words/sentence";
import type { Sample } from "../../module/game";
import { commanded, one, platformSamples, sampleViewer } from "../../module/samples";
import type { BossDurable } from "./settings";

/** Every signal a boss can meet, with an amount of one's own; the champion's too. */
export const bossSamples: readonly Sample[] = [
  ...platformSamples,
  {
    id: "champion",
    label: "The champion’s own",
    key: "u",
    weight: 2,
    make: ({ amount, durable, times }) => {
      // The preview's rules have made it.
      const { boss } = durable as BossDurable;
      const viewer = boss.viewerId === null ? sampleViewer(times) : { id: boss.viewerId, name: boss.name, roles: [] };
      const says =
        boss.viewerId === null ? "no viewer is the boss yet: this is anyone’s tip" : `${boss.name}, who is the boss, tips ${amount}.00`;
      return one(says, { kind: "tip", viewer, amountMinor: amount * 100, currency: "EUR", homeMinor: amount * 100, text: "" });
    },
  },
  {
    id: "unknown",
    label: "Somebody unknown",
    weight: 1,
    make: ({ amount }) =>
      one(`somebody unknown gives ${counted(amount, "membership")}`, {
        kind: "gift",
        viewer: null,
        count: Math.max(1, amount),
        recipients: [],
      }),
  },
  {
    id: "hit",
    label: "Your hit",
    key: "i",
    weight: 2,
    make: ({ amount }) => one(`you hit it by ${amount}`, commanded({ do: "damage", amount })),
  },
  { id: "heal", label: "Your heal", weight: 1, make: ({ amount }) => one(`you heal it by ${amount}`, commanded({ do: "heal", amount })) },
  { id: "undo", label: "Undo the last hit", key: "o", weight: 1, make: () => one("you undo the last hit", commanded({ do: "undo" })) },
];
