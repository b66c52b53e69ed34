import { z } from "zod";
import { refused } from "../../../../core/kernel/refusal";
import { givenSchema, steerSchema } from "../../../../core/rehearsal/plan";
import { action, answer, currentSession, guarded } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

type Context = Readonly<{ params: Promise<{ id: string }> }>;
/** How it stands, and what was learnt once it is over. */
export const GET = (_request: Request, context: Context): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    return answer(await services().engine.rehearsal.report(session.channelId, (await context.params).id.slice(0, 26)));
  });

const act = z.union([z.object({ steer: steerSchema }), z.object({ give: givenSchema })]);
/** Its time, its crowd, its end; or one signal by hand. */
export const POST = action("rehearse", act, ({ session, params, body }) => {
  const { rehearsal } = services().engine;
  const id = (params["id"] ?? "").slice(0, 26);
  return "steer" in body ? rehearsal.steer(session.channelId, id, body.steer) : rehearsal.give(session.channelId, id, body.give);
});
