import { z } from "zod";
import { changePassword, passwordSchema } from "../../../../server/web/accounts";
import { action, forgetOperator } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

export const POST = action(
  "account",
  z.object({ before: z.string().min(1, "Your current password is missing.").max(400), after: passwordSchema }),
  async ({ session, body, audit }) => {
    const done = await changePassword(services(), session, body.before, body.after);
    if (done.ok) forgetOperator(session.operatorId, session.tokenHash);
    if (done.ok) await audit({ password: "changed" });
    return done;
  },
);
