import { z } from "zod";
import { action } from "../../../../../server/web/http";
import { replaceTrigger, revokeTrigger, triggerToken } from "../../../../../server/web/events";
import { services } from "../../../../../server/web/services";

export const POST = action(
  "cue.link",
  z.object({ do: z.enum(["copy", "replace", "revoke"]) }),
  async ({ session, params, body, audit }) => {
    const web = services();
    const cue = params["id"] ?? "";
    await audit({ cue, do: body.do });
    switch (body.do) {
      case "copy":
        return triggerToken(web, session.channelId, cue);
      case "replace":
        return replaceTrigger(web, session.channelId, cue);
      case "revoke":
        return revokeTrigger(web, session.channelId, cue);
    }
  },
);
