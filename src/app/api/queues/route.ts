import { z } from "zod";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";

export const POST = action(
  "queue.act",
  z.object({ do: z.enum(["skip", "clear", "pause", "go-on"]), queue: z.string().max(26) }),
  async ({ session, body, audit }) => {
    await audit({ queue: body.queue, do: body.do });
    return services().engine.queue(session.channelId, body.do, body.queue);
  },
);
