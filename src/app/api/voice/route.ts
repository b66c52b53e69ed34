import { z } from "zod";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";

/** Which open page makes the sound. */
export const POST = action("voice.choose", z.object({ page: z.string().max(60) }), async ({ session, body, audit }) => {
  await audit({ page: body.page });
  return services().engine.voice(session.channelId, body.page);
});
