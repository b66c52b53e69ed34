import { ok, refused } from "../../../../core/kernel/refusal";
import { admitted, answer, currentSession, guarded } from "../../../../server/web/http";
import { addOutsideShow, mostShowBytes } from "../../../../server/web/outside-shows";
import { services } from "../../../../server/web/services";

/** Shows of other installations that were brought in. */
export const GET = (): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    return answer(ok({ shows: await services().store.outsideShows.list(session.channelId) }));
  });

/** A ZIP of a show, as a form. Its size is checked before it is read. */
export const POST = (request: Request): Promise<Response> =>
  guarded(async () => {
    const entry = await admitted("review.edit");
    if (!entry.ok) return answer(entry);
    if (Number(request.headers.get("content-length") ?? Infinity) > mostShowBytes + 64 * 1024) return answer(refused("outside/too-large"));
    const file = (await request.formData().catch(() => null))?.get("file");
    if (!(file instanceof Blob)) return answer(refused("input/invalid", { why: "No file came with this." }));
    if (file.size > mostShowBytes) return answer(refused("outside/too-large"));
    return answer(await addOutsideShow(services(), entry.value, Buffer.from(await file.arrayBuffer())));
  });
