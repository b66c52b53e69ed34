import { action } from "../../../../../server/web/http";
import { actOnShow, reviewActSchema } from "../../../../../server/web/review";
import { recordIn } from "../../../../../server/web/show-names";
import { services } from "../../../../../server/web/services";

/** What somebody makes of a past show: its name, its place in a recording, its moments. */
export const POST = action("review.edit", reviewActSchema, ({ session, params, body }) =>
  actOnShow(services(), session, recordIn(params["id"]), body),
);
