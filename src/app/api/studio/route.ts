import { z } from "zod";
import { studioConnectionSchema } from "../../../server/composition";
import { action } from "../../../server/web/http";
import { saveStudio } from "../../../server/web/studio";
import { services } from "../../../server/web/services";

const body = z.object({ enabled: z.boolean(), settings: studioConnectionSchema, secret: z.string().max(400).nullable() });
export const PUT = action("chat.connect", body, async ({ session, body: at, audit }) => {
  await audit({ studio: at.settings.address, enabled: at.enabled });
  return saveStudio(services(), session.channelId, at);
});
