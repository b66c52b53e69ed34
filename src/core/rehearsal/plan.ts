import { z } from "zod";
import { roomNames } from "../lab/crowd";
import { eveningRatesSchema } from "../lab/rates";

/** At which paces a rehearsal runs: its minutes to one of ours. */
export const paces = [0.5, 1, 2, 5, 10, 20] as const;
export const paceSchema = z.union(
  paces.map((p) => z.literal(p)) as unknown as [z.ZodLiteral<0.5>, z.ZodLiteral<1>, ...z.ZodLiteral<number>[]],
);
export const mostRehearsals = 3;
/** No rehearsal is longer, in its own time. */
export const longestMs = 26 * 3_600_000;

/** Who is there: a ready-made room, an evening like the last ones, a past show's log played again, chat from a file, or nobody. */
export const crowdAskSchema = z.discriminatedUnion("from", [
  z.object({ from: z.literal("room"), room: z.enum(roomNames) }),
  z.object({ from: z.literal("last"), shows: z.int().min(1).max(20) }),
  z.object({ from: z.literal("show"), show: z.int().min(1), minute: z.int().min(0).max(1_440), hands: z.boolean() }),
  z.object({ from: z.literal("file"), file: z.string().min(1).max(40) }),
  z.object({ from: z.literal("nobody") }),
]);
export type CrowdAsk = z.infer<typeof crowdAskSchema>;

export const rehearsalAskSchema = z.object({
  crowd: crowdAskSchema,
  pace: paceSchema,
  /** Whether chat hears what Izzam says in it. */
  chat: z.boolean(),
  /** Whether the channel's open overlay pages show it. */
  overlays: z.boolean(),
});
export type RehearsalAsk = z.infer<typeof rehearsalAskSchema>;

/** The same, once it is known what it means: as the engine is asked. */
export const sourceSchema = z.discriminatedUnion("from", [
  z.object({ from: z.literal("rates"), rates: eveningRatesSchema, name: z.string().max(120) }),
  z.object({
    from: z.literal("log"),
    fromMs: z.number(),
    toMs: z.number(),
    beginMs: z.number(),
    hands: z.boolean(),
    name: z.string().max(120),
  }),
  z.object({
    from: z.literal("lines"),
    name: z.string().max(120),
    lines: z.array(z.object({ afterMs: z.number().min(0), name: z.string().min(1).max(60), text: z.string().max(500) })).max(20_000),
  }),
  z.object({ from: z.literal("nobody") }),
]);
export type Source = z.infer<typeof sourceSchema>;

/** What can be done in a rehearsal beside what the booth does. */
export const steerSchema = z.discriminatedUnion("do", [
  z.object({ do: z.literal("pause") }),
  z.object({ do: z.literal("go-on") }),
  z.object({ do: z.literal("pace"), pace: paceSchema }),
  z.object({ do: z.literal("jump"), minutes: z.int().min(1).max(240) }),
  z.object({ do: z.literal("crowd"), room: z.enum([...roomNames, "nobody", "first"]) }),
  z.object({ do: z.literal("overlays"), on: z.boolean() }),
  z.object({ do: z.literal("chat"), on: z.boolean() }),
  z.object({ do: z.literal("end") }),
]);
export type Steer = z.infer<typeof steerSchema>;

export const givenSchema = z.object({
  kind: z.enum(["message", "follow", "membership", "gift", "tip", "reaction", "raid", "host"]),
  as: z.string().trim().min(1, "Somebody’s name is missing.").max(60),
  text: z.string().max(500),
  amount: z.int().min(1).max(1_000_000),
});
export type GivenAsk = z.infer<typeof givenSchema>;
