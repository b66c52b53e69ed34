import { recorded } from "../../chance/round";
import { fold } from "../../kernel/fold";
import { viewerId } from "../../kernel/text";
import type { StepContext } from "../../module/module";
import type { CommandSignal } from "../../signals/signal";
import type { RaffleCommand } from "./actions";
import { winnersLeft } from "./asked-chance";
import { enter } from "./enter";
import { added, type Named, removed } from "./entrants";
import { type At, no, type Outcome, still } from "./outcome";
import { closed, locked, opened } from "./round";
import { type Entrant, keyOf, type RaffleWinner, type Round } from "./settings";
import { drawn, winKept } from "./winning";
import { rulesTold } from "./words";

/** So long a second word counts for the first, where a draw is to end with nobody drawn. */
const sureMs = 20_000;
const minute = 60_000;
const mostBarred = 500;

export function onCommand(at: At, signal: CommandSignal, ctx: StepContext): Outcome {
  const { durable, settings } = at;
  const { round } = durable;
  const { atMs, gameId, viewer } = signal;
  // The engine has read it by the schemas of the actions.
  const command = signal.command as RaffleCommand;
  switch (command.do) {
    case "switch":
      if (durable.on === command.on) return no(at, command.on ? "raffle/already-on" : "raffle/already-off");
      return {
        ...still(at, [{ did: command.on ? "raffle/switched-on" : "raffle/switched-off", count: 1 }]),
        durable: { ...durable, on: command.on },
      };
    case "open":
      if (!durable.on) return no(at, "raffle/off");
      return round === null ? opened(at, gameId, signal, ctx) : no(at, "raffle/open-already");
    case "lock":
      return round?.phase === "open" && !round.returning
        ? locked(at, round, "operator", atMs)
        : no(at, round === null ? "raffle/none" : "raffle/locked-already");
    case "draw":
      return round === null ? no(at, "raffle/none") : drawn(at, round, atMs, ctx);
    case "draw-all":
      return drawAll(at, atMs, ctx);
    case "another": {
      if (round?.phase !== "locked") return no(at, round === null ? "raffle/none" : "raffle/not-locked");
      if (winnersLeft(round) > 0) return drawn(at, round, atMs, ctx);
      return drawn(at, { ...recorded(round, { kind: "more", atMs }), more: round.more + 1 }, atMs, ctx);
    }
    case "close":
      if (round === null) return no(at, "raffle/none");
      if (round.phase === "locked" && round.people > 0 && round.winners.length === 0 && atMs - at.transient.askedMs > sureMs)
        return { ...no(at, "raffle/undrawn"), transient: { ...at.transient, askedMs: atMs } };
      return closed(at, round, atMs, ctx);
    case "cancel":
      if (round === null || round.phase === "cancelled") return no(at, "raffle/none");
      // Who has seen a winner may not try again for another one.
      if (round.winners.length > 0) return no(at, "raffle/drawn-already");
      return {
        ...still(at, [{ did: "raffle/cancelled", count: round.people }]),
        durable: {
          ...durable,
          round: {
            ...round,
            phase: "cancelled",
            returning: true,
            gaveUp: { phase: round.phase, people: round.people, tickets: round.tickets, atMs, role: signal.house?.role ?? "" },
          },
          givenUp: { count: round.tries, atMs },
        },
        orders: [{ do: "emit", what: "raffle/cancelled", viewer: null, amount: round.people, text: round.settings.title }],
      };
    case "clear":
      if (round?.phase !== "open") return no(at, round === null ? "raffle/none" : "raffle/locked-already");
      if (round.people === 0) return no(at, "raffle/nobody");
      return {
        ...still(at, [{ did: "raffle/cleared", count: round.people }]),
        durable: { ...durable, round: { ...round, returning: true } },
      };
    case "enter":
    case "join": {
      if (viewer === null) return no(at, "raffle/no-viewer");
      const free = command.do === "enter";
      const text = (round?.settings ?? settings).by === "number" ? command.guess : free ? String(command.tickets) : command.guess;
      const chattedMs = at.transient.chatted.get(keyOf(viewer.id))?.atMs ?? null;
      return enter(at, viewer, text, { atMs, chattedMs: free ? atMs : chattedMs, free }, ctx);
    }
    case "remove":
      return round?.phase === "open"
        ? removed(at, round, command.viewer ?? inAs(at, command.name ?? "")?.id ?? command.name ?? "", atMs)
        : no(at, round === null ? "raffle/none" : "raffle/locked-already");
    case "bar":
      return barred(at, command, atMs, ctx);
    case "add":
      return addList(at, command.viewers, atMs, ctx);
    case "add-present": {
      const here: Named[] = [];
      for (const { id, name, roles, atMs: wroteMs } of at.transient.chatted.values())
        if (atMs - wroteMs <= command.minutes * minute) here.push({ id, name, roles, tickets: command.tickets });
      return here.length === 0 ? no(at, "raffle/nobody-there", { minutes: command.minutes }) : add(at, here, atMs);
    }
    case "add-top": {
      const top = ctx.ledgerView.top(command.count).map(({ id, name }) => ({ id, name, tickets: command.tickets }));
      return top.length === 0 ? no(at, "raffle/nobody-on-top", { points: ctx.pointsName }) : add(at, named(top, ctx), atMs);
    }
    case "claimed":
    case "pass":
      return decided(at, command.index, command.do, atMs, ctx);
    case "prize":
      if (!durable.owed.some((o) => o.id === command.id)) return no(at, "raffle/no-prize");
      return {
        ...still(at, [
          {
            did: "raffle/prize",
            count: 1,
            subject: durable.owed.find((o) => o.id === command.id)?.prize ?? "",
            facts: { state: command.state },
          },
        ]),
        durable: { ...durable, owed: durable.owed.map((o) => (o.id === command.id ? { ...o, state: command.state } : o)) },
      };
    case "tell-rules":
      return { ...still(at, [{ did: "raffle/rules-told", count: 1 }]), orders: [{ do: "say", text: rulesTold(settings, ctx.pointsName) }] };
  }
}

