import { createHmac, timingSafeEqual } from "node:crypto";
import { ok, refused, type Result } from "../../core/kernel/refusal";

/**
 * Signatures as Standard Webhooks 1.0 describes: HMAC-SHA-256 in base64 over `id.timestamp.body`, keyed by
 * the bytes behind `whsec_`; several signatures may stand in the header, set apart by spaces.
 */
export const windowS = 300;
const prefix = "whsec_";

export const secretFrom = (bytes: Buffer): string => prefix + bytes.toString("base64");
const keyOf = (secret: string): Buffer => Buffer.from(secret.startsWith(prefix) ? secret.slice(prefix.length) : secret, "base64");

export const sign = (secret: string, id: string, timestampS: number, body: Buffer | string): string =>
  `v1,${createHmac("sha256", keyOf(secret)).update(`${id}.${timestampS}.`).update(body).digest("base64")}`;

export type SignedHeaders = Readonly<{ id: string | undefined; timestamp: string | undefined; signature: string | undefined }>;

/** Refused: headers missing, a time more than five minutes off, no signature of any of the secrets. */
export function verify(secrets: readonly string[], headers: SignedHeaders, body: Buffer, nowMs: number): Result<{ id: string }> {
  const { id, timestamp, signature } = headers;
  if (id === undefined || timestamp === undefined || signature === undefined || id === "" || id.length > 200)
    return refused("event/unsigned");
  if (!/^\d{1,12}$/.test(timestamp)) return refused("event/unsigned");
  const offS = Math.round(nowMs / 1000) - Number(timestamp);
  if (Math.abs(offS) > windowS) return refused("event/stale", { offS });
  const given = signature
    .split(" ")
    .slice(0, 10)
    .filter((s) => s.startsWith("v1,"))
    .map((s) => Buffer.from(s.slice(3), "base64"));
  for (const secret of secrets) {
    const meant = Buffer.from(sign(secret, id, Number(timestamp), body).slice(3), "base64");
    for (const one of given) if (one.length === meant.length && timingSafeEqual(one, meant)) return ok({ id });
  }
  return refused("event/bad-signature");
}
