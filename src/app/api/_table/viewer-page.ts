import { inMegabytes, mostViewerFilmBytes } from "../../../core/props/sizes";
import { dropCookie } from "../../../server/web/asked";
import { fromOurs, open, type Routes } from "../../../server/web/route-kit";
import { ok, refusal, refused } from "../../../core/kernel/refusal";
import { addressOf } from "../../../server/web/cookie";
import { services } from "../../../server/web/services";
import { withUpload } from "../../../server/web/upload";
import { fromViewer } from "../../../server/web/viewer-form";
import {
  act,
  actSchema,
  askCode,
  buy,
  buySchema,
  channelOf,
  keepFilm,
  mineOf,
  pageToken,
  renew,
  viewerCookie,
} from "../../../server/web/viewers";

export const viewerPageRoutes: Routes = {
  /** A viewer does something in a game. */
  "POST /viewer/:channel/act": fromViewer(actSchema, act),
  /** A reward is bought on the viewer page. */
  "POST /viewer/:channel/buy": fromViewer(buySchema, buy),
  /** The code that ties this page to a chat name; a form without script comes back to the page. */
  "POST /viewer/:channel/code": fromOurs(async ({ params, request }) => {
    const channel = channelOf(params["channel"] ?? "");
    if (channel === null) return refused("channel/unknown");
    const done = await askCode(channel, await addressOf());
    if (request.headers.get("content-type")?.includes("json") === true) return done;
    return new Response(null, { status: 303, headers: { location: `/c/${channel}` } });
  }),
  /** A film from a viewer's own computer, kept until they say what of it is to be shown. */
  "POST /viewer/:channel/film": fromOurs(async ({ params, request }) => {
    const channel = channelOf(params["channel"] ?? "");
    if (channel === null) return refused("channel/unknown");
    const limits = {
      most: mostViewerFilmBytes,
      tooLarge: refusal("prop/too-large", { mostMb: inMegabytes(mostViewerFilmBytes) }),
      missing: refusal("picture/empty"),
    };
    return keepFilm(channel, (keep) => withUpload(request, "film", limits, keep));
  }),
  /** This page is nobody's again. */
  "POST /viewer/:channel/leave": fromOurs(async ({ params }) => {
    const channel = channelOf(params["channel"] ?? "");
    if (channel === null) return refused("channel/unknown");
    const token = await pageToken();
    if (token !== "") await services().engine.leave(channel, token);
    dropCookie(viewerCookie);
    return new Response(null, { status: 303, headers: { location: `/c/${channel}` } });
  }),
  /** A page whose name was proven gets another token, which nobody knew before. */
  "POST /viewer/:channel/renew": fromOurs(async ({ params }) => {
    const channel = channelOf(params["channel"] ?? "");
    return channel === null ? refused("channel/unknown") : renew(channel, await addressOf());
  }),
  /** The history of who this page is tied to; nobody else's. */
  "GET /viewer/:channel/mine": open(async ({ params }) => {
    const channel = channelOf(params["channel"] ?? "");
    if (channel === null) return refused("channel/unknown");
    const shop = await services().engine.shop(channel, await pageToken());
    if (!shop.ok) return shop;
    return shop.value.viewer === null ? refused("viewer/not-proven") : ok(await mineOf(channel, shop.value.viewer.id));
  }),
};
