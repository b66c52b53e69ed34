import { z } from "zod";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";

export const POST = action(
  "lane.act",
  z.object({ do: z.enum(["skip", "clear", "pause", "go-on"]), lane: z.string().max(26) }),
  async ({ session, body, audit }) => {
    await audit({ lane: body.lane, do: body.do });
    return services().engine.lane(session.channelId, body.do, body.lane);
  },
);
