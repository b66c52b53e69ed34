import { z } from "zod";
import { alertLookSchema } from "../alerts/alert";

/** What a rule or a cue does, one after another; a `wait` holds back what follows it. */
const text = z.string().max(300);
const gameRef = z.string().max(26);
const propRef = z.string().max(26);
export const ruleEffectSchema = z.discriminatedUnion("do", [
  /**
   * An action of a game, with what it is given by the action's fields; an amount may be given for every so much of
   * the signal's. Whether the game has such an action, its definition says when it comes to it.
   */
  z.object({
    do: z.literal("act"),
    game: gameRef,
    act: z.string().min(1).max(40),
    input: z.record(z.string().max(40), z.unknown()).refine((v) => JSON.stringify(v).length <= 8_000, "What comes with it is too long."),
    per: z.int().min(1).max(Number.MAX_SAFE_INTEGER),
  }),
  z.object({
    do: z.literal("show"),
    picture: propRef,
    sound: propRef,
    volume: z.int().min(0).max(100),
    text,
    ms: z.int().min(500).max(120_000),
    queue: z.string().max(26),
    look: alertLookSchema,
  }),
  z.object({ do: z.literal("sound"), sound: propRef, volume: z.int().min(0).max(100), queue: z.string().max(26) }),
  z.object({ do: z.literal("say"), text }),
  z.object({ do: z.literal("switch"), game: gameRef, on: z.boolean() }),
  /** Fires a cue; one that was paid for does not wait for the cue's cooldown. */
  z.object({ do: z.literal("cue"), cue: z.string().max(26) }),
  z.object({ do: z.literal("wait"), ms: z.int().min(100).max(600_000) }),
]);
export type RuleEffect = z.infer<typeof ruleEffectSchema>;
export const mostEffects = 20;
