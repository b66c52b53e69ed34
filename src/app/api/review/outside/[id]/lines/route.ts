import { ok, refused } from "../../../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../../../server/web/http";
import { outsideLines, outsideLinesSchema } from "../../../../../../server/web/outside-shows";
import { services } from "../../../../../../server/web/services";

type Context = Readonly<{ params: Promise<{ id: string }> }>;
/** A page of what was said and happened in it. */
export const GET = (request: Request, context: Context): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const asked = outsideLinesSchema.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!asked.success) return answer(refused("input/invalid", { why: "These lines can’t be asked for so." }));
    const found = await outsideLines(services(), session.channelId, (await context.params).id.slice(0, 40), asked.data);
    return found === null ? answer(refused("outside/unknown")) : answer(ok(found));
  });
