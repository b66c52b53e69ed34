import { RateLimiterMemory } from "rate-limiter-flexible";
import { networkInterfaces } from "node:os";
import { randomBytes, randomInt } from "node:crypto";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { WebServices } from "../composition/web";
import type { Session } from "../ports/operator-store";
import { hashToken, newToken } from "../secrets";
import { sessionDays } from "./accounts";

/** Without letters and digits that are taken for one another when read aloud or from a small screen. */
const letters = "ABCDEFGHJKMNPQRSTVWXYZ23456789";
const codeLength = 8;
export const codeMinutes = 10;
const tries = new RateLimiterMemory({ points: 12, duration: 60 });

const newCode = (): string => Array.from({ length: codeLength }, () => letters[randomInt(letters.length)] ?? "A").join("");
/** As it was shown, whatever spaces, dashes and small letters were typed. */
const plainCode = (typed: string): string => typed.toUpperCase().replace(/[^A-Z0-9]/g, "");

/** Where this computer can be reached: from its network if it is open to it, from itself otherwise. */
function addresses({ lan, port, publicUrl }: WebServices["env"]): readonly string[] {
  if (publicUrl !== null) return [publicUrl.origin];
  const own = Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter((at) => at.family === "IPv4" && !at.internal)
    .map((at) => at.address);
  const reachable = lan && own.length > 0 ? own : ["localhost"];
  return reachable.map((host) => `http://${host}:${port}`);
}

export type Offer = Readonly<{ code: string; untilMs: number; addresses: readonly string[] }>;
export async function offerPairing({ store, clock, env }: WebServices, session: Session): Promise<Result<Offer>> {
  const code = newCode();
  const untilMs = clock.now() + codeMinutes * 60_000;
  await store.accounts.offerPairing(hashToken(code), { operatorId: session.operatorId, channelId: session.channelId, expiresMs: untilMs });
  return ok({ code, untilMs, addresses: addresses(env) });
}

export async function pair(
  { store, clock }: WebServices,
  typed: string,
  label: string,
  address: string,
): Promise<Result<Readonly<{ token: string; expiresMs: number }>>> {
  const may = await tries.consume(address).catch(() => null);
  if (may === null) return refused("sign-in/too-often", { waitS: 60 });
  const nowMs = clock.now();
  const account = await store.accounts.takePairing(hashToken(plainCode(typed)), nowMs);
  if (account === null) return refused("pairing/wrong");
  const token = randomBytes(32).toString("base64url");
  const expiresMs = nowMs + sessionDays * 86_400_000;
  await store.accounts.openSession(hashToken(token), account, { kind: "remote", id: newToken(), label, nowMs, expiresMs });
  await store.log.audit(account.channelId, account.id, "remote.paired", { label }, nowMs);
  return ok({ token, expiresMs });
}
