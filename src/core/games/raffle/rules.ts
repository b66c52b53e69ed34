import { Map as Entries } from "immutable";
import { fold } from "../../kernel/fold";
import type { StepContext } from "../../module/module";
import type { CommandSignal, MessageSignal, Signal } from "../../signals/signal";
import type { RaffleCommand } from "./actions";
import { askOf, entry } from "./entering";
import { added, entered, giveBack, removed } from "./entrants";
import { type At, type RaffleTransient, no, type Outcome, still } from "./outcome";
import { closed, locked, opened, shaken, stopShaking } from "./round";
import { type RaffleDurable, type RaffleSettings, type RaffleWinner, keyOf } from "./settings";
import { claim, drawn } from "./winning";
import { rulesTold } from "./words";

/** A message that came just too late is told so; later ones mean something else. */
const lateMs = 60_000;
const put = (at: At, durable: RaffleDurable): At => ({ ...at, durable });
export const freshTransient = (): RaffleTransient => ({ chatted: Entries() });

/** One signal through the rules of section 7. */
export function raffleStep(given: At, signal: Signal, ctx: StepContext): Outcome {
  switch (signal.kind) {
    case "message":
      return onMessage(given, signal, ctx);
    case "command":
      return onCommand(given, signal, ctx);
    case "timer":
      return onTimer(given, signal, ctx);
    case "live":
      return { ...still(given), durable: { ...given.durable, shows: given.durable.shows + 1 } };
    default:
      return still(given);
  }
}

function onMessage(given: At, signal: MessageSignal, ctx: StepContext): Outcome {
  const { viewer, atMs, text } = signal;
  const chattedMs = given.transient.chatted.get(keyOf(viewer.id)) ?? null;
  const at: At = { ...given, transient: { chatted: given.transient.chatted.set(keyOf(viewer.id), atMs) } };
  const { durable, settings } = at;
  const { round } = durable;
  const claimed = round === null ? null : claim(at, round, viewer, atMs);
  if (claimed !== null) return claimed;
  if (round?.phase === "shaking") return shaken(at, round, signal);
  const word = (round?.settings ?? settings).word;
  const [first = "", ...rest] = text.trim().split(/\s+/);
  if (fold(first) !== fold(word)) return still(at);
  if (!durable.on) return still(at);
  const answer = (outcome: Outcome, refusedIt: boolean): Outcome => {
    const says = round?.settings.answers ?? settings.answers;
    const [note] = outcome.notes;
    if (note === undefined || says === "nothing" || (says === "refusals" && !refusedIt)) return outcome;
    return { ...outcome, orders: [...(outcome.orders ?? []), { do: "answer", to: viewer.name, note }] };
  };
  if (round === null || round.phase !== "open") {
    const lateS = Math.ceil((atMs - (round?.lockedMs ?? durable.closedMs)) / 1000);
    const late = (round?.lockedMs ?? durable.closedMs) > 0 && lateS * 1000 <= lateMs;
    return answer(no(at, late ? "raffle/late" : "raffle/not-open", late ? { lateS } : {}), true);
  }
  if (round.returning) return answer(no(at, "raffle/clearing"), true);
  const came = entry({ round, durable, viewer, ask: askOf(rest.join(" ")), atMs, chattedMs, ctx });
  if ("refusal" in came) return answer(still(at, [{ refusal: came.refusal, count: 1 }]), true);
  return answer(entered(at, round, viewer, came, atMs), false);
}

function onCommand(at: At, signal: CommandSignal, ctx: StepContext): Outcome {
  const { durable, settings } = at;
  const { round } = durable;
  const { atMs, gameId } = signal;
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
    case "close":
      return round === null ? no(at, "raffle/none") : closed(at, round, atMs, ctx);
    case "cancel":
      if (round === null || round.phase === "cancelled") return no(at, "raffle/none");
      return {
        ...still(at, [{ did: "raffle/cancelled", count: round.people }]),
        durable: { ...durable, round: { ...round, phase: "cancelled", returning: true } },
        orders: [{ do: "emit", what: "raffle/cancelled", viewer: null, amount: round.people, text: round.settings.title }],
      };
    case "clear":
      if (round?.phase !== "open") return no(at, "raffle/locked-already");
      if (round.people === 0) return no(at, "raffle/nobody");
      return {
        ...still(at, [{ did: "raffle/cleared", count: round.people }]),
        durable: { ...durable, round: { ...round, returning: true } },
      };
    case "remove":
      return round?.phase === "open" ? removed(at, round, command.viewer, atMs) : no(at, "raffle/locked-already");
    case "add":
      return round?.phase === "open" && !round.returning ? added(at, round, command.viewers, atMs) : no(at, "raffle/not-open");
    case "tell-rules":
      return { ...still(at, [{ did: "raffle/rules-told", count: 1 }]), orders: [{ do: "say", text: rulesTold(settings, ctx.pointsName) }] };
  }
}

function onTimer(at: At, signal: Signal, ctx: StepContext): Outcome {
  const { durable } = at;
  const { round } = durable;
  const { atMs } = signal;
  if (round === null) return still(at);
  if (round.returning) return giveBack(at, round, atMs, ctx);
  if (round.phase === "open" && round.locksMs !== null && round.locksMs <= atMs) return locked(at, round, "time", atMs);
  if (round.phase === "shaking" && round.shakenMs <= atMs)
    return stopShaking(at, round, still(at, [{ did: "raffle/shaken", count: round.shake.length }]));
  const late = round.winners.filter((w) => w.state === "waits" && w.untilMs < atMs);
  if (late.length === 0) return still(at);
  const winners = round.winners.map((w): RaffleWinner => (late.includes(w) ? { ...w, state: "passed" } : w));
  const passed: Outcome = {
    ...still(
      at,
      late.map((w) => ({ did: "raffle/passed", count: 1, subject: w.name })),
    ),
    durable: { ...durable, round: { ...round, winners } },
  };
  // The next is drawn in the place of each who did not answer.
  let next = put(at, passed.durable);
  const all: Outcome[] = [passed];
  for (const _ of late) {
    if (next.durable.round === null) break;
    const more = drawn(next, next.durable.round, atMs, ctx);
    all.push(more);
    next = put(next, more.durable);
  }
  return {
    ...still(next),
    notes: all.flatMap((o) => o.notes),
    orders: all.flatMap((o) => o.orders ?? []),
    kept: all.flatMap((o) => o.kept ?? []),
  };
}

/** When it wants to be woken: to lock, to stop shaking, to pass over who did not answer, to give back the next part. */
export function raffleDue(_: RaffleSettings, { round }: RaffleDurable): number | null {
  if (round === null) return null;
  if (round.returning) return 0;
  if (round.phase === "open") return round.locksMs;
  if (round.phase === "shaking") return round.shakenMs;
  const waits = round.winners.filter((w) => w.state === "waits").map((w) => w.untilMs + 1);
  return waits.length === 0 ? null : Math.min(...waits);
}
