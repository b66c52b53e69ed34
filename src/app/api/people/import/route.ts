import { z } from "zod";
import { action } from "../../../../server/web/http";
import { readList, importPoints } from "../../../../server/web/people";
import { services } from "../../../../server/web/services";

const body = z.object({
  text: z.string().min(1, "The list is empty.").max(240_000, "A list has at most 240,000 characters; take it in in parts."),
  /** Only looked at: every problem by line, and nothing changed. */
  dry: z.boolean(),
  why: z.string().trim().min(1, "Say where these points come from: it stands in each viewer’s history.").max(120),
  key: z.string().regex(/^[a-z0-9-]{8,40}$/),
});
export const POST = action("people.import", body, async ({ session, body: given, audit }) => {
  if (given.dry) return readList(services(), session.channelId, given.text);
  const done = await importPoints(services(), session.channelId, session.login, given);
  if (done.ok) await audit({ takenIn: done.value.good, points: done.value.points });
  return done;
});
