import { z } from "zod";
import { ok } from "../../../core/kernel/refusal";
import { invite } from "../../../server/web/accounts";
import { action } from "../../../server/web/http";
import { services } from "../../../server/web/services";

/** A link that makes one person a moderator, once. */
export const POST = action("operators.manage", z.object({}), async ({ session, audit }) => {
  const done = await invite(services(), session);
  if (done.ok) await audit({ invite: "made" });
  return done;
});
/** Ends all invitations that were not used. */
export const DELETE = action("operators.manage", z.object({}), async ({ session, audit }) => {
  const ended = await services().store.accounts.endInvites(session.channelId);
  await audit({ invites: "ended" });
  return ok({ ended });
});
