import { z } from "zod";
import { action } from "../../../server/web/http";
import { usePractice } from "../../../server/web/practice";
import { services } from "../../../server/web/services";

/** Connects chat and events to the practice rig. */
export const POST = action("chat.connect", z.object({}), async ({ session, audit }) => {
  await audit({ practice: true });
  return usePractice(services(), session.channelId);
});
