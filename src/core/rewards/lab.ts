import type { LabAt, LabQuestion } from "../module/lab";
import type { PriceAt } from "../points/price";
import { costOf } from "./redeem";
import type { Reward, RewardBook } from "./settings";

/** The reward that is meant; with no name, the first whose price moves. */
function meant({ settings, input }: Pick<LabAt, "settings" | "input">): Reward | null {
  // The lab gives a module's own questions the module's own settings.
  const { rewards } = settings as RewardBook;
  return rewards.find((r) => r.name === input["reward"]) ?? rewards.find((r) => r.moving !== null) ?? rewards[0] ?? null;
}

/** What the odds lab can be asked about rewards. */
export const rewardsLab: readonly LabQuestion[] = [
  {
    id: "price",
    form: "What would the price of {reward} be {when}, if {buys} an hour wanted it, on {evening}?",
    input: {
      reward: { kind: "text", label: "Reward", start: "", oneOf: { list: "rewards", none: "the first whose price moves" } },
      when: {
        kind: "choice",
        label: "When",
        start: "most",
        options: [
          { value: "most", words: "at its highest" },
          { value: "end", words: "at the end" },
        ],
      },
      buys: { kind: "whole", label: "Wishes an hour", start: 20, min: 1, most: 5_000 },
    },
    lists: (settings) => ({ rewards: (settings as RewardBook).rewards.map((r) => r.name) }),
    unit: "points",
    crowd: true,
    whole: true,
    rates: (rates, at) => ({ ...rates, buys: Number(at.input["buys"]), bought: [meant(at)?.id ?? ""] }),
    measure: (at) => {
      const reward = meant(at);
      let last: PriceAt | null = null;
      const costs = (nowMs: number): number => (reward === null ? 0 : costOf(reward, { priceAt: () => last }, nowMs));
      let most = costs(at.fromMs);
      return {
        see: ({ prices, afterMs }) => {
          for (const p of prices) {
            if (p.rewardId !== reward?.id) continue;
            last = p.at;
            most = Math.max(most, costs(at.fromMs + afterMs));
          }
        },
        value: () => (at.input["when"] === "end" ? costs(at.fromMs + at.ms) : most),
      };
    },
    middle: "It is {value}",
  },
];
