import { z } from "zod";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import { sha256 } from "@noble/hashes/sha2.js";
import { idSchema, hashSchema } from "./proof-parts";
import { canonical } from "./scheme";

/**
 * The rules of chance that a round announces, in its settings under `chance`. Everything that may influence the result
 * beside the entries is here, so that it is promised before the first entry.
 */
export const chanceSchema = z.strictObject({
  /** So many winners may stand at once; a winner who was passed over makes room for another. */
  winners: z.int().min(1).max(1_000),
  /** Whether a viewer who was drawn may be drawn again. */
  staysIn: z.boolean(),
  /** The drum is shaken by the first message of each of at most `most` viewers within `withinMs` after the lock. Null: not shaken. */
  shake: z.strictObject({ who: z.literal("anyone"), most: z.int().min(1).max(1_000), withinMs: z.int().min(1) }).nullable(),
  /** Viewers name numbers in this range, and one of them is drawn. Null: tickets are drawn. */
  number: z
    .strictObject({ from: z.int(), to: z.int() })
    .refine(({ from, to }) => to >= from && Number.isSafeInteger(to - from + 1))
    .nullable(),
  /** The list locks by itself so long after the opening. Null: an operator locks it. An operator may always lock earlier. */
  lockAfterMs: z.int().min(0).nullable(),
});
export type ChanceRules = z.infer<typeof chanceSchema>;
/** The rules that announced settings hold; null where they hold none. */
export const chanceIn = (settings: unknown): ChanceRules | null =>
  chanceSchema.safeParse((settings as { chance?: unknown } | null | undefined)?.chance).data ?? null;

const atMs = z.int();
const index = z.int().min(0);
/** What happened to a round after its last entry. Each is a link of the chain. */
export const happeningSchema = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("lock"), atMs, by: z.enum(["time", "operator"]), list: hashSchema }),
  z.strictObject({ kind: z.literal("shake"), atMs, id: idSchema, text: z.string().max(600) }),
  /** The shaking is over; `shake` is the hash of its messages. */
  z.strictObject({ kind: z.literal("shaken"), atMs, shake: hashSchema }),
  z.strictObject({ kind: z.literal("draw"), atMs, index }),
  /** The winner of this draw was passed over. */
  z.strictObject({ kind: z.literal("pass"), atMs, index }),
  /** An operator asked for one winner more than was announced. */
  z.strictObject({ kind: z.literal("more"), atMs }),
]);
export type Happening = z.infer<typeof happeningSchema>;

const hashOf = (value: unknown): string => bytesToHex(sha256(utf8ToBytes(canonical(value))));
export type Opening2 = Readonly<{ round: string; commitment: string; settings: string; atMs: number }>;
/** The chain of a round of the second format begins with its promise and the time of its opening. */
export const openingLink = ({ round, commitment, settings, atMs: at }: Opening2): string =>
  hashOf({ atMs: at, commitment, round, settings });
export const nextHappening = (link: string, happening: Happening): string => hashOf([link, happening]);
