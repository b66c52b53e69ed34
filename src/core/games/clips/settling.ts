import type { StepOutcome } from "../../module/module";
import { kept, refunded, type Entry } from "../../points/ledger";
import type { Order } from "../../module/order";
import type { Clip, ClipsDurable, ClipsSettings } from "./settings";

const mostOwed = 500;
const mostCredits = 500;
type Owed = ClipsDurable["owed"];
/** One more note of what is owed. Of very many, those to the same person become one: none is ever dropped. */
export function withNote(owed: Owed, note: Owed[number]): Owed {
  if (owed.length < mostOwed) return [...owed, note];
  const same = owed.find((o) => o.viewer !== null && o.viewer.id === note.viewer?.id && o.currency === note.currency);
  if (same === undefined) return [...owed, note];
  const both: Owed[number] = { ...same, minor: same.minor + note.minor, title: "", why: "several of theirs were not shown" };
  return owed.map((o) => (o === same ? both : o));
}
export const booked = (entries: readonly Entry[], viewer: Clip["viewer"]) => ({
  entries,
  sales: [],
  names: viewer === null ? [] : [viewer],
  prices: [],
});
export type Settled = Readonly<{ durable: ClipsDurable; orders: readonly Order[]; entries: readonly Entry[] }>;

const head = (key: string, atMs: number, clip: Clip) => ({ key, atMs, about: clip.title === "" ? "a clip" : clip.title, by: "" });

/** Of what was paid so much goes back, the rest is the channel's: points to the point, money as a note of what is owed. */
function pay(durable: ClipsDurable, clip: Clip, back: number, why: string, atMs: number): Settled {
  const { pay: paid, viewer } = clip;
  switch (paid.by) {
    case "nothing":
      return { durable, orders: [], entries: [] };
    case "sale":
      // A reward is given back whole, or not at all.
      return { durable, orders: back > 0 ? [{ do: "give-back", sale: paid.sale }] : [], entries: [] };
    case "points": {
      if (viewer === null || paid.amount === 0) return { durable, orders: [], entries: [] };
      const entries: Entry[] = [];
      if (back > 0) entries.push(refunded(head(`${paid.key}.back`, atMs, clip), viewer.id, back, "pool"));
      if (back < paid.amount) entries.push(kept(head(`${paid.key}.kept`, atMs, clip), paid.amount - back));
      return { durable, orders: [], entries };
    }
    case "money": {
      if (back === 0) return { durable, orders: [], entries: [] };
      const note = { id: clip.n, viewer, minor: back, currency: paid.currency, why, title: clip.title, atMs };
      return { durable: { ...durable, owed: withNote(durable.owed, note) }, orders: [], entries: [] };
    }
  }
}

const amountOf = ({ pay: paid }: Clip): number => ("amount" in paid ? paid.amount : paid.by === "sale" ? 1 : 0);

/** It never showed: everything goes back. */
export const giveBack = (durable: ClipsDurable, clip: Clip, why: string, atMs: number): Settled =>
  pay(durable, clip, amountOf(clip), why, atMs);

type Now = NonNullable<ClipsDurable["now"]>;
/** How long its curtain was open until then. */
export const openedMs = ({ seenMs, openMs }: Now, atMs: number): number => seenMs + (openMs === null ? 0 : Math.max(0, atMs - openMs));

/** It is over, or was skipped: what was seen of it is paid for, as set; what no page showed is not. */
export function settle(
  settings: ClipsSettings,
  durable: ClipsDurable,
  clip: Clip,
  seenMs: number,
  skipped: boolean,
  atMs: number,
): Settled {
  if (seenMs <= 0) return pay(durable, clip, amountOf(clip), "no page showed it", atMs);
  if (!skipped || settings.skipped === "nothing") return pay(durable, clip, 0, "", atMs);
  if (settings.skipped === "all" || clip.pay.by === "sale") return pay(durable, clip, amountOf(clip), "it was skipped", atMs);
  const { pay: paid } = clip;
  if (!("perSecond" in paid)) return pay(durable, clip, 0, "", atMs);
  const seconds = Math.min(Math.floor(paid.amount / Math.max(1, paid.perSecond)), Math.ceil(seenMs / 1000));
  return pay(durable, clip, Math.max(0, paid.amount - seconds * paid.perSecond), "it was skipped", atMs);
}

/** The film was shorter than what was bought: the seconds that are not there go back at once. */
export function shortened(durable: ClipsDurable, clip: Clip, ms: number, atMs: number): Settled & Readonly<{ clip: Clip }> {
  const { pay: paid, viewer } = clip;
  const none = { durable, orders: [], entries: [], clip };
  if (!("perSecond" in paid) || paid.perSecond === 0) return none;
  const seconds = Math.ceil(Math.max(1, ms - 100) / 1000);
  const back = paid.amount - seconds * paid.perSecond;
  if (back <= 0) return none;
  const less = { ...clip, pay: { ...paid, amount: paid.amount - back } };
  if (paid.by === "money") return { ...none, durable: credited(durable, viewer, back, { currency: paid.currency, atMs }), clip: less };
  if (viewer === null) return none;
  return { ...none, clip: less, entries: [refunded(head(`${paid.key}.short`, atMs, clip), viewer.id, back, "pool")] };
}

/** Money that bought nothing stays its sender's, for their next clip. Of too many the oldest are owed back: none is lost. */
export function credited(
  durable: ClipsDurable,
  viewer: Clip["viewer"],
  minor: number,
  at: Readonly<{ currency: string; atMs: number }>,
): ClipsDurable {
  if (viewer === null || minor <= 0) return durable;
  const before = durable.credits.find((c) => c.id === viewer.id)?.minor ?? 0;
  const others = durable.credits.filter((c) => c.id !== viewer.id);
  const all = [...others, { ...viewer, minor: before + minor }];
  const [oldest] = all;
  if (all.length <= mostCredits || oldest === undefined) return { ...durable, credits: all };
  const { minor: left, ...whose } = oldest;
  const note = { id: durable.made + 1, viewer: whose, minor: left, title: "", why: "it bought no clip for long", ...at };
  return { ...durable, made: durable.made + 1, credits: all.slice(1), owed: withNote(durable.owed, note) };
}
export const creditOf = ({ credits }: ClipsDurable, viewer: string): number => credits.find((c) => c.id === viewer)?.minor ?? 0;
export const withoutCredit = (durable: ClipsDurable, viewer: string): ClipsDurable => ({
  ...durable,
  credits: durable.credits.filter((c) => c.id !== viewer),
});

export const both = <D, T, E>(outcome: StepOutcome<D, T, E>, settled: Settled, viewer: Clip["viewer"]): StepOutcome<D, T, E> => {
  const { entries, names } = outcome.booking ?? { entries: [], names: [] };
  const all = booked([...settled.entries, ...entries], viewer);
  return {
    ...outcome,
    orders: [...settled.orders, ...(outcome.orders ?? [])],
    ...(settled.entries.length === 0 ? {} : { booking: { ...all, names: [...all.names, ...names] } }),
  };
};
