import { refused } from "../../../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../../../server/web/http";
import { recordIn } from "../../../../../../server/web/show-names";
import { may } from "../../../../../../server/web/rights";
import { services } from "../../../../../../server/web/services";
import { showBundle } from "../../../../../../server/web/show-out";

type Context = Readonly<{ params: Promise<{ id: string }> }>;
/** The whole of a past show as a ZIP, made while it is read, whatever its size. */
export const GET = (_request: Request, { params }: Context): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    if (!may(session.role, "show.export")) return answer(refused("access/role"));
    const { store, clock } = services();
    const id = recordIn((await params).id);
    const bundle = await showBundle(services(), session.channelId, session.channelName, id);
    if (bundle === null) return answer(refused("review/unknown"));
    await store.log.audit(session.channelId, session.operatorId, "show.export", { show: id }, clock.now());
    const stream = new ReadableStream<Uint8Array>({
      pull: async (to) => {
        try {
          const next = await bundle.pieces.next();
          if (next.done === true) to.close();
          else to.enqueue(next.value);
        } catch (error) {
          // A file that breaks off is seen to be broken; one that just ends is not.
          to.error(error);
        }
      },
      cancel: () => void bundle.pieces.return(undefined),
    });
    return new Response(stream, {
      headers: {
        "content-type": "application/zip",
        "content-disposition": `attachment; filename="${bundle.name}"`,
        "cache-control": "no-store",
      },
    });
  });
