import { z } from "zod";

const share = z.number().min(0).max(1);
/** What is kept of a picture, as shares of its width and height. */
export const cropSchema = z
  .object({ x: share, y: share, width: z.number().min(0.01).max(1), height: z.number().min(0.01).max(1) })
  .refine((c) => c.x + c.width <= 1.0001 && c.y + c.height <= 1.0001, "The cut reaches over the edge.");
export type Crop = z.infer<typeof cropSchema>;
export const wholeCrop: Crop = { x: 0, y: 0, width: 1, height: 1 };
