import { z } from "zod";
import { refused } from "../../../../core/kernel/refusal";
import { actOnChatLog, chatLogOut } from "../../../../server/web/chat-logs";
import { action, answer, currentSession, guarded } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

const act = z.discriminatedUnion("do", [
  z.object({ do: z.enum(["remove", "restore"]) }),
  z.object({ do: z.literal("rename"), name: z.string().trim().min(1, "A chat log needs a name.").max(120) }),
]);
export const POST = action("rehearse", act, ({ session, params, body }) =>
  actOnChatLog(services(), session.channelId, params["id"] ?? "", body),
);

type Context = Readonly<{ params: Promise<{ id: string }> }>;
/** The same as JSON Lines. */
export const GET = (_request: Request, context: Context): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const found = await chatLogOut(services(), session.channelId, (await context.params).id.slice(0, 40));
    if (found === null) return answer(refused("chat-log/unknown"));
    const file = `${found.name.replace(/[^\p{L}\p{N}]+/gu, "-").slice(0, 60) || "chat"}.jsonl`;
    return new Response(found.text, {
      headers: {
        "content-type": "application/x-ndjson; charset=utf-8",
        "content-disposition": `attachment; filename="chat.jsonl"; filename*=UTF-8''${encodeURIComponent(file)}`,
      },
    });
  });
