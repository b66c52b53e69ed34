import { z } from "zod";
import { removeOperator } from "../../../../server/web/accounts";
import { action, forgetOperator } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

export const DELETE = action("operators.manage", z.object({}), async ({ session, params, audit }) => {
  const done = await removeOperator(services(), session, params["id"] ?? "");
  if (done.ok) {
    forgetOperator(params["id"] ?? "");
    await audit({ removed: done.value.login });
  }
  return done;
});
