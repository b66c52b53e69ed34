import { cookies } from "next/headers";
import type { z } from "zod";
import type { ChannelId } from "../../core/kernel/ids";
import { refused, type Result } from "../../core/kernel/refusal";
import { firstProblem } from "../../core/words/problem";
import { answer, fromOurPages, guarded } from "./http";
import { channelOf } from "./viewers";
import { refusalInWords } from "./words";

type Context = Readonly<{ params: Promise<{ channel: string }> }>;
/** What a viewer sends from their page: by script, or by a plain form that comes back with what came of it. */
export const fromViewer =
  <S extends z.ZodType>(schema: S, work: (channel: ChannelId, given: z.output<S>) => Promise<Result<Readonly<{ words: string }>>>) =>
  (request: Request, context: Context): Promise<Response> =>
    guarded(async () => {
      if (!(await fromOurPages())) return answer(refused("access/foreign"));
      const channel = channelOf((await context.params).channel);
      if (channel === null) return answer(refused("channel/unknown"));
      const script = request.headers.get("content-type")?.includes("json") === true;
      const body: unknown = script ? await request.json().catch(() => undefined) : Object.fromEntries(await request.formData());
      const given = schema.safeParse(body);
      const done = given.success ? await work(channel, given.data) : refused("input/invalid", { why: firstProblem(given.error) });
      if (script) return answer(done);
      (await cookies()).set("izzam_said", done.ok ? done.value.words : refusalInWords(done.refusal), {
        httpOnly: true,
        sameSite: "lax",
        maxAge: 20,
        path: `/c/${channel}`,
      });
      return new Response(null, { status: 303, headers: { location: `/c/${channel}` } });
    });
