import { roles } from "../signals/signal";
import { count, rolesInWords, type Sentence } from "../words/sentence";
import type { Reward } from "./settings";

/**
 * A reward as its form knows it: the settings, and a few of them in the units people think in. `put` takes a
 * blank's value back to the settings.
 */
export type RewardForm = Reward & Readonly<{ moves: string; raisePercent: number; ceiling: number; halfLifeMs: number }>;

const movingDefaults = { raiseBp: 500, halfLifeMs: 600_000 };

export const formOf = (r: Reward): RewardForm => ({
  ...r,
  moves: r.moving === null ? "stays" : "moves",
  raisePercent: Math.round((r.moving?.raiseBp ?? movingDefaults.raiseBp) / 100),
  ceiling: r.moving?.ceiling ?? Math.max(1, r.price * 3),
  halfLifeMs: r.moving?.halfLifeMs ?? movingDefaults.halfLifeMs,
});

/** The reward with one blank of its sentences changed; a path it does not know changes nothing. */
export function put(reward: Reward, path: string, value: unknown): Reward {
  const form = formOf(reward);
  const moving = reward.moving ?? { ...movingDefaults, ceiling: form.ceiling };
  const n = Number(value);
  switch (path) {
    case "moves":
      return { ...reward, moving: value === "moves" ? moving : null };
    case "raisePercent":
      return { ...reward, moving: { ...moving, raiseBp: n * 100 } };
    case "ceiling":
      return { ...reward, moving: { ...moving, ceiling: n } };
    case "halfLifeMs":
      return { ...reward, moving: { ...moving, halfLifeMs: n } };
    case "price":
      return {
        ...reward,
        price: n,
        moving: reward.moving === null ? null : { ...reward.moving, ceiling: Math.max(n, reward.moving.ceiling) },
      };
    case "text.how":
      return { ...reward, text: { ...reward.text, how: value === "must" || value === "may" ? value : "none" } };
    case "text.asks":
      return { ...reward, text: { ...reward.text, asks: String(value) } };
    case "roles":
      return { ...reward, roles: Array.isArray(value) && value.length > 0 ? roles.filter((r) => value.includes(r)) : reward.roles };
    default:
      return Object.hasOwn(reward, path) ? { ...reward, [path]: value } : reward;
  }
}

/** What a reward costs, to whom, when and how often: the sentences one edits it by. */
export function rewardSentences(r: Reward, pointsName: string): readonly Sentence[] {
  const form = formOf(r);
  const whole = (path: string, label: string, value: number, min: number, max: number) => ({
    path,
    label,
    text: count(value),
    field: { kind: "whole" as const, min, max },
  });
  const rest = (path: string, label: string, ms: number) => ({
    path,
    label,
    text: `${ms / 1000} s`,
    field: { kind: "seconds" as const, minMs: 0, maxMs: 7 * 86_400_000 },
  });
  return [
    {
      id: "price",
      parts: [
        "It costs ",
        whole("price", `Price in ${pointsName}`, r.price, 0, 1_000_000_000),
        ` ${pointsName}, and the price `,
        {
          path: "moves",
          label: "Whether the price moves",
          text: r.moving === null ? "stays" : "moves",
          field: {
            kind: "choice",
            options: [
              { value: "stays", words: "stays" },
              { value: "moves", words: "moves" },
            ],
          },
        },
        ...(r.moving === null
          ? ["."]
          : [
              ": each sale raises it by ",
              whole("raisePercent", "Percent a sale raises the price by", form.raisePercent, 1, 100),
              " %, up to ",
              whole("ceiling", "Highest price", form.ceiling, r.price, 1_000_000_000),
              ", and every ",
              {
                path: "halfLifeMs",
                label: "Time in which half of what was raised falls back",
                text: `${form.halfLifeMs / 1000} s`,
                field: { kind: "seconds" as const, minMs: 10_000, maxMs: 7 * 86_400_000 },
              },
              " half of what it rose falls back.",
            ]),
      ],
    },
    {
      id: "who",
      parts: [
        { path: "roles", label: "Who may buy it", text: capital(rolesInWords(r.roles)), field: { kind: "roles" } },
        " may buy it ",
        {
          path: "onlyOnAir",
          label: "When it may be bought",
          text: r.onlyOnAir ? "during a show only" : "at any time",
          field: { kind: "toggle", on: "during a show only", off: "at any time" },
        },
        "; it is ",
        {
          path: "approval",
          label: "Whether somebody has to say yes",
          text: r.approval ? "done when an operator says yes" : "done at once",
          field: { kind: "toggle", on: "done when an operator says yes", off: "done at once" },
        },
        ".",
      ],
    },
    {
      id: "text",
      parts: [
        "Words behind it are ",
        {
          path: "text.how",
          label: "Whether words come with it",
          text: r.text.how === "none" ? "not wanted" : r.text.how === "may" ? "welcome" : "needed",
          field: {
            kind: "choice",
            options: [
              { value: "none", words: "not wanted" },
              { value: "may", words: "welcome" },
              { value: "must", words: "needed" },
            ],
          },
        },
        ...(r.text.how === "none"
          ? ["."]
          : [
              "; viewers are asked “",
              {
                path: "text.asks",
                label: "What viewers are asked for",
                text: r.text.asks,
                field: { kind: "text" as const, most: 80, placeholder: "Which glaze?" },
              },
              "”.",
            ]),
      ],
    },
    {
      id: "rest",
      parts: [
        "After a sale it is on cooldown for ",
        rest("sharedRestMs", "Cooldown for everyone", r.sharedRestMs),
        "; who bought it waits ",
        rest("ownRestMs", "Cooldown for the one who bought it", r.ownRestMs),
        ".",
      ],
    },
    {
      id: "limits",
      parts: [
        "Sold at most ",
        whole("perShow", "Most sold in one show; 0 for no limit", r.perShow, 0, 1_000_000),
        r.perShow === 1 ? " time in one show, " : " times in one show, ",
        whole("perViewerShow", "Most sold to one viewer in one show; 0 for no limit", r.perViewerShow, 0, 1_000_000),
        r.perViewerShow === 1 ? " time to one viewer in it, " : " times to one viewer in it, ",
        whole("stock", "How many there are; 0 for without end", r.stock, 0, 1_000_000),
        r.stock === 1 ? " time in all. 0 sets no limit." : " times in all. 0 sets no limit.",
      ],
    },
    {
      id: "detail",
      parts: [
        "On the viewer page it asks for ",
        {
          path: "detail",
          label: "Something private it asks for; empty for nothing",
          text: r.detail,
          field: { kind: "text", most: 80, placeholder: "nothing private" },
        },
        r.detail === "" ? "." : ", which only the owner can read, until it is done.",
      ],
    },
  ];
}
const capital = (words: string): string => `${words[0]?.toUpperCase() ?? ""}${words.slice(1)}`;

/** A chat word made from a file's or reward's name: `!` and its letters and digits. */
export const wordFrom = (name: string): string => {
  const letters = name
    .normalize("NFKD")
    .replace(/\p{M}+/gu, "")
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, "")
    .slice(0, 24);
  return letters === "" ? "" : `!${letters}`;
};
