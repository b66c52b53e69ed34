import type { CommandBook } from "../../core/commands/settings";
import { fold } from "../../core/kernel/fold";
import type { EmoteIndex } from "../../core/chat/emotes";
import { noteInWords } from "../../core/games/note-words";
import type { AnyRules } from "../../core/games/registry";
import type { GameId } from "../../core/kernel/ids";
import type { Order } from "../../core/kernel/order";
import { refused, type Result } from "../../core/kernel/refusal";
import type { Note, StepContext } from "../../core/kernel/step";
import { readStored, versionOf } from "../../core/kernel/stored";
import type { Moment } from "../../core/moments/moment";
import type { ShowDurable } from "../../core/show/settings";
import type { HappenedSignal, HandSignal, Signal, Viewer } from "../../core/signals/signal";
import type { Booking } from "../../core/rewards/desk";
import type { Booked, KeptRow, LogRow } from "../ports/engine-store";

/** A game or a book as it runs: its settings, and where it stands. */
export type Running = {
  id: GameId;
  kind: string;
  name: string;
  rules: AnyRules;
  version: number;
  settings: unknown;
  durable: unknown;
  dust: unknown;
};
export type PartNote = Readonly<{ game: string; note: Note }>;
/** All that comes of one signal, orders included. Nothing of it is told before it is committed. */
export type Turn = {
  rows: LogRow[];
  changed: Set<Running>;
  /** Where each of those stood after it: later signals may have moved on by the time it is committed. */
  after: ReadonlyMap<GameId, Readonly<{ durable: unknown; version: number }>>;
  kept: KeptRow[];
  booked: Booked[];
  effects: { game: GameId; effects: readonly unknown[] }[];
  notes: PartNote[];
  says: string[];
  shows: { lane: string; moment: Moment }[];
  /** The last word on hush, when somebody said one. */
  hush: boolean | null;
};
export type TurnKit = Readonly<{
  parts: readonly Running[];
  emotes: EmoteIndex;
  ctx: Omit<StepContext, "emotes">;
  nextSeq: () => number;
  /** Whether the signal's id is one that others made, and may send again. */
  idFromOutside: boolean;
  /** Counts a booking at once, so that what is stepped next sees it. */
  apply: (seq: number, booking: Booking) => Booked;
}>;

/** Rules may answer what rules did; so deep, and so often, and no further. */
const deepest = 20;
const mostDerived = 400;

const personOf = (signal: Signal): Viewer | null => ("viewer" in signal ? signal.viewer : null);
const viewerOf = (signal: Signal): string | null => personOf(signal)?.id ?? null;

/** What of a signal is kept in the log: all but its place, which has columns of its own. */
function bodyOf(signal: Signal, notes: readonly PartNote[]): unknown {
  const { seq: _seq, atMs: _at, id: _id, kind: _kind, ...rest } = signal;
  return notes.length === 0 ? rest : { ...rest, notes };
}

/** The show part has accepted its own state by its schema. */
export const showOf = (parts: readonly Running[]): { part: Running; durable: ShowDurable } | null => {
  const part = parts.find((p) => p.kind === "show");
  return part === undefined ? null : { part, durable: part.durable as ShowDurable };
};

const answering: ReadonlySet<string> = new Set(["commands", "rewards", "points", "rules", "show", "cues"]);
type Next = { signal: Signal; source: string; to: readonly Running[]; depth: number; answer: boolean };

/** To whom a signal goes: a muted viewer's to nobody; the platform's word on the show to the show alone. */
function addressed(signal: Signal, kit: TurnKit): { to: readonly Running[]; note: PartNote | null } {
  const show = showOf(kit.parts);
  if (show === null) return { to: kit.parts, note: null };
  const viewer = viewerOf(signal);
  if (viewer !== null && show.durable.muted.some((m) => m.id === viewer))
    return { to: [], note: { game: show.part.id, note: { refusal: { code: "viewer/muted", facts: {} }, count: 1 } } };
  // Other programs in chat are answered by nothing, so that no two of them talk to each other.
  if (signal.kind === "message") {
    const bots = (kit.parts.find((p) => p.kind === "commands")?.settings as CommandBook | undefined)?.bots ?? [];
    const name = fold(signal.viewer.name);
    if (bots.some((b) => fold(b) === name)) return { to: kit.parts.filter((p) => !answering.has(p.kind)), note: null };
  }
  return { to: signal.kind === "live" || signal.kind === "ended" ? [show.part] : kit.parts, note: null };
}

