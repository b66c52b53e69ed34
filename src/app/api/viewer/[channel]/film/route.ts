import { refused } from "../../../../../core/kernel/refusal";
import { answer, fromOurPages, guarded } from "../../../../../server/web/http";
import { channelOf, keepFilm, mostFilm } from "../../../../../server/web/viewers";

/** A film from a viewer's own computer, kept until they say what of it is to be shown. */
export const POST = (request: Request, context: { params: Promise<{ channel: string }> }): Promise<Response> =>
  guarded(async () => {
    if (!(await fromOurPages())) return answer(refused("access/foreign"));
    const channel = channelOf((await context.params).channel);
    if (channel === null) return answer(refused("channel/unknown"));
    const tooLarge = refused("prop/too-large", { mostMb: mostFilm / 1024 / 1024 });
    if (Number(request.headers.get("content-length") ?? Infinity) > mostFilm + 10_000) return answer(tooLarge);
    return answer(
      await keepFilm(channel, async () => {
        const file = (await request.formData().catch(() => null))?.get("film");
        return file instanceof Blob ? Buffer.from(await file.arrayBuffer()) : null;
      }),
    );
  });
