import { refused } from "../../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

type Context = Readonly<{ params: Promise<{ id: string }> }>;
/** What happened in it so far, for its tape. */
export const GET = (_request: Request, context: Context): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    return answer(await services().engine.rehearsal.marks(session.channelId, (await context.params).id.slice(0, 26)));
  });
