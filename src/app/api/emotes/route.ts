import { ok, refused } from "../../../core/kernel/refusal";
import { mostBytes } from "../../../server/pictures/sheet";
import { addEmote, emoteWordSchema } from "../../../server/web/emotes";
import { admitted, answer, currentSession, guarded } from "../../../server/web/http";
import { firstProblem } from "../../../core/words/problem";
import { services } from "../../../server/web/services";

/** A picture and its chat word, as a form. Its size is checked before it is read. */
export const POST = (request: Request): Promise<Response> =>
  guarded(async () => {
    const entry = await admitted("emote.edit");
    if (!entry.ok) return answer(entry);
    if (Number(request.headers.get("content-length") ?? Infinity) > mostBytes + 64 * 1024) return answer(refused("picture/too-large"));
    const form = await request.formData().catch(() => null);
    const file = form?.get("file");
    const word = emoteWordSchema.safeParse(form?.get("word"));
    if (!(file instanceof Blob)) return answer(refused("picture/empty"));
    if (!word.success) return answer(refused("input/invalid", { why: firstProblem(word.error) }));
    const web = services();
    const { channelId, operatorId } = entry.value;
    const added = await addEmote(web, channelId, Buffer.from(await file.arrayBuffer()), word.data);
    if (added.ok)
      await web.store.log.audit(channelId, operatorId, "emote.edit", { added: added.value.id, word: word.data }, web.clock.now());
    return answer(added);
  });

/** The list as it stands now. */
export const GET = (): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    return answer(ok({ emotes: await services().store.emotes.emotes(session.channelId) }));
  });
