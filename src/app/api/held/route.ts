import { z } from "zod";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";

/** What was held under hush: played now, or dropped; one, or with an empty id all. */
export const POST = action(
  "held.decide",
  z.object({ do: z.enum(["play", "drop"]), alert: z.string().max(120) }),
  async ({ stage, body, audit }) => {
    const done = await services().engine.held(stage, body.do, body.alert);
    if (done.ok) await audit({ do: body.do });
    return done;
  },
);
