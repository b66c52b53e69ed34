import { z } from "zod";
import { addressOf, keepCookie } from "../../../../server/web/cookie";
import { answer, fromOurPages, guarded, remoteCookie } from "../../../../server/web/http";
import { refused } from "../../../../core/kernel/refusal";
import { firstProblem } from "../../../../core/words/problem";
import { pair } from "../../../../server/web/remotes";
import { services } from "../../../../server/web/services";

const body = z.object({
  code: z.string().trim().min(1, "Type the code that the booth shows.").max(20),
  label: z.string().trim().min(1).max(30),
});
/** A phone hands in the one-time code and gets its own session. */
export const POST = (request: Request): Promise<Response> =>
  guarded(async () => {
    if (!(await fromOurPages())) return answer(refused("access/foreign"));
    const given = body.safeParse(await request.json().catch(() => undefined));
    if (!given.success) return answer(refused("input/invalid", { why: firstProblem(given.error) }));
    return answer(await keepCookie(remoteCookie, await pair(services(), given.data.code, given.data.label, await addressOf())));
  });