/** Who is in under this name, however it is written. */
function inAs(at: At, name: string): Entrant | null {
  const wanted = fold(name);
  for (const e of at.durable.entrants.values()) if (fold(e.name) === wanted) return e;
  return null;
}
type Bar = Readonly<{ viewer?: string | undefined; name: string; on: boolean }>;
/** Barred until somebody lets them in again; who is in goes out with their points. */
function barred(at: At, { viewer, name, on }: Bar, atMs: number, ctx: StepContext): Outcome {
  const { durable } = at;
  const { round } = durable;
  if (viewer === undefined && ctx.ledgerView.areSeveral(name)) return no(at, "viewer/several", { name });
  const id = viewer ?? inAs(at, name)?.id ?? ctx.ledgerView.named(name)?.id ?? viewerId(name);
  const others = durable.barred.filter((b) => b.id !== id);
  if (!on) return { ...still(at, [{ did: "raffle/unbarred", count: 1, subject: name }]), durable: { ...durable, barred: others } };
  if (others.length >= mostBarred) return no(at, "raffle/too-many-barred");
  const isIn = round?.phase === "open" && durable.entrants.has(keyOf(id));
  const out = isIn ? removed(at, round, id, atMs) : still(at);
  const note = { did: "raffle/was-barred", count: 1, subject: name };
  return { ...out, notes: [note, ...out.notes], durable: { ...out.durable, barred: [...others, { id, name }] } };
}

const add = (at: At, viewers: readonly Named[], atMs: number): Outcome => {
  const { round } = at.durable;
  return round?.phase === "open" && !round.returning ? added(at, round, viewers, atMs) : no(at, "raffle/not-open");
};
/** A list is taken as a whole: where one name of it may mean several people, one is asked which before anybody is in. */
function addList(at: At, viewers: Parameters<typeof named>[0], atMs: number, ctx: StepContext): Outcome {
  const unclear = viewers.find((v) => v.id === undefined && ctx.ledgerView.areSeveral(v.name));
  return unclear === undefined ? add(at, named(viewers, ctx), atMs) : no(at, "viewer/several", { name: unclear.name });
}
/** Whoever has an account is known by it; of others the name is all there is, as chat would write it. */
const named = (list: readonly Readonly<{ id?: string | undefined; name: string; tickets: number }>[], ctx: StepContext): readonly Named[] =>
  list.map(({ id, name, tickets }) => {
    const known = id === undefined ? ctx.ledgerView.named(name) : null;
    return { id: id ?? known?.id ?? viewerId(name), name: known?.name ?? name, roles: [], tickets };
  });

/** All that are still to be drawn, one after another. */
function drawAll(at: At, atMs: number, ctx: StepContext): Outcome {
  const { round } = at.durable;
  if (round === null) return no(at, "raffle/none");
  const all: Outcome[] = [];
  let now = at;
  for (let left = Math.max(1, winnersLeft(round)); left > 0 && now.durable.round !== null; left -= 1) {
    const one = drawn(now, now.durable.round, atMs, ctx);
    if (one.durable === now.durable && all.length > 0) break;
    all.push(one);
    now = { ...now, durable: one.durable };
  }
  return {
    ...still(now),
    notes: all.flatMap((o) => o.notes),
    orders: all.flatMap((o) => o.orders ?? []),
    kept: all.flatMap((o) => o.kept ?? []),
  };
}

/** An operator says that a winner has answered, or is passed over: then the next is drawn. */
function decided(at: At, index: number, how: "claimed" | "pass", atMs: number, ctx: StepContext): Outcome {
  const { round } = at.durable;
  const winner = round?.winners.find((w) => w.index === index);
  if (round === null || winner === undefined) return no(at, "raffle/none");
  if (winner.state === "passed" || (how === "claimed" && winner.state === "claimed")) return no(at, "raffle/decided-already");
  const state = how === "claimed" ? ("claimed" as const) : ("passed" as const);
  const winners = round.winners.map((w): RaffleWinner => (w.index === index ? { ...w, state } : w));
  const after: Round = { ...(how === "pass" ? recorded(round, { kind: "pass", atMs, index }) : round), winners };
  const next: At = { ...at, durable: { ...at.durable, round: after } };
  // A win that was kept already is taken from them again.
  const kept = how === "claimed" || winner.state !== "waits" ? winKept(round, winner, how === "claimed", atMs) : [];
  const note = {
    did: how === "claimed" ? "raffle/claimed" : "raffle/passed-over",
    count: 1,
    subject: winner.name,
    facts: { prize: winner.prize },
  };
  if (how === "claimed")
    return {
      ...still(next, [note]),
      kept,
      orders: [
        {
          do: "emit",
          what: "raffle/claimed",
          viewer: { id: winner.id, name: winner.name, roles: [] },
          amount: index + 1,
          text: winner.prize,
        },
      ],
    };
  const more = drawn(next, after, atMs, ctx);
  return { ...more, notes: [note, ...more.notes], kept: [...kept, ...(more.kept ?? [])] };
}
