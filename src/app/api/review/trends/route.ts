import { ok, refused } from "../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../server/web/http";
import { factsOf, published } from "../../../../server/web/published";
import { services } from "../../../../server/web/services";
import { showFigures } from "../../../../server/web/trends";

/** The last shows as figures, to be compared. */
export const GET = (): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const [shows, told] = await Promise.all([showFigures(services(), session.channelId), published(services(), session.channelId)]);
    const { points, home } = factsOf(told);
    return answer(ok({ shows, points, home }));
  });
