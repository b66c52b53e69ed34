import { refused } from "../../../../../core/kernel/refusal";
import { addressOf } from "../../../../../server/web/cookie";
import { answer, fromOurPages, guarded } from "../../../../../server/web/http";
import { askCode, channelOf } from "../../../../../server/web/viewers";

/** The code that ties this page to a chat name; a form without script comes back to the page. */
export const POST = (request: Request, context: { params: Promise<{ channel: string }> }): Promise<Response> =>
  guarded(async () => {
    if (!(await fromOurPages())) return answer(refused("access/foreign"));
    const channel = channelOf((await context.params).channel);
    if (channel === null) return answer(refused("channel/unknown"));
    const done = await askCode(channel, await addressOf());
    if (request.headers.get("content-type")?.includes("json") === true) return answer(done);
    return new Response(null, { status: 303, headers: { location: `/c/${channel}` } });
  });
