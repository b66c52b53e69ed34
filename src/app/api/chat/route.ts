import { z } from "zod";
import { chatSettingsSchema } from "../../../server/composition";
import { saveChat } from "../../../server/web/chat";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";

const body = z.object({ enabled: z.boolean(), settings: chatSettingsSchema, password: z.string().max(400).nullable() });
export const PUT = action("chat.connect", body, async ({ session, body: { enabled, settings, password }, audit }) => {
  await audit({ host: settings.host, port: settings.port, enabled });
  return saveChat(services(), session.channelId, enabled, settings, password);
});
