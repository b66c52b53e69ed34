import { cookies } from "next/headers";
import { ok, refused } from "../../../core/kernel/refusal";
import { answer, currentSession, forgetSession, fromOurPages, guarded, sessionCookie } from "../../../server/web/http";
import { services } from "../../../server/web/services";

export const POST = (): Promise<Response> =>
  guarded(async () => {
    if (!(await fromOurPages())) return answer(refused("access/foreign"));
    const session = await currentSession();
    if (session !== null) {
      await services().store.accounts.closeSession(session.tokenHash);
      forgetSession(session);
      await services().engine.recheck();
    }
    (await cookies()).delete(sessionCookie);
    return answer(ok(null));
  });
