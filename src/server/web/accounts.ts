import { hash, verify } from "@node-rs/argon2";
import { RateLimiterMemory, RateLimiterRes } from "rate-limiter-flexible";
import { channelId, operatorId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { loginKey } from "../../core/kernel/text";
import { type House, theHouse } from "../../core/signals/names";
import { z } from "zod";
import type { Account, OperatorRole, Session } from "../ports/operator-store";
import { bookOf } from "./books";
import { freshDevice, knownDevice } from "./device";
import { hashToken, newToken, sameText } from "../secrets";
import type { WebServices } from "../composition/web";

export const sessionDays = 30;
const perAddress = new RateLimiterMemory({ points: 20, duration: 60 });
const perName = new RateLimiterMemory({ points: 6, duration: 60 });
const perDevice = new RateLimiterMemory({ points: 10, duration: 60 });
/** Checked when the name is unknown, so that an unknown name takes as long as a wrong password. */
let decoy: Promise<string> | null = null;

/** `device`: what this browser keeps, so that others who guess at the name don't shut it out. */
type Opened = Readonly<{ token: string; expiresMs: number; device: string }>;

async function open({ store, clock, env }: WebServices, account: Account, where = ""): Promise<Result<Opened>> {
  const token = newToken() + newToken();
  const nowMs = clock.now();
  const expiresMs = nowMs + sessionDays * 86_400_000;
  await store.accounts.openSession(hashToken(token), account, { kind: "full", id: newToken(), label: where, nowMs, expiresMs });
  await store.log.audit(account.channelId, account.id, "sign-in", {}, clock.now());
  return ok({ token, expiresMs, device: freshDevice(env.appKey, account.login) });
}

/** Whether this key may try once more now. */
export async function allowed(limiter: RateLimiterMemory, key: string): Promise<Result<null>> {
  try {
    await limiter.consume(key);
    return ok(null);
  } catch (error) {
    if (error instanceof RateLimiterRes) return refused("sign-in/too-often", { waitS: Math.ceil(error.msBeforeNext / 1000) });
    throw error;
  }
}

/** argon2id; at most 6 tries a minute for a name and 20 from an address, and 10 of its own from a browser that signed in before. */
export async function signIn(
  web: WebServices,
  login: string,
  password: string,
  address: string,
  local: boolean,
  where = "",
  device = "",
): Promise<Result<Opened>> {
  const known = knownDevice(web.env.appKey, login, device);
  const limits =
    known === null
      ? ([
          [perAddress, address],
          [perName, loginKey(login)],
        ] as const)
      : ([[perDevice, known]] as const);
  for (const [limiter, key] of limits) {
    const may = await allowed(limiter, key);
    if (!may.ok) return may;
  }
  const account = await web.store.accounts.account(login);
  decoy ??= hash("nobody’s password");
  const right = await verify(account?.passwordHash ?? (await decoy), password);
  if (account === null || !right) return refused("sign-in/wrong");
  await (known === null ? perName.delete(loginKey(login)) : perDevice.delete(known));
  // Everybody knows the demo's passwords.
  if (account.demo && !local) return refused("sign-in/demo-elsewhere");
  return open(web, account, where);
}

/** One click, in demo mode only. */
export async function demoSignIn(web: WebServices, role: OperatorRole, local: boolean, where = ""): Promise<Result<Opened>> {
  if (!web.env.demo) return refused("sign-in/no-demo");
  if (!local) return refused("sign-in/demo-elsewhere");
  const account = await web.store.accounts.demoAccount(role);
  return account === null ? refused("sign-in/no-demo") : open(web, account, where);
}

/** The owner and the channel, on an installation that has none. The code proves who started it. */
export async function setUp(
  web: WebServices,
  given: Readonly<{ code: string; login: string; password: string; channel: string }>,
  address: string,
  where = "",
): Promise<Result<Opened>> {
  const may = await allowed(perAddress, address);
  if (!may.ok) return may;
  if (await web.store.accounts.anyOperator()) return refused("setup/done");
  if (web.env.setupCode === "" || !sameText(given.code.trim(), web.env.setupCode)) return refused("setup/code");
  const nowMs = web.clock.now();
  const first = {
    operatorId: operatorId(newToken()),
    login: given.login,
    passwordHash: await hash(given.password),
    channelId: channelId(newToken()),
    channelName: given.channel,
    salt: Math.floor(Math.random() * 2 ** 31),
    nowMs,
  };
  const made = await web.store.accounts.createFirst(first);
  if (!made.ok) return made;
  await web.store.overlays.create(first.channelId, { id: newToken(), name: "Main stage", width: 1920, height: 1080, nowMs });
  await bookOf(web.store, first.channelId, "show", first.login, nowMs);
  await web.engine.reload(first.channelId);
  return open(
    web,
    { id: first.operatorId, login: first.login, passwordHash: "", channelId: first.channelId, role: "owner", demo: false },
    where,
  );
}

/** Which browser it is, in a few words; whatever else it says of itself is not kept. */
export function browserIn(agent: string): string {
  const system = /Android|iPhone|iPad|Windows|Mac OS X|CrOS|Linux/.exec(agent)?.[0] ?? "";
  // Others call themselves Chrome and Safari too, so those come last.
  const browser = ["Firefox", "Edg", "OPR", "Chrome", "Safari"].find((name) => agent.includes(`${name}/`)) ?? "";
  const names: Readonly<Record<string, string>> = { "Mac OS X": "macOS", CrOS: "ChromeOS", Edg: "Edge", OPR: "Opera" };
  return [names[browser] ?? browser, names[system] ?? system].filter((w) => w !== "").join(" on ") || "a browser";
}

const inviteDays = 7;
/** What viewers may read of who is signed in. */
export const houseOf = ({ publicName, role }: Pick<Session, "publicName" | "role">): House => ({
  name: publicName === "" ? theHouse : publicName,
  role,
});

export const publicNameSchema = z
  .string()
  .trim()
  .max(40, "A public name has at most 40 characters.")
  .regex(/^[^\p{Cc}]*$/u, "A public name is one line.");
/** Chooses what viewers read; empty for “the house”. A name that somebody signs in by stays secret. */
export async function choosePublicName(web: WebServices, session: Session, name: string): Promise<Result<null>> {
  const logins = await web.store.accounts.logins(session.channelId);
  if (name !== "" && logins.some((login) => loginKey(login) === loginKey(name))) return refused("account/public-login");
  await web.store.accounts.setPublicName(session.operatorId, session.channelId, name);
  return ok(null);
}

export const loginSchema = z
  .string()
  .trim()
  .min(2, "A name has at least 2 characters.")
  .max(40, "A name has at most 40 characters.")
  .regex(/^[\p{L}\p{N} ._-]+$/u, "A name has letters, digits, spaces and . _ - only.");
export const passwordSchema = z.string().min(10, "A password has at least 10 characters.").max(400);

/** The old one proves who asks; everywhere else this operator is signed out. */
export async function changePassword(web: WebServices, session: Session, before: string, after: string): Promise<Result<null>> {
  const may = await allowed(perName, `password ${session.operatorId}`);
  if (!may.ok) return may;
  const kept = await web.store.accounts.passwordHash(session.operatorId);
  if (kept === null || !(await verify(kept, before))) return refused("account/wrong-password");
  await web.store.accounts.setPassword(session.operatorId, await hash(after));
  await web.store.accounts.endSessions(session.operatorId, null, session.tokenHash);
  await web.engine.recheck();
  return ok(null);
}

/** Ends one session of one's own, or with null all others; pages that are open there are closed at once. */
export async function endSession(web: WebServices, session: Session, id: string | null): Promise<Result<null>> {
  const ended = await web.store.accounts.endSessions(session.operatorId, id, session.tokenHash);
  if (ended === 0 && id !== null) return refused("session/unknown");
  await web.engine.recheck();
  return ok(null);
}

/** A link with which one person becomes a moderator. Works once, for a week; the token is in no list and no log. */
export async function invite(web: WebServices, session: Session): Promise<Result<Readonly<{ token: string; untilMs: number }>>> {
  const token = newToken() + newToken();
  const nowMs = web.clock.now();
  const expiresMs = nowMs + inviteDays * 86_400_000;
  await web.store.accounts.invite(session.channelId, { tokenHash: hashToken(token), by: session.login, nowMs, expiresMs });
  return ok({ token, untilMs: expiresMs });
}

export async function join(
  web: WebServices,
  given: Readonly<{ token: string; login: string; password: string }>,
  address: string,
  where = "",
): Promise<Result<Opened>> {
  const may = await allowed(perAddress, address);
  if (!may.ok) return may;
  const done = await web.store.accounts.join(hashToken(given.token), {
    id: operatorId(newToken()),
    login: given.login,
    passwordHash: await hash(given.password),
    nowMs: web.clock.now(),
  });
  if (!done.ok) return done;
  await web.store.log.audit(done.value.channelId, done.value.id, "operator.joined", { login: given.login }, web.clock.now());
  return open(web, done.value, where);
}

/** Whoever is removed is out of every page at once. */
export async function removeOperator(web: WebServices, session: Session, id: string): Promise<Result<Readonly<{ login: string }>>> {
  if (id === session.operatorId) return refused("operator/oneself");
  const done = await web.store.accounts.removeOperator(session.channelId, operatorId(id));
  if (done.ok) await web.engine.recheck();
  return done;
}
