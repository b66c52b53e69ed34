import { LRUCache } from "lru-cache";
import { cookies, headers } from "next/headers";
import type { z } from "zod";
import { channelId, type ChannelId } from "../../core/kernel/ids";
import { refused, type Refusal, type Result } from "../../core/kernel/refusal";
import { parseJson } from "../../core/kernel/text";
import type { Session } from "../ports/operator-store";
import { fromHere } from "../engine/origin";
import { hashToken } from "../secrets";
import { type Action, may, mayRemote } from "./rights";
import { firstProblem } from "../../core/words/problem";
import { services } from "./services";
import { refusalInWords } from "./words";

export const sessionCookie = "izzam_session";
export const remoteCookie = "izzam_remote";
const longestBody = 256 * 1024;

const lately = new LRUCache<string, Readonly<{ session: Session; untilMs: number }>>({ max: 1_000 });

/** The operator who is signed in here. A phone's pairing is no sign-in. */
export async function currentSession(): Promise<Session | null> {
  const session = await sessionIn(sessionCookie);
  return session?.remote === false ? session : null;
}
export async function currentRemote(): Promise<Session | null> {
  const session = await sessionIn(remoteCookie);
  return session?.remote === true ? session : null;
}

async function sessionIn(cookie: string): Promise<Session | null> {
  const token = (await cookies()).get(cookie)?.value;
  if (token === undefined || !/^[A-Za-z0-9_-]{20,64}$/.test(token)) return null;
  const { store, clock, isAway } = services();
  const hash = hashToken(token);
  try {
    const session = await store.accounts.session(hash, clock.now());
    if (session === null) lately.delete(hash);
    else lately.set(hash, { session, untilMs: clock.now() + 3_600_000 });
    return session;
  } catch (error) {
    // Hush must work while the database is away: who was known within the last hour still is.
    const known = lately.get(hash);
    if (isAway(error) && known !== undefined && known.untilMs > clock.now()) return known.session;
    throw error;
  }
}
export const forgetSession = (session: Session): void => void lately.delete(session.tokenHash);
/** Whoever was removed, or signed out elsewhere, is not remembered as signed in when the database is away. */
export function forgetOperator(operatorId: string, butTokenHash = ""): void {
  for (const [hash, { session }] of lately.entries()) if (session.operatorId === operatorId && hash !== butTokenHash) lately.delete(hash);
}

const statusOf = ({ code }: Refusal): number => {
  if (code === "access/signed-out") return 401;
  if (code.startsWith("access/")) return 403;
  if (code === "sign-in/too-often") return 429;
  if (code === "draft/changed-elsewhere") return 409;
  if (code.endsWith("/unknown")) return 404;
  if (code.endsWith("/away")) return 503;
  return 422;
};

export function answer<T>(result: Result<T>, extra: ResponseInit = {}): Response {
  if (result.ok) return Response.json(result, extra);
  return Response.json({ ...result, words: refusalInWords(result.refusal) }, { status: statusOf(result.refusal), ...extra });
}

/** Forms of other sites carry our cookie too; they can't carry our Origin. */
export async function fromOurPages(): Promise<boolean> {
  const given = await headers();
  return fromHere(given.get("origin") ?? undefined, given.get("host") ?? undefined, services().env.publicUrl);
}

/** A database that can't be reached is an expected no; anything else is a defect and is logged as one. */
export async function guarded(work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (error) {
    const { isAway, log } = services();
    if (isAway(error)) return answer(refused("store/away"));
    log.error({ err: error instanceof Error ? error.stack : String(error) }, "a request failed");
    return Response.json(
      {
        ok: false,
        refusal: { code: "defect", facts: {} },
        words: "Something went wrong inside Izzam, and nothing was changed. Try again; if it stays so, look into the log.",
      },
      { status: 500 },
    );
  }
}

async function readBody(request: Request): Promise<unknown> {
  const text = await request.text();
  if (text.length > longestBody) return undefined;
  try {
    return text === "" ? {} : parseJson(text);
  } catch {
    return undefined;
  }
}

type Params = Record<string, string>;
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

/** A booth that shows a rehearsal says which; what such a booth can do is done there, and nothing of it is written down. */
const rehearsalHeader = "x-izzam-rehearsal";
const inRehearsals: ReadonlySet<Action> = new Set<Action>(["command", "cue.fire", "queue.act", "held.decide", "chat.say"]);
async function stageOf(request: Request, name: Action, session: Session): Promise<Result<ChannelId>> {
  const asked = request.headers.get(rehearsalHeader) ?? "";
  if (asked === "" || !inRehearsals.has(name)) return { ok: true, value: session.channelId };
  const known = await services().engine.rehearsal.known(session.channelId, asked.slice(0, 26));
  return known.ok ? { ok: true, value: channelId(asked) } : known;
}

/** One action of the operator side: signed in, from our pages, allowed by role, body parsed, audited by the act. */
export function action<B, T>(name: Action, schema: z.ZodType<B>, act: Act<B, T>) {
  return (request: Request, context: { params: Promise<Params> }): Promise<Response> =>
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
      return answer(await act({ session, body: body.data, params: await context.params, stage: stage.value, audit }));
    });
}

export async function admitted(name: Action): Promise<Result<Session>> {
  if (!(await fromOurPages())) return refused("access/foreign");
  // Who is signed in acts as such; a paired phone may do what the booth's hands do.
  const session = (await currentSession()) ?? (mayRemote(name) ? await currentRemote() : null);
  if (session === null) return refused("access/signed-out");
  return may(session.role, name) ? { ok: true, value: session } : refused("access/role");
}
