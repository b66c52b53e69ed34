import { z } from "zod";
import { proof1Format, proof1Schema } from "./proof-1";
import { changeSchema, drawSchema, hashSchema as hash, listSchema } from "./proof-parts";
import { happeningSchema } from "./record";

/** All that is needed to follow a round from its promise to its result: one JSON file, for anybody's program. */
export const proofFormat = "izzam-round-2";
export const proof2Schema = z.strictObject({
  format: z.literal(proofFormat),
  round: z.string().min(1).max(60),
  openedMs: z.int(),
  /** What the round was to be, as it was promised; `chance` in it holds the rules of the draw. */
  settings: z.unknown(),
  settingsHash: hash,
  commitment: hash,
  secret: hash,
  changes: z.array(changeSchema),
  record: z.array(happeningSchema),
  /** The last link of the chain, after all changes and the whole record. */
  chain: hash,
  list: listSchema,
  listHash: hash,
  /** The number that was drawn, where numbers were named; draws are then the viewers who were nearest. */
  number: z.strictObject({ target: z.int(), attempts: z.int().min(0) }).optional(),
  draws: z.array(drawSchema),
});
export type Proof2 = z.infer<typeof proof2Schema>;
export const proofSchema = z.discriminatedUnion("format", [proof1Schema, proof2Schema]);
export type Proof = z.infer<typeof proofSchema>;

/** The shapes of both formats for other programs, by name. */
const shapes = new Map<string, z.ZodType>([
  [proof1Format, proof1Schema],
  [proofFormat, proof2Schema],
]);
export const proofFormats: readonly string[] = [...shapes.keys()];
export const proofJsonSchema = (format: string): unknown => {
  const shape = shapes.get(format);
  return shape === undefined ? null : z.toJSONSchema(shape);
};
