import { ok, type Result } from "../../core/kernel/refusal";
import type { ChannelId } from "../../core/kernel/ids";
import { seal } from "../secrets";
import type { WebServices } from "../composition/web";

/** `password`: a new one, "" to forget the one there is, null to leave it as it is. */
export async function saveChat(
  web: WebServices,
  channel: ChannelId,
  enabled: boolean,
  settings: unknown,
  password: string | null,
): Promise<Result<null>> {
  const secret = password === null ? undefined : password === "" ? null : seal(web.env.appKey, "chat-password", password);
  await web.store.chat.saveConnection(channel, { enabled, settings, secret });
  await web.engine.reload(channel);
  return ok(null);
}
