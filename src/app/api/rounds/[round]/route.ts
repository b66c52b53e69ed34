import { refused } from "../../../../core/kernel/refusal";
import { answer, guarded } from "../../../../server/web/http";
import { addressOf } from "../../../../server/web/cookie";
import { proofIn, roundOf } from "../../../../server/web/rounds";

/** The proof of a round as one JSON file: public, as the round was. */
export const GET = (_: Request, context: { params: Promise<{ round: string }> }): Promise<Response> =>
  guarded(async () => {
    const round = await roundOf((await context.params).round, await addressOf());
    if (!round.ok) return answer(round);
    const proof = proofIn(round.value);
    if (proof === null) return answer(refused("round/unknown"));
    return new Response(JSON.stringify(proof, null, 2), {
      headers: {
        "content-type": "application/json",
        "content-disposition": `attachment; filename="${round.value.round}.json"`,
        "access-control-allow-origin": "*",
        "x-content-type-options": "nosniff",
      },
    });
  });
