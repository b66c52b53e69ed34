import { Map as Entries } from "immutable";
import { recorded } from "../../chance/round";
import { fold } from "../../kernel/fold";
import type { StepContext } from "../../module/module";
import type { MessageSignal, Signal } from "../../signals/signal";
import type { Viewer } from "../../signals/names";
import { askedChance } from "./asked-chance";
import { enter } from "./enter";
import { giveBack } from "./entrants";
import { onCommand } from "./on-command";
import { type At, type Outcome, type RaffleTransient, still } from "./outcome";
import { answered } from "./reply";
import { locked, shaken, stopShaking } from "./round";
import { keyOf, type RaffleDurable, type RaffleSettings, type RaffleWinner } from "./settings";
import { claim, drawn } from "./winning";

/** Of so many it is known when they wrote last; beyond that all begin anew, which costs some a word more. */
const mostSeen = 100_000;
const put = (at: At, durable: RaffleDurable): At => ({ ...at, durable });
export const freshTransient = (): RaffleTransient => ({ chatted: Entries(), askedMs: -Infinity });

/** One signal through the rules of section 7. */
export function raffleStep(given: At, signal: Signal, ctx: StepContext): Outcome {
  switch (signal.kind) {
    case "message":
      return onMessage(given, signal, ctx);
    case "here":
      return still(seen(given, signal.viewer, signal.atMs));
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

function seen(at: At, { id, name, roles }: Viewer, atMs: number): At {
  const chatted = at.transient.chatted.size >= mostSeen ? at.transient.chatted.clear() : at.transient.chatted;
  return { ...at, transient: { ...at.transient, chatted: chatted.set(keyOf(id), { id, name, roles, atMs }) } };
}

function onMessage(given: At, signal: MessageSignal, ctx: StepContext): Outcome {
  const { viewer, atMs, text } = signal;
  const chattedMs = given.transient.chatted.get(keyOf(viewer.id))?.atMs ?? null;
  const at = seen(given, viewer, atMs);
  const { durable, settings } = at;
  const { round } = durable;
  const claimed = round === null ? null : claim(at, round, viewer, atMs);
  if (claimed !== null) return claimed;
  const now = round?.settings ?? settings;
  const [first = "", ...rest] = text.trim().split(/\s+/);
  const word = fold(first);
  if (round?.phase === "shaking") {
    const shook = shaken(at, round, signal);
    // Who wanted in hears that it was too late, whether they shook the drum with it or not.
    if (word !== fold(now.word)) return shook;
    const late = answered(at, viewer.name, enter(at, viewer, "", { atMs, chattedMs, free: false }, ctx));
    return { ...shook, notes: [...shook.notes, ...late.notes], orders: [...(shook.orders ?? []), ...(late.orders ?? [])] };
  }
  if (!durable.on) return still(at);
  if (now.chanceWord !== "" && word === fold(now.chanceWord)) return answered(at, viewer.name, askedChance(at, viewer));
  if (word !== fold(now.word)) return still(at);
  return answered(at, viewer.name, enter(at, viewer, rest.join(" "), { atMs, chattedMs, free: false }, ctx));
}

function onTimer(at: At, signal: Signal, ctx: StepContext): Outcome {
  const { durable } = at;
  const { round } = durable;
  const { atMs } = signal;
  if (round === null) return still(at);
  if (round.returning) return giveBack(at, round, atMs, ctx);
  if (round.phase === "open" && round.locksMs !== null && round.locksMs <= atMs) return locked(at, round, "time", atMs);
  if (round.phase === "shaking" && round.shakenMs <= atMs)
    return stopShaking(at, round, still(at, [{ did: "raffle/shaken", count: round.shake.length }]), atMs);
  const late = round.winners.filter((w) => w.state === "waits" && w.untilMs < atMs);
  if (late.length === 0) return still(at);
  const winners = round.winners.map((w): RaffleWinner => (late.includes(w) ? { ...w, state: "passed" } : w));
  const passed: Outcome = {
    ...still(
      at,
      late.map((w) => ({ did: "raffle/passed", count: 1, subject: w.name })),
    ),
    durable: { ...durable, round: { ...late.reduce((r, { index }) => recorded(r, { kind: "pass", atMs, index }), round), winners } },
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
