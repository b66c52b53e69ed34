import { ok, refused } from "../../../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../../../server/web/http";
import { linesSchema, showLines } from "../../../../../../server/web/show-lines";
import { services } from "../../../../../../server/web/services";

/** What was said and what it led to, between two times of a past show. */
export const GET = (request: Request): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const asked = linesSchema.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!asked.success) return answer(refused("input/invalid", { why: "Lines are asked for from one time to another." }));
    return answer(ok(await showLines(services(), session.channelId, asked.data)));
  });
