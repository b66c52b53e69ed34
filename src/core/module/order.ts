import { z } from "zod";
import { filmRequestSchema } from "../props/film";
import { voiceSchema } from "../speech/voice";
import { alertSchema } from "../alerts/alert";
import { commandSchema, roleSchema, touchesSchema } from "../signals/signal";

const arrivedSchema = z.object({ id: z.string(), name: z.string(), roles: z.array(roleSchema).readonly() });
const viewerSchema = arrivedSchema.nullable();
const factsSchema = z.record(z.string(), z.union([z.string(), z.number(), z.boolean(), z.null()]));
const noteSchema = z.object({
  refusal: z.object({ code: z.string(), facts: factsSchema }).optional(),
  did: z.string().optional(),
  count: z.number(),
  subject: z.string().optional(),
  facts: factsSchema.optional(),
});
/** What a module asks of the rest of the channel. The engine carries it out, in order, within the same turn. */
export const orderSchema = z.discriminatedUnion("do", [
  /** `by`: in whose name, the module's own when left out. `answer`: chat is told what came of it. */
  z.object({
    do: z.literal("command"),
    gameId: z.string(),
    viewer: viewerSchema,
    command: commandSchema,
    by: z.string().optional(),
    answer: z.boolean().optional(),
    /** The sale it was bought with: who can't do it gives that back. */
    sale: z.string().max(40).optional(),
  }),
  /** What was bought is not done after all: its points go back, with all that hangs on it. */
  z.object({ do: z.literal("give-back"), sale: z.string().max(40) }),
  z.object({ do: z.literal("say"), text: z.string() }),
  /**
   * Has a text spoken; when it is made, it comes to the module as a command, `made` or `not-made`, with its number. `ahead`: only
   * so that it is there at once when it is asked for.
   */
  z.object({ do: z.literal("speak"), n: z.number(), text: z.string(), voice: voiceSchema, ahead: z.boolean() }),
  /** Looks for somebody on the platform; what it tells comes to the module as a command, `found` or `not-found`. */
  z.object({ do: z.literal("look-up"), name: z.string() }),
  /** Has the studio go to a scene; what came of it comes to the module as a command, `went` or `not-went`, with its number. */
  z.object({ do: z.literal("studio"), n: z.number(), scene: z.string() }),
  /**
   * Has a stretch of a moving picture made, from its address or from a file that was sent (`source`, its hash; empty for none);
   * it comes to the module as a command, `filmed` or `not-filmed`, with its number. `unfilm`: nobody wants it any more.
   */
  z.object({ do: z.literal("film"), n: z.number(), request: filmRequestSchema, source: z.string().max(64), name: z.string().max(80) }),
  z.object({ do: z.literal("unfilm"), n: z.number() }),
  z.object({ do: z.literal("show"), queue: z.string(), alert: alertSchema }),
  /** Ends what is shown or heard on every page, by its id. */
  z.object({ do: z.literal("end-alert"), id: z.string() }),
  /** Tells a viewer in chat what came of what they asked. */
  z.object({ do: z.literal("answer"), to: z.string(), note: noteSchema }),
  z.object({ do: z.literal("cue"), cueId: z.string(), by: z.string(), via: z.enum(["rundown", "reward"]).optional() }),
  /**
   * In a turn of its own, so that what somebody wrote waits for nothing: whether they are here for the first time, or what the
   * module tells itself to do.
   */
  z.object({ do: z.literal("apart"), viewer: arrivedSchema, command: commandSchema.nullable() }),
  /** To all other modules: somebody is here for the first time in this show. */
  z.object({ do: z.literal("arrived"), viewer: arrivedSchema, shows: z.number(), beforeMs: z.number().nullable() }),
  /** To all other modules: a show begins or ends. */
  z.object({ do: z.literal("announce"), what: z.enum(["live", "ended"]) }),
  /** Keeps how every game stands, or puts it back. */
  z.object({ do: z.literal("snapshot"), what: z.enum(["keep", "bring-back"]) }),
  /** What was bought is to be done: becomes a `redemption` signal. */
  z.object({
    do: z.literal("redeemed"),
    viewer: z.object({ id: z.string(), name: z.string(), roles: z.array(roleSchema).readonly() }),
    saleId: z.string(),
    rewardId: z.string(),
    reward: z.string(),
    price: z.number(),
    text: z.string(),
  }),
  z.object({ do: z.literal("hush"), on: z.boolean() }),
  /** Becomes a `happened` signal that rules can answer; `effects` are carried out with it, whatever the rules say. */
  z.object({
    do: z.literal("emit"),
    what: z.string(),
    viewer: viewerSchema,
    amount: z.number(),
    text: z.string(),
    effects: z.array(z.unknown()).readonly().optional(),
    touches: touchesSchema.optional(),
  }),
]);
export type Order = z.infer<typeof orderSchema>;
