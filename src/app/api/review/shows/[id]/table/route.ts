import { refused } from "../../../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../../../server/web/http";
import { recordIn } from "../../../../../../server/web/show-names";
import { may } from "../../../../../../server/web/rights";
import { services } from "../../../../../../server/web/services";
import { showTable, tableSchema } from "../../../../../../server/web/show-out";

type Context = Readonly<{ params: Promise<{ id: string }> }>;
/** One table of a past show as a file. Who bought what and who was there leaves with its owner alone. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const asked = tableSchema.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!asked.success) return answer(refused("input/invalid", { why: "There is no such table." }));
    const isTheirs = asked.data.what === "sales" || asked.data.what === "people";
    if (isTheirs && !may(session.role, "show.export")) return answer(refused("access/role"));
    const file = await showTable(services(), session.channelId, recordIn((await params).id), asked.data);
    if (file === null) return answer(refused("review/unknown"));
    return new Response(file.text, {
      headers: { "content-type": file.type, "content-disposition": `attachment; filename="${file.name}"`, "cache-control": "no-store" },
    });
  });
