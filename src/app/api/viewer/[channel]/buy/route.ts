import { cookies } from "next/headers";
import { refused } from "../../../../../core/kernel/refusal";
import { answer, fromOurPages, guarded } from "../../../../../server/web/http";
import { firstProblem } from "../../../../../core/words/problem";
import { buy, buySchema, channelOf } from "../../../../../server/web/viewers";
import { refusalInWords } from "../../../../../server/web/words";

/** A reward is bought on the viewer page: by script, or by a plain form that comes back with what came of it. */
export const POST = (request: Request, context: { params: Promise<{ channel: string }> }): Promise<Response> =>
  guarded(async () => {
    if (!(await fromOurPages())) return answer(refused("access/foreign"));
    const channel = channelOf((await context.params).channel);
    if (channel === null) return answer(refused("channel/unknown"));
    const script = request.headers.get("content-type")?.includes("json") === true;
    const body: unknown = script ? await request.json().catch(() => undefined) : Object.fromEntries(await request.formData());
    const given = buySchema.safeParse(body);
    const done = given.success ? await buy(channel, given.data) : refused("input/invalid", { why: firstProblem(given.error) });
    if (script) return answer(done);
    (await cookies()).set("izzam_said", done.ok ? done.value.words : refusalInWords(done.refusal), {
      httpOnly: true,
      sameSite: "lax",
      maxAge: 20,
      path: `/c/${channel}`,
    });
    return new Response(null, { status: 303, headers: { location: `/c/${channel}` } });
  });
