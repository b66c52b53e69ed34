import { LRUCache } from "lru-cache";
import { refused, type Refusal, type Result } from "../../core/kernel/refusal";
import type { Session } from "../ports/operator-store";
import { fromHere } from "../engine/origin";
import { hashToken } from "../secrets";
import { cookie, header } from "./asked";
import { services } from "./services";
import { refusalInWords } from "./words";

export const sessionCookie = "izzam_session";
export const remoteCookie = "izzam_remote";

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

async function sessionIn(name: string): Promise<Session | null> {
  const token = await cookie(name);
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

/** Something is away or not up yet: the same request may be sent again, and is no "no". */
const isNotYet = (code: string): boolean => code.endsWith("/away") || code === "engine/starting";
const statusOf = ({ code }: Refusal): number => {
  if (code === "access/signed-out") return 401;
  if (code.startsWith("access/")) return 403;
  if (code === "sign-in/too-often") return 429;
  if (code === "draft/changed-elsewhere") return 409;
  if (code.endsWith("/unknown")) return 404;
  if (isNotYet(code)) return 503;
  return 422;
};

export function answer<T>(result: Result<T>, extra: ResponseInit = {}): Response {
  if (result.ok) return Response.json(result, extra);
  const status = statusOf(result.refusal);
  const headers = status === 503 ? { "retry-after": "2" } : undefined;
  return Response.json({ ...result, words: refusalInWords(result.refusal) }, { status, headers, ...extra });
}

/** Forms of other sites carry our cookie too; they can't carry our Origin. */
export async function fromOurPages(): Promise<boolean> {
  return fromHere(await header("origin"), await header("host"), services().env.publicUrl);
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
