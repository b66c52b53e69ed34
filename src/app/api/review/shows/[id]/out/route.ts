import { refused } from "../../../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../../../server/web/http";
import { markersOut, outSchema } from "../../../../../../server/web/review";
import { recordIn } from "../../../../../../server/web/show-names";
import { services } from "../../../../../../server/web/services";

type Context = Readonly<{ params: Promise<{ id: string }> }>;
/** Moments of a past show as a file for editors. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const asked = outSchema.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!asked.success) return answer(refused("input/invalid", { why: "There is no such file." }));
    const file = await markersOut(services(), session.channelId, recordIn((await params).id), asked.data);
    if (file === null) return answer(refused("review/unknown"));
    return new Response(file.text, {
      headers: { "content-type": file.type, "content-disposition": `attachment; filename="${file.name}"` },
    });
  });
