import type { ChanceRules } from "../../chance/record";
import { promiseRound } from "../../chance/round";
import { listOf, nextLink, settingsHash, type Ticket } from "../../chance/scheme";
import type { Vault } from "../../chance/vault";
import { mayCome } from "./layout";
import type { WheelDurable, WheelPromise, WheelSettings } from "./settings";

/** What of the settings a spin depends on: this is what is announced. How the wheel looks is nobody's chance. */
export const announced = ({ segments, leaves, again }: WheelSettings) => ({
  segments: segments.map(({ id, label, weight, stock }) => ({ id, label, weight, stock })),
  leaves,
  again,
  chance,
});
/** Each spin is a round of its own with one draw, when an operator or a viewer sets it off. */
const chance: ChanceRules = { winners: 1, staysIn: false, shake: null, number: null, lockAfterMs: null };
const hashes = new WeakMap<WheelSettings, string>();
export function announcedHash(settings: WheelSettings): string {
  let hash = hashes.get(settings);
  if (hash === undefined) hashes.set(settings, (hash = settingsHash(announced(settings))));
  return hash;
}

/** Whether the promise is for the wheel as it is now, and for the show as it is: what a rehearsal draws tells nothing of a show. */
export const fits = (promise: WheelPromise, settings: WheelSettings, rehearsing: boolean): boolean =>
  promise.settingsHash === announcedHash(settings) && promise.rehearsal === rehearsing;

/** Who may come next, as the list that is drawn from. */
export const ticketsOf = (settings: WheelSettings, durable: WheelDurable): readonly Ticket[] =>
  mayCome(settings, durable).map(({ id, weight }) => ({ id, weight }));

type For = Readonly<{ game: string; n: number; atMs: number; rehearsing: boolean }>;
/** A new promise, with all that may come as its first entries. */
export function promised(settings: WheelSettings, durable: WheelDurable, vault: Vault, at: For): WheelPromise {
  const { n, atMs, rehearsing } = at;
  const empty = { ...promiseRound(vault, announced(settings), at), n, rehearsal: rehearsing, sinceMs: atMs, changes: [], record: [] };
  return changedTo(empty, ticketsOf(settings, durable), atMs);
}

/** The same promise with what has left or come back since, each as a link of its chain; itself where nothing has. */
export function changedTo(promise: WheelPromise, list: readonly Ticket[], atMs: number): WheelPromise {
  const before = new Map(listOf(promise.changes).map((t) => [t.id, t.weight]));
  const after = new Map(list.map((t) => [t.id, t.weight]));
  const differ = [
    ...[...before.keys()].filter((id) => !after.has(id)).map((id) => ({ id, weight: 0 })),
    ...list.filter((t) => before.get(t.id) !== t.weight),
  ];
  if (differ.length === 0) return promise;
  let { chain } = promise;
  const from = promise.changes.length;
  const changes = differ.map(({ id, weight }, i) => ({ seq: from + i + 1, atMs, id, weight }));
  for (const change of changes) chain = nextLink(chain, change);
  return { ...promise, changes: [...promise.changes, ...changes], chain };
}
