import { refused } from "../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../server/web/http";
import { may } from "../../../../server/web/rights";
import { services } from "../../../../server/web/services";

/** One month of the log as lines of JSON, in order; made while it is read, whatever its size. */
export const GET = (_request: Request, context: { params: Promise<{ month: string }> }): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    if (!may(session.role, "data.keep")) return answer(refused("access/role"));
    const { month } = await context.params;
    const { store, clock } = services();
    const known = /^\d{4}-(0[1-9]|1[0-2])$/.test(month) && (await store.data.months(session.channelId)).some((m) => m.month === month);
    if (!known) return answer(refused("data/no-month"));
    await store.log.audit(session.channelId, session.operatorId, "data.export", { month }, clock.now());
    const rows = store.data.month(session.channelId, month);
    const text = new TextEncoder();
    const stream = new ReadableStream<Uint8Array>({
      pull: async (to) => {
        try {
          const next = await rows.next();
          if (next.done === true) to.close();
          else to.enqueue(text.encode(next.value.map((row) => `${JSON.stringify(row)}\n`).join("")));
        } catch (error) {
          // A file that breaks off is seen to be broken; one that just ends is not.
          to.error(error);
        }
      },
      cancel: () => void rows.return(undefined),
    });
    return new Response(stream, {
      headers: {
        "content-type": "application/x-ndjson; charset=utf-8",
        "content-disposition": `attachment; filename="log-${month}.ndjson"`,
        "cache-control": "no-store",
      },
    });
  });
