import { RateLimiterMemory } from "rate-limiter-flexible";
import { z } from "zod";
import { proofSchema } from "../../core/chance/proof";
import { changeSchema } from "../../core/chance/proof-parts";
import { chanceIn } from "../../core/chance/record";
import { guessesOf, listOf } from "../../core/chance/scheme";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { KeptRound } from "../ports/event-store";
import { allowed } from "./accounts";
import { services } from "./services";

/** A round’s name begins with its game’s id. */
const roundName = /^([A-Za-z0-9_-]{1,26})\.[A-Za-z0-9_.-]{1,50}$/;
const perAddress = new RateLimiterMemory({ points: 120, duration: 60 });
const bodySchema = z.object({
  label: z.string().optional(),
  commitment: z.string().optional(),
  why: z.string().optional(),
  title: z.string().optional(),
  tries: z.int().optional(),
  gaveUp: z.object({ phase: z.string(), people: z.int(), tickets: z.int(), atMs: z.number(), role: z.string().default("") }).nullish(),
  by: z.string().optional(),
  proof: z.unknown().optional(),
});
export type Round = Omit<KeptRound, "body"> & Readonly<{ round: string; body: z.infer<typeof bodySchema> }>;

/** A round that is over, for anybody. */
export async function roundOf(given: string, address: string): Promise<Result<Round>> {
  const game = roundName.exec(given)?.[1];
  if (game === undefined) return refused("round/unknown");
  const may = await allowed(perAddress, address);
  if (!may.ok) return may;
  const kept = await services().store.events.round(game, given);
  const body = bodySchema.safeParse(kept?.body);
  return kept === null || !body.success ? refused("round/unknown") : ok({ ...kept, round: given, body: body.data });
}
/** The proof alone, as it is handed out; null for a round without one. */
export const proofIn = (round: Round): unknown => {
  const read = proofSchema.safeParse(round.body.proof);
  if (!read.success) return null;
  if (round.entries.length === 0) return read.data;
  const changes = z.array(entrySchema).safeParse(round.entries);
  if (!changes.success) return null;
  const all = changes.data.map((e) => e.change);
  const numbered = read.data.number !== undefined || chanceIn(read.data.settings)?.number != null;
  return { ...read.data, changes: all, list: numbered ? guessesOf(all) : listOf(all) };
};
const entrySchema = z.object({ change: changeSchema });
