import { refused } from "../../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../../server/web/http";
import { wholePicture } from "../../../../../server/web/props";
import { services } from "../../../../../server/web/services";

/** A picture as it came, before it was cut: what one cuts on. */
export const GET = (_: Request, context: { params: Promise<{ id: string }> }): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    return answer(await wholePicture(services(), session.channelId, (await context.params).id));
  });
