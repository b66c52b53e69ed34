import type { ChanceRules } from "../../chance/record";
import { nextLink } from "../../chance/scheme";
import { refusal, type Refusal } from "../../kernel/refusal";
import { fold } from "../../kernel/fold";
import type { Kept, StepContext } from "../../module/module";
import { type Entry, refunded, staked } from "../../points/ledger";
import { mayAs } from "../../signals/signal";
import type { Viewer } from "../../signals/names";
import { type Change, type RaffleDurable, type RaffleSettings, type Entrant, keyOf, mostPeople, type Round } from "./settings";
import { mostTickets } from "./limits";

/** How an entry is kept: with the link of the chain it made, so that a restart finds the very same. */
export type EntryRow = Readonly<{ change: Change; entrant: Entrant | null }>;

/** What somebody asks for: so many tickets, as many as they may have, or a number. */
export type Ask = Readonly<{ tickets: number | "all" | null; guess: number | null; text: string }>;
export function askOf(rest: string): Ask {
  const text = fold(rest).trim();
  const number = /^[+-]?\d{1,10}$/.test(text) ? Number(text) : null;
  return { tickets: text === "all" ? "all" : number, guess: number, text };
}

export type Entering = Readonly<{
  round: Round;
  durable: RaffleDurable;
  viewer: Viewer;
  ask: Ask;
  atMs: number;
  chattedMs: number | null;
  /** Paid for already, or given: nothing is taken. */
  free: boolean;
  ctx: StepContext;
}>;
export type Came = Readonly<{ refusal: Refusal } | { entrant: Entrant; cost: number; more: number }>;
const no = (code: string, facts: Refusal["facts"] = {}): Came => ({ refusal: refusal(code, facts) });
const dayMs = 86_400_000;

export const isBarred = (
  { barred }: RaffleSettings,
  durable: RaffleDurable,
  { id, name }: Readonly<{ id: string; name: string }>,
): boolean => durable.barred.some((b) => b.id === id) || barred.some((n) => fold(n) === fold(name));

/** The first check that fails answers: role → barred → won lately → wrote lately → room → what they ask for → points. */
export function entry(entering: Entering): Came {
  const { round, durable, viewer, atMs, chattedMs } = entering;
  const s = round.settings;
  const before = durable.entrants.get(keyOf(viewer.id));
  if (!mayAs(viewer, s.roles)) return no("raffle/role");
  if (isBarred(s, durable, viewer)) return no("raffle/barred");
  const [, show = 0, wonMs = 0] = durable.won.find(([id]) => id === viewer.id) ?? [];
  if (s.restShows > 0 && wonMs > 0 && durable.shows - show < s.restShows)
    return no("raffle/won-lately", { shows: s.restShows - (durable.shows - show) });
  if (s.restDays > 0 && wonMs > 0 && atMs - wonMs < s.restDays * dayMs)
    return no("raffle/won-lately", { days: Math.ceil((wonMs + s.restDays * dayMs - atMs) / dayMs) });
  if (s.chattedMin > 0 && (chattedMs === null || atMs - chattedMs > s.chattedMin * 60_000))
    return no("raffle/not-chatted", { minutes: s.chattedMin });
  if (before === undefined && durable.entrants.size >= mostPeople) return no("raffle/no-room");
  const base: Entrant = before ?? { id: viewer.id, name: viewer.name, roles: [], tickets: 0, paid: 0, guess: null, at: 0, tries: 0 };
  const named: Entrant = { ...base, name: viewer.name, roles: [...viewer.roles] };
  return s.by === "number" ? guessed(entering, named) : ticketed(entering, named);
}

function guessed({ round, viewer, ask, free, ctx }: Entering, named: Entrant): Came {
  const { number, tries } = round.settings;
  const { from, to } = number;
  if (ask.guess === null) return no(ask.text === "" ? "raffle/say-number" : "raffle/no-number", { from, to });
  if (ask.guess < from || ask.guess > to) return no("raffle/number-range", { from, to });
  if (named.tries >= tries) return no("raffle/no-tries", { tries, guess: named.guess ?? 0 });
  const price = free ? 0 : round.settings.price;
  const has = ctx.ledgerView.balance(viewer.id);
  if (has < price) return no("raffle/too-poor", { has, price, points: ctx.pointsName });
  const entrant = { ...named, tickets: 1, guess: ask.guess, tries: named.tries + 1, paid: named.paid + price };
  return { entrant, cost: price, more: 0 };
}

