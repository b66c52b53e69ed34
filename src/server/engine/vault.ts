import { randomBytes } from "node:crypto";
import { commitmentOf, secretBytes } from "../../core/chance/scheme";
import type { Vault } from "../../core/chance/vault";
import { seal, unseal } from "../secrets";

/**
 * Secrets of rounds: random bytes that leave this process only sealed with the installation's key, bound to their
 * channel and round. No part of Izzam shows one before its round is over, to nobody.
 */
export function sealedVault(key: Buffer, channel: string): Vault {
  const purpose = (round: string): string => `round:${channel}:${round}`;
  return {
    promise: (round) => {
      const secret = randomBytes(secretBytes);
      return { commitment: commitmentOf(secret), sealed: seal(key, purpose(round), secret.toString("base64url")) };
    },
    open: (round, sealed) => {
      try {
        const secret = Buffer.from(unseal(key, purpose(round), sealed), "base64url");
        return secret.length === secretBytes ? new Uint8Array(secret) : null;
      } catch {
        return null;
      }
    },
  };
}
/** Where no key was given: what it sealed is lost with the process. */
export const passingVault = (): Vault => sealedVault(randomBytes(32), "");
