import { createCipheriv, createDecipheriv, createHash, randomBytes, timingSafeEqual } from "node:crypto";

/** A random token of 128 bits, URL-safe, 22 characters. */
export const newToken = (): string => randomBytes(16).toString("base64url");

/** Tokens are looked up by this and kept nowhere in the clear. They are random, so no salt is needed. */
export const hashToken = (token: string): string => createHash("sha256").update(`izzam-token:${token}`).digest("hex");

export const sameText = (a: string, b: string): boolean => {
  const [x, y] = [createHash("sha256").update(a).digest(), createHash("sha256").update(b).digest()];
  return timingSafeEqual(x, y);
};

/** AES-256-GCM; the purpose is bound in, so that one kind of secret can't be put in another's place. */
export function seal(key: Buffer, purpose: string, plain: string): string {
  const iv = randomBytes(12);
  const cipher = createCipheriv("aes-256-gcm", key, iv).setAAD(Buffer.from(purpose));
  const body = Buffer.concat([cipher.update(plain, "utf8"), cipher.final()]);
  return `v1.${Buffer.concat([iv, cipher.getAuthTag(), body]).toString("base64url")}`;
}

/** Throws when the text was changed, or sealed with another key or for another purpose. */
export function unseal(key: Buffer, purpose: string, sealed: string): string {
  const raw = Buffer.from(sealed.slice(3), "base64url");
  const decipher = createDecipheriv("aes-256-gcm", key, raw.subarray(0, 12)).setAAD(Buffer.from(purpose));
  decipher.setAuthTag(raw.subarray(12, 28));
  return Buffer.concat([decipher.update(raw.subarray(28)), decipher.final()]).toString("utf8");
}
