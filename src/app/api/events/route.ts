import { z } from "zod";
import { ok, refused } from "../../../core/kernel/refusal";
import { endOldSecret, eventSecret, rotateEventSecret } from "../../../server/web/events";
import { action, answer, currentSession, guarded } from "../../../server/web/http";
import { services } from "../../../server/web/services";

export const POST = action("events.connect", z.object({ do: z.enum(["copy", "rotate", "end-old"]) }), async ({ session, body, audit }) => {
  const web = services();
  await audit({ do: body.do });
  switch (body.do) {
    case "copy":
      return eventSecret(web, session.channelId);
    case "rotate":
      return rotateEventSecret(web, session.channelId);
    case "end-old":
      return endOldSecret(web, session.channelId);
  }
});

/** What was refused lately, with the reason. */
export const GET = (): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const list = await services().engine.refusedEvents(session.channelId);
    return answer(list.ok ? ok({ refused: list.value }) : list);
  });
