import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { ChannelId } from "../../core/kernel/ids";
import { hashToken, newToken, seal, unseal } from "../secrets";
import type { WebServices } from "../composition/web";

const purpose = "overlay-link";

/** The token, for copying. It is never part of a page, only of the answer to this one request. */
export async function linkToken({ store, env }: WebServices, channel: ChannelId, overlay: string): Promise<Result<{ token: string }>> {
  const sealed = await store.overlays.sealedToken(channel, overlay);
  if (sealed === null) return refused("overlay/no-link");
  try {
    return ok({ token: unseal(env.appKey, purpose, sealed) });
  } catch {
    return refused("overlay/key-changed");
  }
}

/** Revokes the link there is and makes a new one, in one step: pages with the old one clear at once. */
export async function replaceLink(web: WebServices, channel: ChannelId, overlay: string): Promise<Result<{ token: string }>> {
  const token = newToken();
  const there = await web.store.overlays.setToken(
    channel,
    overlay,
    { hash: hashToken(token), sealed: seal(web.env.appKey, purpose, token) },
    web.clock.now(),
  );
  if (!there) return refused("overlay/unknown");
  await web.engine.reload(channel);
  return ok({ token });
}

export async function revokeLink(web: WebServices, channel: ChannelId, overlay: string): Promise<Result<null>> {
  if (!(await web.store.overlays.setToken(channel, overlay, null, web.clock.now()))) return refused("overlay/unknown");
  await web.engine.reload(channel);
  return ok(null);
}
