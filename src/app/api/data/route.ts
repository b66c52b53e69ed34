import { z } from "zod";
import { ok } from "../../../core/kernel/refusal";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";

const days = (what: string) => z.int().min(7, `${what}: at least 7 days.`).max(3_650, `${what}: at most ten years.`);

/** How long things are kept. */
export const PUT = action(
  "data.keep",
  z.object({ logDays: days("The log"), auditDays: days("Who did what"), hitDays: days("Single hits") }),
  async ({ body, audit }) => {
    await services().store.data.setRetention(body);
    await audit(body);
    return ok(null);
  },
);
