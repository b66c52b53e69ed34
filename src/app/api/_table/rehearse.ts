import { does, reads, takes, type Routes } from "../../../server/web/route-kit";
import { ok, refused } from "../../../core/kernel/refusal";
import { labAskSchema } from "../../../core/lab/ask";
import { mostChatLogBytes } from "../../../core/props/sizes";
import { givenSchema, rehearsalAskSchema, steerSchema } from "../../../core/rehearsal/plan";
import { actOnChatLog, addChatLog, chatLogOut } from "../../../server/web/chat-logs";
import { actOnQuestion, askLab, labView } from "../../../server/web/lab";
import { beginRehearsal, checksView } from "../../../server/web/rehearsal";
import { services } from "../../../server/web/services";
import { keyUse } from "../../_frame/key-owners";
import { z } from "zod";

const chatLogAct = z.discriminatedUnion("do", [
  z.object({ do: z.enum(["remove", "restore"]) }),
  z.object({ do: z.literal("rename"), name: z.string().trim().min(1, "A chat log needs a name.").max(120) }),
]);

const questionAct = z.discriminatedUnion("do", [
  z.object({ do: z.enum(["again", "stop", "remove", "restore"]) }),
  z.object({ do: z.literal("rename"), name: z.string().trim().max(120) }),
]);

const rehearsalAct = z.union([z.object({ steer: steerSchema }), z.object({ give: givenSchema })]);

export const rehearseRoutes: Routes = {
  "POST /chat-logs/:id": does("rehearse", chatLogAct, ({ session, params, body }) =>
    actOnChatLog(services(), session.channelId, params["id"] ?? "", body),
  ),
  /** The same as JSON Lines. */
  "GET /chat-logs/:id": reads("signed-in", async ({ session, params }) => {
    const found = await chatLogOut(services(), session.channelId, (params["id"] ?? "").slice(0, 40));
    if (found === null) return refused("chat-log/unknown");
    const file = `${found.name.replace(/[^\p{L}\p{N}]+/gu, "-").slice(0, 60) || "chat"}.jsonl`;
    return new Response(found.text, {
      headers: {
        "content-type": "application/x-ndjson; charset=utf-8",
        "content-disposition": `attachment; filename="chat.jsonl"; filename*=UTF-8''${encodeURIComponent(file)}`,
      },
    });
  }),
  /** Past chat that was brought in. */
  "GET /chat-logs": reads("signed-in", async ({ session }) => {
    return ok({ logs: await services().store.chatLogs.list(session.channelId) });
  }),
  /** A file of past chat, as a form. Its size is checked before it is read. */
  "POST /chat-logs": takes("rehearse", async ({ session, request }) => {
    if (Number(request.headers.get("content-length") ?? Infinity) > mostChatLogBytes + 64 * 1024) return refused("chat-log/too-large");
    const file = (await request.formData().catch(() => null))?.get("file");
    if (!(file instanceof Blob) || file.size > mostChatLogBytes) return refused("chat-log/too-large");
    const name = "name" in file && typeof file.name === "string" ? file.name : "";
    return addChatLog(services(), session, { name, text: await file.text() });
  }),
  /** What of the settings is worth a look before a show. */
  "GET /checks": reads("signed-in", async ({ session }) => {
    return ok(await checksView(services(), session.channelId, (key, games) => keyUse(key, { chosen: {}, games })));
  }),
  /** What is done with a question that was asked. */
  "POST /lab/:id": does("lab.ask", questionAct, ({ session, params, body }) =>
    actOnQuestion(services(), session, params["id"] ?? "", body),
  ),
  /** Asks it otherwise. */
  "PUT /lab/:id": does("lab.ask", z.object({ ask: labAskSchema }), ({ session, params, body }) =>
    askLab(services(), session, body.ask, params["id"] ?? ""),
  ),
  /** What can be asked, and what was asked, with how far each is. */
  "GET /lab": reads("signed-in", async ({ session }) => {
    return ok(await labView(services(), session.channelId));
  }),
  /** Asks something new. */
  "POST /lab": does("lab.ask", z.object({ ask: labAskSchema }), ({ session, body }) => askLab(services(), session, body.ask, null)),
  /** What happened in it so far, for its tape. */
  "GET /rehearsals/:id/marks": reads("signed-in", async ({ session, params }) => {
    return services().engine.rehearsal.marks(session.channelId, (params["id"] ?? "").slice(0, 26));
  }),
  /** How it stands, and what was learnt once it is over. */
  "GET /rehearsals/:id": reads("signed-in", async ({ session, params }) => {
    return services().engine.rehearsal.report(session.channelId, (params["id"] ?? "").slice(0, 26));
  }),
  /** Its time, its crowd, its end; or one signal by hand. */
  "POST /rehearsals/:id": does("rehearse", rehearsalAct, ({ session, params, body }) => {
    const { rehearsal } = services().engine;
    const id = (params["id"] ?? "").slice(0, 26);
    return "steer" in body ? rehearsal.steer(session.channelId, id, body.steer) : rehearsal.give(session.channelId, id, body.give);
  }),
  /** Begins a rehearsal. */
  "POST /rehearsals": does("rehearse", rehearsalAskSchema, ({ session, body }) => beginRehearsal(services(), session, body)),
};
