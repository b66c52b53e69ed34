import { z } from "zod";
import { refused } from "../../../../core/kernel/refusal";
import { answer, currentSession, guarded } from "../../../../server/web/http";
import { asCsv, pastRounds, roundOut, roundsAsCsv } from "../../../../server/web/past-rounds";
import { services } from "../../../../server/web/services";

const asked = z.object({ as: z.enum(["csv", "json"]).default("csv"), id: z.coerce.number().int().min(1).optional() });
const file = (text: string, name: string, type: string): Response =>
  new Response(text, { headers: { "content-type": type, "content-disposition": `attachment; filename="${name}"` } });

/** Rounds that are over, as CSV or JSON; with `id`, one of them with everybody who was in it. */
export const GET = (request: Request): Promise<Response> =>
  guarded(async () => {
    const session = await currentSession();
    if (session === null) return answer(refused("access/signed-out"));
    const given = asked.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!given.success) return answer(refused("input/invalid", { why: "There is no such list." }));
    const { as, id } = given.data;
    const [csv, json] = ["text/csv; charset=utf-8", "application/json"];
    if (id === undefined)
      return as === "csv"
        ? file(await roundsAsCsv(services(), session.channelId), "rounds.csv", csv)
        : file(JSON.stringify(await pastRounds(services(), session.channelId, "", 50_000), null, 2), "rounds.json", json);
    const out = await roundOut(services(), session.channelId, id);
    if (out === null) return answer(refused("round/unknown"));
    return as === "csv" ? file(asCsv(out.entries), `round-${id}.csv`, csv) : file(JSON.stringify(out, null, 2), `round-${id}.json`, json);
  });