/**
 * Steps one signal through the parts and carries out what they order, breadth first, in this one turn: a
 * rule's blow lands before the next signal is looked at.
 */
export function takeTurn(first: Signal, source: string, to: Running | null, kit: TurnKit): Turn {
  const turn: Turn = {
    rows: [],
    changed: new Set(),
    after: new Map(),
    kept: [],
    booked: [],
    effects: [],
    notes: [],
    says: [],
    shows: [],
    hush: null,
  };
  const ctx: StepContext = { ...kit.ctx, emotes: kit.emotes };
  const address = to === null ? addressed(first, kit) : { to: [to], note: null };
  const queue: Next[] = [{ signal: first, source, to: address.to, depth: 0, answer: false }];
  // A rehearsal leaves nothing behind and says nothing in chat.
  const rehearsing = showOf(kit.parts)?.durable.state === "rehearsing";
  let derived = 0;
  /** What comes after everything the signal led to so far: putting games back where they stood, and what follows that. */
  const later: (() => void)[] = [];

  const follow = (order: Order, part: Running, at: Next, own: PartNote[]): void => {
    if (order.do === "say") return void turn.says.push(order.text);
    if (order.do === "show") return void turn.shows.push({ lane: order.lane, moment: order.moment });
    if (order.do === "answer") return void turn.says.push(`@${order.to} ${noteInWords(part.kind, order.note)}`);
    if (order.do === "hush") {
      turn.hush = order.on;
      return void own.push({ game: part.id, note: { did: order.on ? "show/hushed" : "show/released", count: 1 } });
    }
    if (order.do === "aside" && order.what === "keep") return keepAside(part, kit, turn);
    if (order.do === "aside") return void later.push(() => bringBack(part, kit, turn));
    if (part.kind === "show" && later.length > 0) {
      const then = order;
      return void later.push(() => derive(then, part, at, own));
    }
    derive(order, part, at, own);
  };
  const derive = (order: Order, part: Running, at: Next, own: PartNote[]): void => {
    if (at.depth >= deepest || derived >= mostDerived)
      return void own.push({ game: part.id, note: { refusal: { code: "order/too-deep", facts: { deepest } }, count: 1 } });
    derived += 1;
    const seq = kit.nextSeq();
    const stamp = { seq, atMs: at.signal.atMs, id: `d${seq}` };
    const next = (signal: Signal, from: string, target: readonly Running[], answer = false): void =>
      void queue.push({ signal, source: from, to: target, depth: at.depth + 1, answer });
    switch (order.do) {
      case "hand": {
        // A command names the show by its kind: there is just one.
        const target = kit.parts.filter((p) => p.id === order.gameId || (order.gameId === "show" && p.kind === "show"));
        if (target.length === 0) {
          own.push({ game: part.id, note: { refusal: { code: "game/unknown", facts: {} }, count: 1 } });
          if (order.answer === true) turn.says.push("This game is not there any more.");
        }
        const { viewer, hand, by = part.name, answer = false } = order;
        const signal: HandSignal = { kind: "hand", ...stamp, gameId: target[0]?.id ?? order.gameId, by, viewer, hand };
        // What a moderator asks for in chat, and the rundown starts, is an operator's hand like any other.
        return next(signal, part.kind === "show" ? "operator" : part.kind, target, answer);
      }
      case "cue": {
        const target = kit.parts.filter((p) => p.kind === "cues");
        return next(
          { kind: "cue", ...stamp, cueId: order.cueId, by: order.by, via: order.via ?? "rundown", viewer: null },
          "operator",
          target,
        );
      }
      case "redeemed": {
        const { viewer, saleId, rewardId, reward, price, text } = order;
        return next(
          { kind: "redemption", ...stamp, viewer, saleId, rewardId, reward, price, text },
          "rewards",
          kit.parts.filter((p) => p.kind === "rewards" || p.kind === "rules"),
        );
      }
      case "announce":
        return next(
          { kind: order.what, ...stamp, viewer: null },
          "show",
          kit.parts.filter((p) => p.kind !== "show"),
        );
      case "tell": {
        const { what, viewer, amount, text } = order;
        const signal: HappenedSignal = { kind: "happened", ...stamp, gameId: part.id, what, viewer, amount, text };
        return next(
          signal,
          "game",
          kit.parts.filter((p) => p.kind === "rules"),
        );
      }
      default:
        return;
    }
  };

  for (;;) {
    const at = queue.shift();
    if (at === undefined) {
      const then = later.shift();
      if (then === undefined) break;
      then();
      continue;
    }
    const { signal } = at;
    const own: PartNote[] = address.note !== null && signal === first ? [address.note] : [];
    for (const part of at.to) {
      const outcome = part.rules.step({ settings: part.settings, durable: part.durable, dust: part.dust }, signal, ctx);
      part.dust = outcome.dust;
      if (outcome.durable !== part.durable) {
        part.durable = outcome.durable;
        turn.changed.add(part);
      }
      for (const note of outcome.notes) {
        own.push({ game: part.id, note });
        if (at.answer) turn.says.push(sentence(noteInWords(part.kind, note)));
      }
      if (outcome.effects.length > 0) turn.effects.push({ game: part.id, effects: outcome.effects });
      for (const kept of outcome.kept ?? [])
        if (!rehearsing || kept.kind === "show") turn.kept.push({ ...kept, gameId: part.id, seq: signal.seq });
      // A rehearsal touches no points.
      if (outcome.booking !== undefined && !rehearsing && !isEmpty(outcome.booking))
        turn.booked.push(kit.apply(signal.seq, outcome.booking));
      for (const order of outcome.orders ?? []) follow(order, part, at, own);
    }
    turn.notes.push(...own);
    // Small happenings nobody answered are in the hit's own row already.
    // Nor is a sale told twice: it stands in the row of who asked for it, and among the sales.
    if (signal.kind === "here" || (signal.kind === "redemption" && own.length === 0)) continue;
    if (signal.kind !== "happened" || own.length > 0 || signal.what.endsWith("/fell"))
      turn.rows.push({
        seq: signal.seq,
        atMs: signal.atMs,
        kind: signal.kind,
        source: at.source,
        id: signal === first && kit.idFromOutside ? signal.id : null,
        viewer: personOf(signal),
        body: signal.kind === "message" ? { text: signal.text } : bodyOf(signal, own),
      });
  }
  if (rehearsing) turn.says.length = 0;
  turn.after = new Map([...turn.changed].map((p) => [p.id, { durable: p.durable, version: versionOf(p.rules.stateSteps) }]));
  return turn;
}

