import { rehearsalAskSchema } from "../../../core/rehearsal/plan";
import { action } from "../../../server/web/http";
import { beginRehearsal } from "../../../server/web/rehearsal";
import { services } from "../../../server/web/services";

/** Begins a rehearsal. */
export const POST = action("rehearse", rehearsalAskSchema, ({ session, body }) => beginRehearsal(services(), session, body));
