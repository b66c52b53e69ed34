import { hmac } from "@noble/hashes/hmac.js";
import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import { commitmentOf, secretFrom } from "./scheme";

/** What is made public of a secret, and the secret itself as only the engine can read it. */
export type Promised = Readonly<{ commitment: string; sealed: string }>;

/**
 * Where secrets of rounds come from. A step keeps `sealed` in its durable state, so that promise and state are
 * committed together, and opens it when the round is drawn. What is sealed for one round opens for no other.
 */
export type Vault = Readonly<{
  promise: (round: string) => Promised;
  /** 32 bytes; null when it can't be opened (another installation's, tampered with): the round is lost. */
  open: (round: string, sealed: string) => Uint8Array | null;
}>;

/** For previews, the odds lab and tests: nothing in it is secret, and the same rounds come out the same. */
export function openVault(salt: string): Vault {
  const sealedOf = (round: string): string => bytesToHex(hmac(sha256, utf8ToBytes(salt), utf8ToBytes(round)));
  return {
    promise: (round) => {
      const sealed = sealedOf(round);
      const secret = secretFrom(sealed);
      return { sealed, commitment: secret === null ? "" : commitmentOf(secret) };
    },
    open: (round, sealed) => (sealed === sealedOf(round) ? secretFrom(sealed) : null),
  };
}
