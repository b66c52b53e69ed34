import { z } from "zod";
import { ok, refused } from "../../../core/kernel/refusal";
import { labAskSchema } from "../../../core/lab/ask";
import { action, answer, currentSession, guarded } from "../../../server/web/http";
import { askLab, labView } from "../../../server/web/lab";
import { services } from "../../../server/web/services";

/** What can be asked, and what was asked, with how far each is. */
export const GET = (): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    return answer(ok(await labView(services(), session.channelId)));
  });

/** Asks something new. */
export const POST = action("lab.ask", z.object({ ask: labAskSchema }), ({ session, body }) => askLab(services(), session, body.ask, null));
