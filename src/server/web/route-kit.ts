import { type NextRequest } from "next/server";
import type { z } from "zod";
import { channelId, type ChannelId } from "../../core/kernel/ids";
import { refused, type Result } from "../../core/kernel/refusal";
import { parseJson } from "../../core/kernel/text";
import { areaOf } from "../../core/wire/follows";
import { firstProblem } from "../../core/words/problem";
import type { Session } from "../ports/operator-store";
import { answer, currentRemote, currentSession, fromOurPages, guarded } from "./http";
import { type Action, may, mayRemote } from "./rights";
import { services } from "./services";

/**
 * Who may use a route: an action of the list of rights, anybody who is signed in, a paired phone too, whoever
 * comes from one of our pages (they sign in, or are viewers), or the whole world.
 */
export type Needs = Action | "signed-in" | "signed-in or paired" | "our pages" | "nothing";
export type Params = Readonly<Record<string, string>>;
export type Route = Readonly<{ needs: Needs; handle: (request: NextRequest, params: Params) => Promise<Response> }>;
/** `METHOD /path/:parameter`, and what is done there. */
export type Routes = Readonly<Record<string, Route>>;

type Asked = Readonly<{ request: Request; params: Params; query: URLSearchParams }>;
type Entered = Asked & Readonly<{ session: Session }>;
/** A result is put into words; what is no JSON (a file, a way back to a page) is a response already. */
type Answer = Promise<Result<unknown> | Response>;
const inFull = (made: Result<unknown> | Response): Response => (made instanceof Response ? made : answer(made));
const askedOf = (request: Request, params: Params): Asked => ({ request, params, query: new URL(request.url).searchParams });

const longestBody = 256 * 1024;
/** The JSON of a request; undefined where it is none, or longer than any of ours. Of what is longer no more is read than that. */
export async function readBody(request: Request): Promise<unknown> {
  const parts: Uint8Array[] = [];
  let bytes = 0;
  if (Number(request.headers.get("content-length") ?? 0) > longestBody) return undefined;
  // The body of a request of ours gives bytes; its type says less.
  for await (const part of (request.body ?? []) as AsyncIterable<Uint8Array>) {
    bytes += part.length;
    if (bytes > longestBody) return undefined;
    parts.push(part);
  }
  try {
    return bytes === 0 ? {} : parseJson(Buffer.concat(parts).toString("utf8"));
  } catch {
    return undefined;
  }
}

/** A booth that shows a rehearsal says which; what such a booth can do is done there, and nothing of it is written down. */
const rehearsalHeader = "x-izzam-rehearsal";
const inRehearsals: ReadonlySet<Action> = new Set<Action>(["command", "cue.fire", "queue.act", "held.decide", "chat.say"]);
async function stageOf(request: Request, name: Action, session: Session): Promise<Result<ChannelId>> {
  const asked = request.headers.get(rehearsalHeader) ?? "";
  if (asked === "" || !inRehearsals.has(name)) return { ok: true, value: session.channelId };
  const known = await services().engine.rehearsal.known(session.channelId, asked.slice(0, 26));
  return known.ok ? { ok: true, value: channelId(asked) } : known;
}

async function admitted(name: Action): Promise<Result<Session>> {
  if (!(await fromOurPages())) return refused("access/foreign");
  // Who is signed in acts as such; a paired phone may do what the booth's hands do.
  const session = (await currentSession()) ?? (mayRemote(name) ? await currentRemote() : null);
  if (session === null) return refused("access/signed-out");
  return may(session.role, name) ? { ok: true, value: session } : refused("access/role");
}

/** Pages that show what was changed now read it again. Nobody waits for it: a page that misses it reads again when it is linked anew. */
function stored({ channelId: channel, login: by }: Session, request: Request): void {
  const area = areaOf(new URL(request.url).pathname);
  if (area !== null)
    void services()
      .engine.changed(channel, { what: "stored", id: area, revision: 0, by })
      .catch(() => undefined);
}

type Act<B, T> = (
  at: Readonly<{
    session: Session;
    body: B;
    params: Params;
    /** What is acted on: the channel, or the rehearsal of it that the page shows. */
    stage: ChannelId;
    audit: (detail: Readonly<Record<string, unknown>>) => Promise<void>;
  }>,
) => Promise<Result<T>>;

/** One action of the operator side: signed in, from our pages, allowed by role, body parsed, audited by the act. */
export const does = <B, T>(name: Action, schema: z.ZodType<B>, act: Act<B, T>): Route => ({
  needs: name,
  handle: (request, params) =>
    guarded(async () => {
      const entry = await admitted(name);
      if (!entry.ok) return answer(entry);
      const body = schema.safeParse(await readBody(request));
      if (!body.success) return answer(refused("input/invalid", { why: firstProblem(body.error) }));
      const session = entry.value;
      const { store, clock } = services();
      const stage = await stageOf(request, name, session);
      if (!stage.ok) return answer(stage);
      const audit = async (detail: Readonly<Record<string, unknown>>) => {
        if (stage.value === session.channelId) await store.log.audit(session.channelId, session.operatorId, name, detail, clock.now());
      };
      const done = await act({ session, body: body.data, params, stage: stage.value, audit });
      if (done.ok) stored(session, request);
      return answer(done);
    }),
});

/** A file that somebody brings, as a form: the act checks its size before it reads it. */
export const takes = (name: Action, act: (at: Entered) => Answer): Route => ({
  needs: name,
  handle: (request, params) =>
    guarded(async () => {
      const entry = await admitted(name);
      if (!entry.ok) return answer(entry);
      const done = inFull(await act({ ...askedOf(request, params), session: entry.value }));
      if (done.ok) stored(entry.value, request);
      return done;
    }),
});

/** Something to look at or to take away. A link to a file carries no origin, so none is asked for. */
export const reads = (needs: Action | "signed-in" | "signed-in or paired", act: (at: Entered) => Answer): Route => ({
  needs,
  handle: (request, params) =>
    guarded(async () => {
      const session = (await currentSession()) ?? (needs === "signed-in or paired" ? await currentRemote() : null);
      if (session === null) return answer(refused("access/signed-out"));
      if (needs !== "signed-in" && needs !== "signed-in or paired" && !may(session.role, needs)) return answer(refused("access/role"));
      return inFull(await act({ ...askedOf(request, params), session }));
    }),
});

/** For pages of ours on which nobody need be signed in: the way in, and the viewer page. */
export const fromOurs = (act: (at: Asked) => Answer): Route => ({
  needs: "our pages",
  handle: (request, params) =>
    guarded(async () => ((await fromOurPages()) ? inFull(await act(askedOf(request, params))) : answer(refused("access/foreign")))),
});

/** For everybody, wherever they come from. It shows what is public, or what belongs to the asking page's own cookie. */
export const open = (act: (at: Asked) => Answer): Route => ({
  needs: "nothing",
  handle: (request, params) => guarded(async () => inFull(await act(askedOf(request, params)))),
});
