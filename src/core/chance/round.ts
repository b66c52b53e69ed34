import { type Proof, proofFormat } from "./proof";
import { type Proof1, proof1Format } from "./proof-1";
import { type ChanceRules, chanceIn, type Happening, nextHappening, openingLink } from "./record";
import { guessesOf, listHash, type ListChange, listOf, settingsHash } from "./scheme";
import type { Vault } from "./vault";

/** What of a round is fixed when it is promised. */
export type RoundPromise = Readonly<{ round: string; commitment: string; sealed: string; settingsHash: string; chain: string }>;
type For = Readonly<{ game: string; n: number; atMs: number; rehearsing: boolean }>;

const rehearsed = ".rehearsal";
/** Whether a round was a rehearsal's: no viewer hears of it, and nothing of it is kept. */
export const isRehearsed = (round: string): boolean => round.endsWith(rehearsed);

/** A new round of a game with a secret of its own, and the first link of its chain; `settings` are what is announced. */
export function promiseRound(vault: Vault, settings: Readonly<{ chance: ChanceRules }>, { game, n, atMs, rehearsing }: For): RoundPromise {
  // With its time, so that a game that begins anew never makes a round of the same name.
  const round = `${game}.${n}.${atMs.toString(36)}${rehearsing ? rehearsed : ""}`;
  const { commitment, sealed } = vault.promise(round);
  const hash = settingsHash(settings);
  return { round, commitment, sealed, settingsHash: hash, chain: openingLink({ round, commitment, settings: hash, atMs }) };
}

/** A happening as a link of the chain, in the record of a round that has one: a round opened before records has none. */
export const recorded = <R extends Readonly<{ chain: string; record: readonly Happening[] | null }>>(round: R, happening: Happening): R =>
  round.record === null ? round : { ...round, chain: nextHappening(round.chain, happening), record: [...round.record, happening] };

/** So many digits of a hash are told in chat: nobody finds another that begins alike. */
export const inShort = (hash: string): string => hash.slice(0, 20);

export type RoundEnd = Readonly<{
  promise: Omit<RoundPromise, "sealed">;
  openedMs: number;
  settings: unknown;
  secret: string;
  changes: readonly ListChange[];
  /** What happened after the last entry; null for a round that was opened before records. */
  record: readonly Happening[] | null;
  /** For such a round alone. */
  lock: Proof1["lock"];
  shake?: Proof1["shake"];
  draws: readonly Readonly<Proof["draws"][number]>[];
  /** The number that was drawn, where numbers are named. */
  number?: Proof1["number"];
}>;
/** The whole of a round that is over, for anybody to check. */
export function proofOf({ promise, openedMs, settings, secret, changes, record, lock, shake = null, draws, number }: RoundEnd): Proof {
  const { round, commitment, chain } = promise;
  const numbered = number !== undefined || chanceIn(settings)?.number != null;
  const list = numbered ? guessesOf(changes) : listOf(changes);
  const common = {
    round,
    settings,
    settingsHash: promise.settingsHash,
    commitment,
    secret,
    changes: [...changes],
    chain,
    list: [...list],
    listHash: listHash(list),
    draws: [...draws],
  };
  if (record !== null) {
    const drawn = number === undefined ? {} : { number: { target: number.target, attempts: number.attempts } };
    return { format: proofFormat, ...common, openedMs, record: [...record], ...drawn };
  }
  const shaken = shake === null ? null : { messages: [...shake.messages], hash: shake.hash };
  return { format: proof1Format, ...common, lock, shake: shaken, ...(number === undefined ? {} : { number }), staysIn: false };
}
