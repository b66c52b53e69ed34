import { z } from "zod";
import { changeSchema, drawSchema, hashSchema as hash, idSchema as id, listSchema } from "./proof-parts";

/**
 * The first format of a proof. No new round has it; old rounds stay checkable. Its chain ends with the last entry, so
 * nothing shows when the list was locked, which messages shook it, or how many draws were allowed.
 */
export const proof1Format = "izzam-round-1";
export const proof1Schema = z.object({
  format: z.literal(proof1Format),
  round: z.string().min(1).max(60),
  /** What the round was to be, as it was promised; anything that JSON can hold. */
  settings: z.unknown(),
  settingsHash: hash,
  commitment: hash,
  secret: hash,
  lock: z.object({ how: z.enum(["time", "operator"]), atMs: z.int() }),
  changes: z.array(changeSchema),
  /** The newest value of the chain when it was closed. */
  chain: hash,
  list: listSchema,
  listHash: hash,
  shake: z.object({ messages: z.array(z.object({ id, text: z.string().max(600) })), hash }).nullable(),
  /** Where numbers were named: between which, and the one that was drawn; `settings.number` says the same. Draws are then who was nearest. */
  number: z.object({ from: z.int(), to: z.int(), target: z.int(), attempts: z.int().min(0) }).optional(),
  /** Whether who was drawn could be drawn again. */
  staysIn: z.boolean(),
  draws: z.array(drawSchema),
});
export type Proof1 = z.infer<typeof proof1Schema>;
