import canonicalize from "canonicalize";
import { hmac } from "@noble/hashes/hmac.js";
import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, hexToBytes, utf8ToBytes } from "@noble/hashes/utils.js";
import { ok, refused, type Result } from "../kernel/refusal";
import { wellFormed } from "../kernel/text";

/**
 * Chance that viewers can check for themselves: a secret is promised by its hash before the first entry, entries are
 * chained so that none can be slipped in later unseen, the list is hashed when it is closed, and every draw follows
 * from secret and list alone. Hashes are SHA-256 as lower-case hex; texts are hashed as UTF-8. Nothing here needs a
 * secure context, so that a page on plain HTTP checks it too. docs/chance.md says it for other programs.
 */
export const secretBytes = 32;
const hashOf = (text: string): string => bytesToHex(sha256(utf8ToBytes(text)));
/** RFC 8785: one text for one value, whatever wrote it. */
export function canonical(value: unknown): string {
  const text = canonicalize(value);
  if (text === undefined) throw new TypeError("there is no JSON of this");
  return text;
}

/** 64 hex digits; null for what is no secret. */
export const secretFrom = (hex: string): Uint8Array | null => (/^[0-9a-f]{64}$/.test(hex) ? hexToBytes(hex) : null);
export const commitmentOf = (secret: Uint8Array): string => bytesToHex(sha256(secret));
export const settingsHash = (settings: unknown): string => hashOf(canonical(settings));

/** What was done to the list while it was open. `weight` is what the one has from then on, 0 for out; `guess` the number they named. */
export type ListChange = Readonly<{ seq: number; atMs: number; id: string; weight: number; guess?: number | undefined }>;
export type Opening = Readonly<{ round: string; commitment: string; settings: string }>;
/** The chain begins with what was promised, so that no chain fits another round. */
export const firstLink = (opening: Opening): string => hashOf(canonical(opening));
/** Canonical by hand, since there are as many as there are entries: names in their order, numbers and texts as JSON has them. */
export const nextLink = (link: string, { seq, atMs, id, weight, guess }: ListChange): string =>
  hashOf(
    `["${link}",{"atMs":${JSON.stringify(atMs)},${guess === undefined ? "" : `"guess":${JSON.stringify(guess)},`}"id":${JSON.stringify(id)},"seq":${JSON.stringify(seq)},"weight":${JSON.stringify(weight)}}]`,
  );

export type Ticket = Readonly<{ id: string; weight: number }>;
/** Somebody who named a number, and with which change: a changed number counts from its change. */
export type Guess = Ticket & Readonly<{ guess: number; at: number }>;
const byId = (a: Ticket, b: Ticket): number => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);
/** Who is in when it is closed: sorted by id, by UTF-16 units, as the default order of JavaScript has it. */
export function listOf(changes: readonly ListChange[]): readonly Ticket[] {
  const weights = new Map<string, number>();
  for (const { id, weight } of changes) weights.set(id, weight);
  return [...weights]
    .filter(([, weight]) => weight > 0)
    .map(([id, weight]) => ({ id, weight }))
    .sort(byId);
}
/** The same where numbers are named: who is in, with what they named last. */
export function guessesOf(changes: readonly ListChange[]): readonly Guess[] {
  const guesses = new Map<string, Guess>();
  for (const { seq, id, weight, guess = 0 } of changes) {
    const before = guesses.get(id);
    if (weight === 0) guesses.delete(id);
    else guesses.set(id, { at: before?.guess === guess ? before.at : seq, guess, id, weight });
  }
  return [...guesses.values()].sort(byId);
}
/** Nearest first; of two that are as near the earlier. */
export const byNearness = (guesses: readonly Guess[], target: number): readonly Guess[] =>
  [...guesses].sort((a, b) => Math.abs(a.guess - target) - Math.abs(b.guess - target) || a.at - b.at);

/** What JSON writes of a list whose names come in this order is canonical. */
const listText = (list: readonly (Ticket | Guess)[]): string =>
  JSON.stringify(
    list.map((t) => ("guess" in t ? { at: t.at, guess: t.guess, id: t.id, weight: t.weight } : { id: t.id, weight: t.weight })),
  );
export const listHash = (list: readonly (Ticket | Guess)[]): string => hashOf(listText(list));

/** The first messages after the lock, one of each of several viewers: what nobody knew when the secret was made. */
export type Shake = Readonly<{ id: string; text: string }>;
/** Empty where the drum is not shaken. */
export const shakeHash = (messages: readonly Shake[] | null): string =>
  messages === null ? "" : hashOf(canonical(messages.map(({ id, text }) => ({ id: wellFormed(id), text: wellFormed(text) }))));

