import { createHash } from "node:crypto";
import { fontProblem } from "../../../../../core/dress/dress";
import { ok, refused } from "../../../../../core/kernel/refusal";
import { cut, wellFormed } from "../../../../../core/kernel/text";
import { admitted, answer, guarded } from "../../../../../server/web/http";
import { services } from "../../../../../server/web/services";

const mostBytes = 2_200_000;

/** A WOFF2 file as a form: kept, and worn by the overlay from now on. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  guarded(async () => {
    const entry = await admitted("overlay.edit");
    if (!entry.ok) return answer(entry);
    // Its size is checked before it is read.
    if (Number(request.headers.get("content-length") ?? Infinity) > mostBytes) return answer(refused("font/too-large"));
    const file = (await request.formData().catch(() => null))?.get("file");
    if (!(file instanceof Blob)) return answer(refused("font/none"));
    const bytes = Buffer.from(await file.arrayBuffer());
    const problem = fontProblem(bytes);
    if (problem !== null) return answer(refused(problem));
    const { store, engine, clock } = services();
    const { channelId, operatorId } = entry.value;
    const overlay = (await params).id;
    const layout = await store.overlays.layout(channelId, overlay);
    if (layout === null) return answer(refused("overlay/unknown"));
    const sha = createHash("sha256").update(bytes).digest("hex");
    await store.overlays.keepFont({ sha, bytes }, clock.now());
    const font = { url: `/props/${sha}`, name: cut(wellFormed(file instanceof File ? file.name : "font").replace(/\.woff2$/i, ""), 80) };
    await store.overlays.setUp(channelId, overlay, { dress: { ...layout.dress, font } });
    await engine.reload(channelId);
    await store.log.audit(channelId, operatorId, "overlay.edit", { overlay, font: font.name }, clock.now());
    return answer(ok(font));
  });