const isEmpty = (b: Booking): boolean =>
  b.entries.length === 0 && b.sales.length === 0 && b.prices.length === 0 && (b.due ?? []).length === 0;
const sentence = (words: string): string => (words === "" ? "" : `${words[0]?.toUpperCase() ?? ""}${words.slice(1)}.`);

/** Before a rehearsal everything but the show is laid aside, into the show's own state, so that a restart keeps it too. */
function keepAside(show: Running, kit: TurnKit, turn: Turn): void {
  // The show part's own schema has accepted it.
  const durable = show.durable as ShowDurable;
  show.durable = { ...durable, aside: Object.fromEntries(kit.parts.filter((p) => p !== show).map((p) => [p.id, p.durable])) };
  turn.changed.add(show);
}

/** It was laid aside by this version, or by one before it. */
function asideOf(part: Running, aside: unknown): Result<unknown> {
  const { durable, stateSteps } = part.rules;
  let read: Result<unknown> = refused("stored/unreadable");
  for (let version = versionOf(stateSteps); version >= 1 && !read.ok; version -= 1)
    read = readStored<unknown>(durable, stateSteps, version, aside);
  return read;
}

function bringBack(show: Running, kit: TurnKit, turn: Turn): void {
  const durable = show.durable as ShowDurable;
  for (const part of kit.parts) {
    const aside = Object.hasOwn(durable.aside ?? {}, part.id) ? durable.aside?.[part.id] : undefined;
    const kept = part === show || aside === undefined ? null : asideOf(part, aside);
    if (kept?.ok !== true) continue;
    part.durable = kept.value;
    turn.changed.add(part);
  }
  show.durable = { ...durable, aside: null };
  turn.changed.add(show);
}
