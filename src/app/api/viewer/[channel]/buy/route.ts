import { fromViewer } from "../../../../../server/web/viewer-form";
import { buy, buySchema } from "../../../../../server/web/viewers";

/** A reward is bought on the viewer page. */
export const POST = fromViewer(buySchema, buy);
