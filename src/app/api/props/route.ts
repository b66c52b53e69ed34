import { z } from "zod";
import { ok, refused } from "../../../core/kernel/refusal";
import { admitted, answer, currentSession, guarded } from "../../../server/web/http";
import { addFromAddress, addProps, mostUpload, propsInMaking, propsWithUses } from "../../../server/web/props";
import { services } from "../../../server/web/services";

const addressBody = z.object({ address: z.string().trim().min(1).max(2_000) });

/** A file as a form, or an address as JSON. Its size is checked before it is read. */
export const POST = (request: Request): Promise<Response> =>
  guarded(async () => {
    const entry = await admitted("prop.edit");
    if (!entry.ok) return answer(entry);
    if (Number(request.headers.get("content-length") ?? Infinity) > mostUpload) return answer(refused("prop/too-large", { mostMb: 64 }));
    const web = services();
    const { channelId, operatorId } = entry.value;
    let added: Awaited<ReturnType<typeof addProps>>;
    if ((request.headers.get("content-type") ?? "").startsWith("application/json")) {
      const body = addressBody.safeParse(await request.json().catch(() => null));
      if (!body.success) return answer(refused("prop/bad-address"));
      added = await addFromAddress(web, channelId, body.data.address);
    } else {
      const file = (await request.formData().catch(() => null))?.get("file");
      if (!(file instanceof Blob)) return answer(refused("picture/empty"));
      added = await addProps(web, channelId, Buffer.from(await file.arrayBuffer()), file instanceof File ? file.name : "file");
    }
    if (added.ok) await web.store.log.audit(channelId, operatorId, "prop.edit", { added: added.value.map((a) => a.id) }, web.clock.now());
    return answer(added);
  });

export const GET = (): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const [props, making] = await Promise.all([propsWithUses(services(), session.channelId), propsInMaking(services(), session.channelId)]);
    return answer(ok({ props, making }));
  });
