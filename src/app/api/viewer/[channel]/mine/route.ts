import { ok, refused } from "../../../../../core/kernel/refusal";
import { answer, guarded } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";
import { channelOf, mineOf, pageToken } from "../../../../../server/web/viewers";

/** The history of who this page is tied to; nobody else's. */
export const GET = (_request: Request, context: { params: Promise<{ channel: string }> }): Promise<Response> =>
  guarded(async () => {
    const channel = channelOf((await context.params).channel);
    if (channel === null) return answer(refused("channel/unknown"));
    const shop = await services().engine.shop(channel, await pageToken());
    if (!shop.ok) return answer(shop);
    return answer(shop.value.viewer === null ? refused("viewer/not-proven") : ok(await mineOf(channel, shop.value.viewer.id)));
  });
