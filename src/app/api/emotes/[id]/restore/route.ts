import { z } from "zod";
import { restoreEmote } from "../../../../../server/web/emotes";
import { action } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

export const POST = action("emote.edit", z.object({}), async ({ session, params, audit }) => {
  const done = await restoreEmote(services(), session.channelId, params["id"] ?? "");
  if (done.ok) await audit({ restored: params["id"] });
  return done;
});
