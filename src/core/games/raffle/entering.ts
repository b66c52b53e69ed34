import { nextLink } from "../../chance/scheme";
import { refusal, type Refusal } from "../../kernel/refusal";
import { fold } from "../../kernel/fold";
import type { Kept, StepContext } from "../../module/module";
import { asked, type Entry, refunded } from "../../points/ledger";
import { mayAs, type Viewer } from "../../signals/signal";
import { type Change, type RaffleDurable, type RaffleSettings, type Entrant, keyOf, mostPeople, mostTickets, type Round } from "./settings";

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
  ctx: StepContext;
}>;
/** The first check that fails answers: role → barred → won lately → wrote lately → room → what they ask for → points. */
export function entry({
  round,
  durable,
  viewer,
  ask,
  atMs,
  chattedMs,
  ctx,
}: Entering): Readonly<{ refusal: Refusal } | { entrant: Entrant; cost: number; more: number }> {
  const s = round.settings;
  const before = durable.entrants.get(keyOf(viewer.id));
  const no = (code: string, facts: Refusal["facts"] = {}) => ({ refusal: refusal(code, facts) });
  if (!mayAs(viewer, s.roles)) return no("raffle/role");
  if (s.barred.includes(viewer.id)) return no("raffle/barred");
  const won = durable.won.find(([id]) => id === viewer.id)?.[1];
  if (s.restShows > 0 && won !== undefined && durable.shows - won < s.restShows)
    return no("raffle/won-lately", { shows: s.restShows - (durable.shows - won) });
  if (s.chattedMin > 0 && (chattedMs === null || atMs - chattedMs > s.chattedMin * 60_000))
    return no("raffle/not-chatted", { minutes: s.chattedMin });
  if (before === undefined && durable.entrants.size >= mostPeople) return no("raffle/no-room");
  const base: Entrant = before ?? { id: viewer.id, name: viewer.name, roles: [], tickets: 0, paid: 0, guess: null, at: 0, tries: 0 };
  const named: Entrant = { ...base, name: viewer.name, roles: [...viewer.roles] };
  const balance = ctx.ledgerView.balance(viewer.id);
  if (s.by === "number") {
    const { from, to } = s.number;
    if (ask.guess === null) return no(ask.text === "" ? "raffle/say-number" : "raffle/no-number", { from, to });
    if (ask.guess < from || ask.guess > to) return no("raffle/number-range", { from, to });
    if (named.tries >= s.tries) return no("raffle/no-tries", { tries: s.tries, guess: named.guess ?? 0 });
    if (balance < s.price) return no("raffle/too-poor", { has: balance, price: s.price, name: ctx.pointsName });
    return {
      entrant: { ...named, tickets: 1, guess: ask.guess, tries: named.tries + 1, paid: named.paid + s.price },
      cost: s.price,
      more: 0,
    };
  }
  const room = s.most - named.tickets;
  if (room <= 0) return no("raffle/full", { most: s.most });
  if (ask.tickets !== "all" && ask.tickets !== null && (ask.tickets < 1 || ask.tickets > mostTickets))
    return no("raffle/how-many", { most: s.most });
  const affordable = s.price === 0 ? room : Math.floor(balance / s.price);
  const wanted = ask.tickets === "all" ? Math.max(1, Math.min(room, affordable)) : Math.min(room, ask.tickets ?? 1);
  if (affordable < wanted) return no("raffle/too-poor", { has: balance, price: s.price * wanted, name: ctx.pointsName });
  return {
    entrant: { ...named, tickets: named.tickets + wanted, paid: named.paid + wanted * s.price },
    cost: wanted * s.price,
    more: wanted,
  };
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
  const change: Change = { seq: durable.changes.size + 1, atMs, id, weight: entrant?.tickets ?? 0 };
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
  about: `tickets: ${round.settings.title}`,
  by: "",
});
/** Points are held from the moment somebody is in until the round is closed. */
export const held = (round: Round, viewer: string, amount: number, seq: number, atMs: number): Entry =>
  asked(head(round, `in.${seq}`, atMs), viewer, amount);
/** What was held of somebody goes back: once, whatever comes twice. */
export const returned = (round: Round, viewer: string, amount: number, atMs: number, why: string): Entry =>
  refunded(head(round, `${why}.${viewer}`, atMs), viewer, amount, "held");

/** What is announced of a round: all but what is nobody's chance. */
export const settingsAnnounced = ({ schema: _, barred: __, prizes: ___, answers: ____, ...announced }: RaffleSettings) => announced;
