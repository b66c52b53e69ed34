import { z } from "zod";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";

export const POST = action(
  "queue.act",
  z.object({ do: z.enum(["skip", "clear", "pause", "go-on"]), queue: z.string().max(26) }),
  async ({ stage, body, audit }) => {
    await audit({ queue: body.queue, do: body.do });
    return services().engine.queue(stage, body.do, body.queue);
  },
);
