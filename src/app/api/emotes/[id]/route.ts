import { z } from "zod";
import { emoteWordSchema, removeEmote, renameEmote } from "../../../../server/web/emotes";
import { action } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

export const PATCH = action("emote.edit", z.object({ word: emoteWordSchema }), async ({ session, params, body: { word }, audit }) => {
  const done = await renameEmote(services(), session.channelId, params["id"] ?? "", word);
  if (done.ok) await audit({ renamed: params["id"], word });
  return done;
});

export const DELETE = action("emote.edit", z.object({}), async ({ session, params, audit }) => {
  const done = await removeEmote(services(), session.channelId, params["id"] ?? "");
  if (done.ok) await audit({ removed: params["id"] });
  return done;
});
