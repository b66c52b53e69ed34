import { z } from "zod";
import { endSession } from "../../../../server/web/accounts";
import { action, forgetOperator } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

/** Ends one session of one's own; with an empty id, all but this one. */
export const DELETE = action("account", z.object({ id: z.string().max(40) }), async ({ session, body, audit }) => {
  const done = await endSession(services(), session, body.id === "" ? null : body.id);
  if (done.ok) forgetOperator(session.operatorId, session.tokenHash);
  if (done.ok) await audit({ ended: body.id === "" ? "all others" : body.id });
  return done;
});
