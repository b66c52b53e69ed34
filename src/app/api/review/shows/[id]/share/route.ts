import { z } from "zod";
import { action } from "../../../../../../server/web/http";
import { services } from "../../../../../../server/web/services";
import { shareShow, unshareShow } from "../../../../../../server/web/share";
import { recordIn } from "../../../../../../server/web/show-names";

/** Makes a page to share, or takes it back. The link is told once. */
export const POST = action("show.share", z.object({ on: z.boolean() }), async ({ session, params, body, audit }) => {
  const id = recordIn(params["id"]);
  await audit({ show: id, on: body.on });
  return body.on ? shareShow(services(), session.channelId, id) : unshareShow(services(), session.channelId, id);
});