export type Drawn = Readonly<{
  /** Which ticket of all that are left, counted from 0. */
  ticket: number;
  /** Tries before this one that were thrown away, so that none is likelier than another. */
  attempts: number;
}>;
export type DrawKey = Readonly<{ secret: Uint8Array; round: string; list: string; shake: string }>;

/** Key, round, list and shake are mixed in once, not once for each draw. */
type Keyed = Readonly<{ prefix: string; mac: ReturnType<typeof hmac.create> }>;
const keys = new WeakMap<Uint8Array, Keyed>();
function keyedBy({ secret, round, list, shake }: DrawKey): Keyed["mac"] {
  const prefix = `${round}:${list}:${shake}:`;
  let keyed = keys.get(secret);
  if (keyed?.prefix !== prefix) keys.set(secret, (keyed = { prefix, mac: hmac.create(sha256, secret).update(utf8ToBytes(prefix)) }));
  return keyed.mac;
}

/** Draw number `index` among `total` tickets. Refused: `chance/none` where none are left, `chance/too-many` beyond 2^53 - 1. */
export function drawTicket(key: DrawKey, index: number, total: number): Result<Drawn> {
  if (total < 1) return refused("chance/none");
  if (!Number.isSafeInteger(total)) return refused("chance/too-many");
  const whole = BigInt(total);
  const fair = (2n ** 64n / whole) * whole;
  const keyed = keyedBy(key);
  for (let attempts = 0; ; attempts += 1) {
    const mac = keyed
      .clone()
      .update(utf8ToBytes(`${index}:${attempts}`))
      .digest();
    let x = 0n;
    for (let i = 0; i < 8; i += 1) x = x * 256n + BigInt(mac[i] ?? 0);
    if (x < fair) return ok({ ticket: Number(x % whole), attempts });
  }
}

/**
 * The tickets in a drum. Whose a ticket is, is found by running sum in the order of the list; sums are kept as a
 * binary indexed tree, so that a thousand winners of a million cost little more than a look at the million.
 */
export class Drum {
  private readonly sums: Float64Array;
  private readonly weights: Float64Array;
  private readonly top: number;
  total = 0;

  /** Weights are whole numbers from 0; the sum of all stays below 2^53. */
  constructor(weights: readonly number[]) {
    const n = weights.length;
    this.weights = Float64Array.from(weights);
    this.sums = new Float64Array(n + 1);
    for (let i = 1; i <= n; i += 1) {
      const weight = this.weights[i - 1] ?? 0;
      this.total += weight;
      this.sums[i] = (this.sums[i] ?? 0) + weight;
      const up = i + (i & -i);
      if (up <= n) this.sums[up] = (this.sums[up] ?? 0) + (this.sums[i] ?? 0);
    }
    this.top = n === 0 ? 0 : 2 ** Math.floor(Math.log2(n));
  }

  /** Whose ticket this is: its place in the list. */
  at(ticket: number): number {
    let place = 0;
    let left = ticket;
    for (let step = this.top; step > 0; step >>= 1) {
      const next = place + step;
      const sum = this.sums[next];
      if (sum !== undefined && next < this.sums.length && sum <= left) {
        place = next;
        left -= sum;
      }
    }
    return place;
  }

  weight(place: number): number {
    return this.weights[place] ?? 0;
  }

  /** All tickets of one leave. */
  takeOut(place: number): void {
    const weight = this.weights[place] ?? 0;
    this.weights[place] = 0;
    this.total -= weight;
    for (let i = place + 1; i < this.sums.length; i += i & -i) this.sums[i] = (this.sums[i] ?? 0) - weight;
  }
}

export type Winner = Drawn & Readonly<{ index: number; id: string; weight: number; total: number }>;
/** Draws one after another; whoever was drawn leaves with all their tickets, unless they stay in. */
export function drawWinners(
  key: DrawKey,
  list: readonly Ticket[],
  { from = 0, count, staysIn = false }: Readonly<{ from?: number; count: number; staysIn?: boolean }>,
): Result<readonly Winner[]> {
  const drum = new Drum(list.map((t) => t.weight));
  const winners: Winner[] = [];
  for (let index = 0; index < from + count; index += 1) {
    const total = drum.total;
    const drawn = drawTicket(key, index, total);
    if (!drawn.ok) return drawn;
    const place = drum.at(drawn.value.ticket);
    if (index >= from) winners.push({ ...drawn.value, index, id: list[place]?.id ?? "", weight: drum.weight(place), total });
    if (!staysIn) drum.takeOut(place);
  }
  return ok(winners);
}
