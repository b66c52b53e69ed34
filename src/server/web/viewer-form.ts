import type { z } from "zod";
import type { ChannelId } from "../../core/kernel/ids";
import { refused, type Result } from "../../core/kernel/refusal";
import { firstProblem } from "../../core/words/problem";
import { setCookie } from "./asked";
import { fromOurs, type Route, readBody } from "./route-kit";
import { channelOf } from "./viewers";
import { refusalInWords } from "./words";

const longestForm = 64 * 1024;
/** The fields of a plain form; undefined where it is none, or longer than ours can be. */
async function readForm(request: Request): Promise<unknown> {
  if (Number(request.headers.get("content-length") ?? Infinity) > longestForm) return undefined;
  const form = await request.formData().catch(() => null);
  return form === null ? undefined : Object.fromEntries(form);
}

/** What a viewer sends from their page: by script, or by a plain form that comes back with what came of it. */
export const fromViewer = <S extends z.ZodType>(
  schema: S,
  work: (channel: ChannelId, given: z.output<S>) => Promise<Result<Readonly<{ words: string }>>>,
): Route =>
  fromOurs(async ({ request, params }) => {
    const channel = channelOf(params["channel"]);
    if (channel === null) return refused("channel/unknown");
    const script = request.headers.get("content-type")?.includes("json") === true;
    const body = script ? await readBody(request) : await readForm(request);
    const given = schema.safeParse(body);
    const done = given.success ? await work(channel, given.data) : refused("input/invalid", { why: firstProblem(given.error) });
    if (script) return done;
    setCookie("izzam_said", done.ok ? done.value.words : refusalInWords(done.refusal), {
      httpOnly: true,
      sameSite: "lax",
      maxAge: 20,
      path: `/c/${channel}`,
    });
    return new Response(null, { status: 303, headers: { location: `/c/${channel}` } });
  });
