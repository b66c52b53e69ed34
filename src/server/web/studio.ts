import { ok, type Result } from "../../core/kernel/refusal";
import type { ChannelId } from "../../core/kernel/ids";
import { seal } from "../secrets";
import type { StudioConnection, WebServices } from "../composition/web";

/** `secret`: a new one, "" to forget the one there is, null to leave it as it is. */
export async function saveStudio(
  web: WebServices,
  channel: ChannelId,
  at: Readonly<{ enabled: boolean; settings: StudioConnection; secret: string | null }>,
): Promise<Result<null>> {
  const { enabled, settings } = at;
  const secret = at.secret === null ? undefined : at.secret === "" ? null : seal(web.env.appKey, "studio-secret", at.secret);
  await web.store.studio.saveConnection(channel, { enabled, settings, secret });
  await web.engine.reload(channel);
  return ok(null);
}
