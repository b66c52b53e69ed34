import { z } from "zod";
import { fold } from "../kernel/fold";
import { ruleEffectSchema, mostEffects, type RuleEffect } from "../rules/effect";
import { roleSchema } from "../signals/signal";
import { roles } from "../signals/names";

/** One thing a viewer buys with points (RULES section 9). */
const points = z.int().min(0).max(1_000_000_000);
const restMs = z
  .int()
  .min(0)
  .max(7 * 86_400_000);
const limit = z.int().min(0).max(1_000_000);
const word = z.string().trim().max(30).regex(/^\S*$/u, "A chat word has no spaces.");

export const rewardSchema = z
  .object({
    id: z.string().min(1).max(26),
    name: z.string().trim().min(1, "A reward needs a name.").max(60),
    on: z.boolean(),
    category: z.string().trim().max(30),
    about: z.string().max(200),
    /** Key of a picture that stands on its price tag; empty for none. */
    icon: z.string().max(80),
    price: points,
    /** How the price moves; null for one that stays. */
    moving: z
      .object({
        ceiling: points,
        raiseBp: z.int().min(1).max(10_000),
        halfLifeMs: z
          .int()
          .min(10_000)
          .max(7 * 86_400_000),
      })
      .nullable(),
    /** How many there are; 0 for without end. */
    stock: limit,
    roles: z.array(roleSchema).min(1).max(roles.length),
    onlyOnAir: z.boolean(),
    /** Whether a text comes with it, and what it is asked for as. */
    text: z.object({ how: z.enum(["none", "may", "must"]), asks: z.string().max(80) }),
    sharedRestMs: restMs,
    ownRestMs: restMs,
    /** 0 for no limit. */
    perShow: limit,
    perViewerShow: limit,
    /** Kept for one viewer, by id; empty for everyone. */
    keptFor: z.string().max(64),
    /** Done at once, or when somebody said yes. */
    approval: z.boolean(),
    /** Chat words that buy it. */
    words: z.array(word).max(5),
    /** What the platform sells for its own points and counts as this; empty for nothing. Picked from those seen. */
    partner: z.string().max(100).default(""),
    /** A private detail that is asked for on the viewer page only, sealed, and deleted when it is done; empty for none. */
    detail: z.string().max(80).default(""),
    /** Codes that are handed out, one to each buyer, on the viewer page alone. */
    codes: z.array(z.string().trim().min(1).max(120)).max(2_000, "A reward has at most 2,000 codes.").default([]),
    effects: z.array(ruleEffectSchema).max(mostEffects, `A reward does at most ${mostEffects} things.`),
  })
  .refine((r) => r.moving === null || r.moving.ceiling >= r.price, "A price can’t be held under a ceiling that is below it.");
export type Reward = z.infer<typeof rewardSchema>;

export const rewardBookSchema = z
  .object({
    schema: z.literal(3),
    rewards: z.array(rewardSchema).max(300, "There are at most 300 rewards."),
    /** Words with which viewers ask what there is, and what one of them costs; empty for none. */
    words: z.object({ shop: word, price: word }).default({ shop: "!shop", price: "!price" }),
  })
  .superRefine((book, ctx) => {
    const seen = new Map<string, string>();
    for (const text of [book.words.shop, book.words.price]) if (text !== "") seen.set(fold(text), "");
    for (const reward of book.rewards)
      for (const text of reward.words) {
        if (text === "") continue;
        const other = seen.get(fold(text));
        if (other !== undefined)
          ctx.addIssue({
            code: "custom",
            message:
              other === ""
                ? `“${text}” is the word with which viewers ask what there is.`
                : other === reward.id
                  ? `“${reward.name}” has the word “${text}” twice.`
                  : `Two rewards are bought by the same word, “${text}”.`,
          });
        seen.set(fold(text), reward.id);
      }
    if (new Set(book.rewards.map((r) => r.id)).size < book.rewards.length)
      ctx.addIssue({ code: "custom", message: "Two rewards have the same mark." });
  });
export type RewardBook = z.infer<typeof rewardBookSchema>;
export const rewardBookDefaults: RewardBook = { schema: 3, rewards: [], words: { shop: "!shop", price: "!price" } };

const doesSomething = (effect: RuleEffect): boolean => {
  switch (effect.do) {
    case "wait":
      return false;
    case "say":
      return effect.text.trim() !== "";
    case "sound":
      return effect.sound !== "";
    case "show":
      return effect.picture !== "" || effect.sound !== "" || effect.text.trim() !== "";
    case "act":
    case "switch":
    case "cue":
      return true;
  }
};
/** Whether who buys it would get nothing: it does nothing, nobody is asked for it, and no code is handed out. It is not sold. */
export const givesNothing = ({ effects, approval, codes }: Pick<Reward, "effects" | "approval" | "codes">): boolean =>
  !approval && codes.length === 0 && !effects.some(doesSomething);

/** One that does nothing yet, and so is not sold until it does. */
export const newReward = (id: string, name: string, price: number): Reward => ({
  id,
  name,
  on: true,
  category: "",
  about: "",
  icon: "",
  price,
  moving: null,
  stock: 0,
  roles: ["viewer"],
  onlyOnAir: false,
  text: { how: "none", asks: "" },
  sharedRestMs: 0,
  ownRestMs: 0,
  perShow: 0,
  perViewerShow: 0,
  keptFor: "",
  approval: false,
  words: [],
  partner: "",
  detail: "",
  codes: [],
  effects: [],
});
