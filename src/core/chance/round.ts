import { type Proof, proofFormat } from "./proof";
import { firstLink, guessesOf, listHash, type ListChange, listOf, settingsHash, type Shake } from "./scheme";
import type { Vault } from "./vault";

/** What of a round is fixed when it is promised. */
export type RoundPromise = Readonly<{ round: string; commitment: string; sealed: string; settingsHash: string; chain: string }>;
type For = Readonly<{ game: string; n: number; atMs: number; rehearsing: boolean }>;

const rehearsed = ".rehearsal";
/** Whether a round was a rehearsal's: no viewer hears of it, and nothing of it is kept. */
export const isRehearsed = (round: string): boolean => round.endsWith(rehearsed);

/** A new round of a game with a secret of its own, and the first link of its chain; `settings` are what is announced. */
export function promiseRound(vault: Vault, settings: unknown, { game, n, atMs, rehearsing }: For): RoundPromise {
  // With its time, so that a game that begins anew never makes a round of the same name.
  const round = `${game}.${n}.${atMs.toString(36)}${rehearsing ? rehearsed : ""}`;
  const { commitment, sealed } = vault.promise(round);
  const hash = settingsHash(settings);
  return { round, commitment, sealed, settingsHash: hash, chain: firstLink({ round, commitment, settings: hash }) };
}

/** So many digits of a hash are told in chat: nobody finds another that begins alike. */
export const inShort = (hash: string): string => hash.slice(0, 20);

export type RoundEnd = Pick<Proof, "settings" | "secret" | "lock"> &
  Readonly<{
    promise: Omit<RoundPromise, "sealed">;
    changes: readonly ListChange[];
    shake?: Readonly<{ messages: readonly Shake[]; hash: string }> | null;
    draws: readonly Readonly<Proof["draws"][number]>[];
    /** The number that was drawn, where numbers are named. */
    number?: Proof["number"];
  }>;
/** The whole of a round that is over, for anybody to check. Who was drawn has left with all tickets. */
export function proofOf({ promise, settings, secret, lock, changes, shake = null, draws, number }: RoundEnd): Proof {
  const { round, commitment, chain } = promise;
  const list = number === undefined ? listOf(changes) : guessesOf(changes);
  return {
    format: proofFormat,
    round,
    settings,
    settingsHash: promise.settingsHash,
    commitment,
    secret,
    lock,
    changes: [...changes],
    chain,
    list: [...list],
    listHash: listHash(list),
    shake: shake === null ? null : { messages: [...shake.messages], hash: shake.hash },
    ...(number === undefined ? {} : { number }),
    staysIn: false,
    draws: [...draws],
  };
}
