import { z } from "zod";
import { ok, refused } from "../../../../core/kernel/refusal";
import { action, admitted, answer, guarded } from "../../../../server/web/http";
import { mostUpload, replaceProp, reshapeProp } from "../../../../server/web/props";
import { services } from "../../../../server/web/services";

export const PATCH = action(
  "prop.edit",
  z.union([
    z.object({ name: z.string().trim().min(1, "A prop needs a name.").max(80) }),
    z.object({ settings: z.record(z.string(), z.unknown()) }),
  ]),
  async ({ session, params, body, audit }) => {
    const web = services();
    const id = params["id"] ?? "";
    await audit({ prop: id, changed: Object.keys(body) });
    if ("settings" in body) return reshapeProp(web, session.channelId, id, body.settings);
    if (!(await web.store.props.rename(session.channelId, id, body.name))) return refused("prop/unknown");
    await web.engine.reload(session.channelId);
    return ok(null);
  },
);

export const DELETE = action("prop.edit", z.object({}), async ({ session, params, audit }) => {
  const web = services();
  if (!(await web.store.props.remove(session.channelId, params["id"] ?? "", web.clock.now()))) return refused("prop/unknown");
  await web.engine.reload(session.channelId);
  await audit({ removed: params["id"] });
  return ok(null);
});

/** Another file in its place, as a form. */
export const PUT = (request: Request, context: { params: Promise<{ id: string }> }): Promise<Response> =>
  guarded(async () => {
    const entry = await admitted("prop.edit");
    if (!entry.ok) return answer(entry);
    if (Number(request.headers.get("content-length") ?? Infinity) > mostUpload) return answer(refused("prop/too-large", { mostMb: 64 }));
    const file = (await request.formData().catch(() => null))?.get("file");
    if (!(file instanceof Blob)) return answer(refused("picture/empty"));
    const web = services();
    const { id } = await context.params;
    const done = await replaceProp(web, entry.value.channelId, id, Buffer.from(await file.arrayBuffer()));
    if (done.ok) await web.store.log.audit(entry.value.channelId, entry.value.operatorId, "prop.edit", { replaced: id }, web.clock.now());
    return answer(done);
  });
