import { z } from "zod";
import { roles } from "../signals/names";
import { blanksOf, say } from "../words/blanks";
import { type Part, rolesInWords, type Sentence } from "../words/sentence";
import { type Reward, rewardSchema } from "./settings";

/**
 * A reward as its form knows it: the settings, and a few of them in the units people think in. `put` takes a
 * blank's value back to the settings.
 */
const moving = rewardSchema.shape.moving.unwrap().shape;
const formSchema = rewardSchema.safeExtend({
  moves: z.enum(["stays", "moves"]),
  raisePercent: z.int().min(1).max(100),
  ceiling: moving.ceiling,
  halfLifeMs: moving.halfLifeMs,
});
export type RewardForm = z.infer<typeof formSchema>;

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
  const { whole, time, toggle, choice, roles: who, text } = blanksOf(rewardSchema, r);
  return [
    say("price", "It costs ", whole("price", `Price in ${pointsName}`), ` ${pointsName}, and the price `, ...priceParts(r)),
    say(
      "who",
      { ...who("roles", "Who may buy it"), text: capital(rolesInWords(r.roles)) },
      " may buy it ",
      toggle("onlyOnAir", "When it may be bought", "during a show only", "at any time"),
      "; it is ",
      toggle("approval", "Whether somebody has to say yes", "done when an operator says yes", "done at once"),
      ".",
    ),
    say(
      "text",
      "Words behind it are ",
      choice("text.how", "Whether words come with it", { none: "not wanted", may: "welcome", must: "needed" }),
      ...(r.text.how === "none" ? ["."] : ["; viewers are asked “", text("text.asks", "What viewers are asked for", "Which glaze?"), "”."]),
    ),
    say(
      "rest",
      "After a sale it is on cooldown for ",
      time("sharedRestMs", "Cooldown for everyone"),
      "; who bought it waits ",
      time("ownRestMs", "Cooldown for the one who bought it"),
      ".",
    ),
    say(
      "limits",
      "Sold at most ",
      whole("perShow", "Most sold in one show; 0 for no limit"),
      r.perShow === 1 ? " time in one show, " : " times in one show, ",
      whole("perViewerShow", "Most sold to one viewer in one show; 0 for no limit"),
      r.perViewerShow === 1 ? " time to one viewer in it, " : " times to one viewer in it, ",
      whole("stock", "How many there are; 0 for without end"),
      r.stock === 1 ? " time in all. 0 sets no limit." : " times in all. 0 sets no limit.",
    ),
    say(
      "detail",
      "On the viewer page it asks for ",
      text("detail", "Something private it asks for; empty for nothing", "nothing private"),
      r.detail === "" ? "." : ", which only the owner can read, until it is done.",
    ),
  ];
}
/** How the price moves, in the units people think in. */
function priceParts(r: Reward): readonly Part[] {
  const form = formOf(r);
  const moves = blanksOf(formSchema, form).choice("moves", "Whether the price moves", { stays: "stays", moves: "moves" });
  if (r.moving === null) return [moves, "."];
  const { whole, time } = blanksOf(formSchema, form);
  return [
    moves,
    ": each sale raises it by ",
    whole("raisePercent", "Percent a sale raises the price by"),
    " %, up to ",
    whole("ceiling", "Highest price", r.price),
    ", and every ",
    time("halfLifeMs", "Time in which half of what was raised falls back"),
    " half of what it rose falls back.",
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
