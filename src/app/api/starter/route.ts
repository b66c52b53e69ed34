import { z } from "zod";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";
import { addStarter } from "../../../server/web/starter";

/** The pictures and sounds that Izzam comes with, for a channel that has none. */
export const POST = action("prop.edit", z.object({ what: z.enum(["emotes", "props"]) }), async ({ session, body, audit }) => {
  await audit({ starter: body.what });
  return addStarter(services(), session.channelId, body.what);
});
