import { ok, refused } from "../../../core/kernel/refusal";
import { mostChatBytes } from "../../../core/rehearsal/chat-log";
import { addChatLog } from "../../../server/web/chat-logs";
import { admitted, answer, currentSession, guarded } from "../../../server/web/http";
import { services } from "../../../server/web/services";

/** Past chat that was brought in. */
export const GET = (): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    return answer(ok({ logs: await services().store.chatLogs.list(session.channelId) }));
  });

/** A file of past chat, as a form. Its size is checked before it is read. */
export const POST = (request: Request): Promise<Response> =>
  guarded(async () => {
    const entry = await admitted("rehearse");
    if (!entry.ok) return answer(entry);
    if (Number(request.headers.get("content-length") ?? Infinity) > mostChatBytes + 64 * 1024) return answer(refused("chat-log/too-large"));
    const file = (await request.formData().catch(() => null))?.get("file");
    if (!(file instanceof Blob) || file.size > mostChatBytes) return answer(refused("chat-log/too-large"));
    const name = "name" in file && typeof file.name === "string" ? file.name : "";
    return answer(await addChatLog(services(), entry.value, { name, text: await file.text() }));
  });
