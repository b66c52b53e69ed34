import { z } from "zod";

/** What both formats of a proof are made of. */
export const hashSchema = z.string().regex(/^[0-9a-f]{64}$/);
export const idSchema = z.string().min(1).max(80);
const weight = z.int().min(0).max(1_000_000_000);
export const changeSchema = z.strictObject({ seq: z.int(), atMs: z.int(), id: idSchema, weight, guess: z.int().optional() });
export const listSchema = z.array(
  z.union([z.strictObject({ id: idSchema, weight, guess: z.int(), at: z.int() }), z.strictObject({ id: idSchema, weight })]),
);
export const drawSchema = z.strictObject({
  index: z.int().min(0),
  id: idSchema,
  weight,
  total: z.int().min(1),
  ticket: z.int().min(0),
  attempts: z.int().min(0),
});

/** One thing that is looked at: whether it holds, and in words for the person who looks. `reason` names a fault, as docs/chance.md lists them. */
export type CheckStep = Readonly<{
  name: "promise" | "settings" | "chain" | "lock" | "list" | "shake" | "draws" | "seen" | "missing";
  holds: boolean;
  reason: string;
  says: string;
}>;
