import { cookies } from "next/headers";
import { refused } from "../../../../../core/kernel/refusal";
import { answer, fromOurPages, guarded } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";
import { channelOf, pageToken, viewerCookie } from "../../../../../server/web/viewers";

/** This page is nobody's again. */
export const POST = (_request: Request, context: { params: Promise<{ channel: string }> }): Promise<Response> =>
  guarded(async () => {
    if (!(await fromOurPages())) return answer(refused("access/foreign"));
    const channel = channelOf((await context.params).channel);
    if (channel === null) return answer(refused("channel/unknown"));
    const token = await pageToken();
    if (token !== "") await services().engine.leave(channel, token);
    (await cookies()).delete(viewerCookie);
    return new Response(null, { status: 303, headers: { location: `/c/${channel}` } });
  });
