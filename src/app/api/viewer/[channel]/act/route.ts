import { fromViewer } from "../../../../../server/web/viewer-form";
import { act, actSchema } from "../../../../../server/web/viewers";

/** A viewer does something in a game. */
export const POST = fromViewer(actSchema, act);
