import { does, reads, takes, type Routes, readBody } from "../../../server/web/route-kit";
import { ok, refusal, refused } from "../../../core/kernel/refusal";
import { inMegabytes, mostZipBytes } from "../../../core/props/sizes";
import { voiceSchema } from "../../../core/speech/voice";
import { firstProblem } from "../../../core/words/problem";
import { mostPictureBytes } from "../../../server/pictures/limits";
import { addEmote, emoteWordSchema, removeEmote, renameEmote, restoreEmote } from "../../../server/web/emotes";
import { addFromAddress, addProps, propsInMaking, propsWithUses, replaceProp, reshapeProp, wholePicture } from "../../../server/web/props";
import { services } from "../../../server/web/services";
import { withUpload } from "../../../server/web/upload";
import { z } from "zod";

/** A ZIP may be this large; what a single file may have is said by what it is. */
const propLimits = {
  most: mostZipBytes,
  tooLarge: refusal("prop/too-large", { mostMb: inMegabytes(mostZipBytes) }),
  missing: refusal("picture/empty"),
};
const addressBody = z.object({ address: z.string().trim().min(1).max(2_000) });

export const libraryRoutes: Routes = {
  "POST /emotes/:id/restore": does("emote.edit", z.object({}), async ({ session, params, audit }) => {
    const done = await restoreEmote(services(), session.channelId, params["id"] ?? "");
    if (done.ok) await audit({ restored: params["id"] });
    return done;
  }),
  "PATCH /emotes/:id": does("emote.edit", z.object({ word: emoteWordSchema }), async ({ session, params, body: { word }, audit }) => {
    const done = await renameEmote(services(), session.channelId, params["id"] ?? "", word);
    if (done.ok) await audit({ renamed: params["id"], word });
    return done;
  }),
  "DELETE /emotes/:id": does("emote.edit", z.object({}), async ({ session, params, audit }) => {
    const done = await removeEmote(services(), session.channelId, params["id"] ?? "");
    if (done.ok) await audit({ removed: params["id"] });
    return done;
  }),
  /** A picture and its chat word, as a form. Its size is checked before it is read. */
  "POST /emotes": takes("emote.edit", async ({ session, request }) => {
    if (Number(request.headers.get("content-length") ?? Infinity) > mostPictureBytes.emote + 64 * 1024) return refused("picture/too-large");
    const form = await request.formData().catch(() => null);
    const file = form?.get("file");
    const word = emoteWordSchema.safeParse(form?.get("word"));
    if (!(file instanceof Blob)) return refused("picture/empty");
    if (!word.success) return refused("input/invalid", { why: firstProblem(word.error) });
    const web = services();
    const { channelId, operatorId } = session;
    const added = await addEmote(web, channelId, Buffer.from(await file.arrayBuffer()), word.data);
    if (added.ok)
      await web.store.log.audit(channelId, operatorId, "emote.edit", { added: added.value.id, word: word.data }, web.clock.now());
    return added;
  }),
  /** The list as it stands now. */
  "GET /emotes": reads("signed-in", async ({ session }) => {
    return ok({ emotes: await services().store.emotes.emotes(session.channelId) });
  }),
  /** A moving picture that is being made is not wanted any more. */
  "DELETE /media/:id": does("prop.edit", z.object({}), async ({ session, params, audit }) => {
    const web = services();
    const id = params["id"] ?? "";
    if (!(await web.store.media.drop(session.channelId, id, web.clock.now()))) return refused("prop/unknown");
    await audit({ stopped: id });
    return ok(null);
  }),
  "POST /props/:id/restore": does("prop.edit", z.object({}), async ({ session, params, audit }) => {
    const { store, engine } = services();
    if (!(await store.props.restore(session.channelId, params["id"] ?? ""))) return refused("prop/unknown");
    await engine.reload(session.channelId);
    await audit({ restored: params["id"] });
    return ok(null);
  }),
  "PATCH /props/:id": does(
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
  ),
  "DELETE /props/:id": does("prop.edit", z.object({}), async ({ session, params, audit }) => {
    const web = services();
    if (!(await web.store.props.remove(session.channelId, params["id"] ?? "", web.clock.now()))) return refused("prop/unknown");
    await web.engine.reload(session.channelId);
    await audit({ removed: params["id"] });
    return ok(null);
  }),
  /** Another file in its place, as a form. */
  "PUT /props/:id": takes("prop.edit", async ({ session, params, request }) => {
    const web = services();
    const id = params["id"] ?? "";
    const done = await withUpload(request, "file", propLimits, (file) => replaceProp(web, session.channelId, id, file));
    if (done.ok) await web.store.log.audit(session.channelId, session.operatorId, "prop.edit", { replaced: id }, web.clock.now());
    return done;
  }),
  /** A picture as it came, before it was cut: what one cuts on. */
  "GET /props/:id/whole": reads("signed-in", async ({ session, params }) => {
    return wholePicture(services(), session.channelId, params["id"] ?? "");
  }),
  /** A file as a form, or an address as JSON. Its size is checked before it is read. */
  "POST /props": takes("prop.edit", async ({ session, request }) => {
    const web = services();
    const { channelId, operatorId } = session;
    let added: Awaited<ReturnType<typeof addProps>>;
    if ((request.headers.get("content-type") ?? "").startsWith("application/json")) {
      const body = addressBody.safeParse(await readBody(request));
      if (!body.success) return refused("prop/bad-address");
      added = await addFromAddress(web, channelId, body.data.address);
    } else {
      added = await withUpload(request, "file", propLimits, (file) => addProps(web, channelId, file));
    }
    if (added.ok) await web.store.log.audit(channelId, operatorId, "prop.edit", { added: added.value.map((a) => a.id) }, web.clock.now());
    return added;
  }),
  "GET /props": reads("signed-in", async ({ session }) => {
    const [props, making] = await Promise.all([propsWithUses(services(), session.channelId), propsInMaking(services(), session.channelId)]);
    return ok({ props, making });
  }),
  /** A voice to hear before one keeps it: where its few words are to be had. Nothing of it goes on air. */
  "POST /speech": does("game.edit", z.object({ voice: voiceSchema }), async ({ session, body }) =>
    services().engine.hear(session.channelId, body.voice),
  ),
};
