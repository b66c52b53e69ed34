import { hash, verify } from "argon2";
import { RateLimiterMemory, RateLimiterRes } from "rate-limiter-flexible";
import { channelId, operatorId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { loginKey } from "../../core/kernel/text";
import type { Account, OperatorRole } from "../ports/operator-store";
import { bookOf } from "./books";
import { hashToken, newToken, sameText } from "../secrets";
import type { WebServices } from "../composition";

export const sessionDays = 30;
const perAddress = new RateLimiterMemory({ points: 20, duration: 60 });
const perName = new RateLimiterMemory({ points: 6, duration: 60 });
/** Checked when the name is unknown, so that an unknown name takes as long as a wrong password. */
let decoy: Promise<string> | null = null;

type Opened = Readonly<{ token: string; expiresMs: number }>;

async function open({ store, clock }: WebServices, account: Account): Promise<Result<Opened>> {
  const token = newToken() + newToken();
  const expiresMs = clock.now() + sessionDays * 86_400_000;
  await store.accounts.openSession(hashToken(token), account, expiresMs);
  await store.log.audit(account.channelId, account.id, "sign-in", {}, clock.now());
  return ok({ token, expiresMs });
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

/** argon2id; at most 6 tries a minute for a name and 20 from an address. */
export async function signIn(web: WebServices, login: string, password: string, address: string, local: boolean): Promise<Result<Opened>> {
  for (const [limiter, key] of [
    [perAddress, address],
    [perName, loginKey(login)],
  ] as const) {
    const may = await allowed(limiter, key);
    if (!may.ok) return may;
  }
  const account = await web.store.accounts.account(login);
  decoy ??= hash("nobody’s password");
  const right = await verify(account?.passwordHash ?? (await decoy), password);
  if (account === null || !right) return refused("sign-in/wrong");
  await perName.delete(loginKey(login));
  // Everybody knows the demo's passwords.
  if (account.demo && !local) return refused("sign-in/demo-elsewhere");
  return open(web, account);
}

/** One click, in demo mode only. */
export async function demoSignIn(web: WebServices, role: OperatorRole, local: boolean): Promise<Result<Opened>> {
  if (!web.env.demo) return refused("sign-in/no-demo");
  if (!local) return refused("sign-in/demo-elsewhere");
  const account = await web.store.accounts.demoAccount(role);
  return account === null ? refused("sign-in/no-demo") : open(web, account);
}

/** The owner and the channel, on an installation that has none. The code proves who started it. */
export async function setUp(
  web: WebServices,
  given: Readonly<{ code: string; login: string; password: string; channel: string }>,
  address: string,
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
  return open(web, { id: first.operatorId, login: first.login, passwordHash: "", channelId: first.channelId, role: "owner", demo: false });
}
