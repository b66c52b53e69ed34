import { z } from "zod";
import { ok, refused } from "../../../../core/kernel/refusal";
import { markOf } from "../../../../core/show/timeline";
import { answer, currentSession, guarded } from "../../../../server/web/http";
import { services } from "../../../../server/web/services";

const query = z.object({ from: z.coerce.number().int().min(0), to: z.coerce.number().int().min(0) });
const mostMarks = 3_000;

/** What happened between two times, as marks for the tape, made from the log. */
export const GET = (request: Request): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const span = query.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!span.success) return answer(refused("input/invalid", { why: "The tape is asked for from one time to another." }));
    const rows = await services().store.shows.tape(session.channelId, span.data.from, span.data.to, mostMarks);
    return answer(ok({ marks: rows.map((row) => markOf(row)).filter((m) => m !== null) }));
  });
