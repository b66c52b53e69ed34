import { randomBytes } from "node:crypto";
import type { ChannelId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { WebServices } from "../composition/web";
import { hashToken, newToken, seal, unseal } from "../secrets";

const secretPurpose = "event-secret";
const triggerPurpose = "trigger-address";
/** How long events signed with the old secret are still taken after a change. */
export const overlapMs = 24 * 3_600_000;

export const newEventSecret = (): string => `whsec_${randomBytes(32).toString("base64")}`;

export async function eventSecret({ store, env }: WebServices, channel: ChannelId): Promise<Result<{ secret: string }>> {
  const kept = await store.events.secret(channel);
  if (kept === null) return refused("events/none");
  try {
    return ok({ secret: unseal(env.appKey, secretPurpose, kept.sealed) });
  } catch {
    return refused("overlay/key-changed");
  }
}

/** A new secret; the old one is taken for a day more, so that senders can change over without losing anything. */
export async function rotateEventSecret(web: WebServices, channel: ChannelId): Promise<Result<{ secret: string }>> {
  const secret = newEventSecret();
  const nowMs = web.clock.now();
  await web.store.events.setSecret(channel, { sealed: seal(web.env.appKey, secretPurpose, secret), oldUntilMs: nowMs + overlapMs, nowMs });
  await web.engine.reload(channel);
  return ok({ secret });
}

export async function endOldSecret(web: WebServices, channel: ChannelId): Promise<Result<null>> {
  await web.store.events.endOld(channel);
  await web.engine.reload(channel);
  return ok(null);
}

export async function triggerToken({ store, env }: WebServices, channel: ChannelId, cue: string): Promise<Result<{ token: string }>> {
  const sealed = await store.events.trigger(channel, cue);
  if (sealed === null) return refused("cue/no-link");
  try {
    return ok({ token: unseal(env.appKey, triggerPurpose, sealed) });
  } catch {
    return refused("overlay/key-changed");
  }
}

export async function replaceTrigger(web: WebServices, channel: ChannelId, cue: string): Promise<Result<{ token: string }>> {
  const token = newToken();
  const sealed = seal(web.env.appKey, triggerPurpose, token);
  await web.store.events.setTrigger(channel, cue, { hash: hashToken(token), sealed }, web.clock.now());
  await web.engine.reload(channel);
  return ok({ token });
}

export async function revokeTrigger(web: WebServices, channel: ChannelId, cue: string): Promise<Result<null>> {
  await web.store.events.setTrigger(channel, cue, null, web.clock.now());
  await web.engine.reload(channel);
  return ok(null);
}
