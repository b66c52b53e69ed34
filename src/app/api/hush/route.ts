import { z } from "zod";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";

export const POST = action("hush", z.object({ on: z.boolean() }), async ({ session, body, audit }) => {
  const done = await services().engine.hush(session.channelId, body.on);
  // The log may wait for the database; hush must not.
  void audit({ on: body.on }).catch(() => undefined);
  return done;
});