function ticketed({ round, viewer, ask, free, ctx }: Entering, named: Entrant): Came {
  const { most } = round.settings;
  const price = free ? 0 : round.settings.price;
  const room = most - named.tickets;
  if (room <= 0) return no("raffle/full", { most });
  if (ask.tickets !== "all" && ask.tickets !== null && (ask.tickets < 1 || ask.tickets > mostTickets))
    return no("raffle/how-many", { most });
  const has = ctx.ledgerView.balance(viewer.id);
  const affordable = price === 0 ? room : Math.floor(has / price);
  const wanted = ask.tickets === "all" ? Math.max(1, Math.min(room, affordable)) : Math.min(room, ask.tickets ?? 1);
  if (affordable < wanted) return no("raffle/too-poor", { has, price: price * wanted, points: ctx.pointsName });
  const cost = wanted * price;
  return { entrant: { ...named, tickets: named.tickets + wanted, paid: named.paid + cost }, cost, more: wanted };
}

/** The round with somebody in it, or out of it (`entrant` null); the link it makes in the chain, and the row it is kept as. */
export function withEntrant(
  round: Round,
  durable: RaffleDurable,
  id: string,
  entrant: Entrant | null,
  atMs: number,
): Readonly<{ round: Round; entrants: RaffleDurable["entrants"]; changes: RaffleDurable["changes"]; kept: Kept }> {
  const key = keyOf(id);
  const before = durable.entrants.get(key);
  const link = { seq: durable.changes.size + 1, atMs, id, weight: entrant?.tickets ?? 0 };
  const change: Change = round.settings.by === "number" && entrant !== null ? { ...link, guess: entrant.guess ?? 0 } : link;
  const placed =
    entrant === null ? null : { ...entrant, at: entrant.guess === before?.guess && before !== undefined ? before.at : change.seq };
  const body: EntryRow = { change, entrant: placed };
  return {
    round: {
      ...round,
      chain: nextLink(round.chain, change),
      people: round.people + (before === undefined ? (entrant === null ? 0 : 1) : entrant === null ? -1 : 0),
      tickets: round.tickets + (entrant?.tickets ?? 0) - (before?.tickets ?? 0),
      held: round.held + (entrant?.paid ?? 0) - (before?.paid ?? 0),
    },
    entrants: placed === null ? durable.entrants.delete(key) : durable.entrants.set(key, placed),
    changes: durable.changes.push(change),
    kept: { kind: "entry", viewer: { id, name: entrant?.name ?? before?.name ?? id }, fromMs: atMs, toMs: atMs, body },
  };
}

const head = (round: Round, key: string, atMs: number) => ({
  key: `${round.id}.${key}`,
  atMs,
  about: round.settings.title,
  by: "",
});
/** Points are held from the moment somebody is in until the round is closed. */
export const paidIn = (round: Round, viewer: string, amount: number, seq: number, atMs: number): Entry =>
  staked(head(round, `in.${seq}`, atMs), viewer, amount);
/** What was held of somebody goes back: once, whatever comes twice. */
export const returned = (round: Round, viewer: string, amount: number, atMs: number, why: string): Entry =>
  refunded(head(round, `${why}.${viewer}`, atMs), viewer, amount, "pool");

/** What was announced of a round before it held the rules of its draw. */
export const announcedBefore = (s: RaffleSettings) => {
  const { title, subtitle, by, word, price, most, roles, times, restShows, restDays, chattedMin, number, tries } = s;
  const { locks, openMs, shake, shakers, shakeMs, winners, claimMs } = s;
  const who = { title, subtitle, by, word, price, most, roles, times, restShows, restDays, chattedMin, number, tries };
  return { ...who, locks, openMs, shake, shakers, shakeMs, winners, claimMs };
};
/** What is announced of a round: all but what is nobody's chance. */
export const settingsAnnounced = (s: RaffleSettings): ReturnType<typeof announcedBefore> & Readonly<{ chance: ChanceRules }> => ({
  ...announcedBefore(s),
  chance: {
    winners: s.winners,
    staysIn: false,
    shake: s.shake ? { who: "anyone", most: s.shakers, withinMs: s.shakeMs } : null,
    number: s.by === "number" ? { from: s.number.from, to: s.number.to } : null,
    lockAfterMs: s.locks === "time" ? s.openMs : null,
  },
});
