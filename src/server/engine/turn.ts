import { isGame } from "../../core/games/fronts";
import { toldOf } from "../../core/games/words";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { readStored, versionOf } from "../../core/kernel/stored";
import { readCommand } from "../../core/module/command";
import type { Note, Provided, StepContext } from "../../core/module/module";
import type { Order } from "../../core/module/order";
import { noteInWords } from "../../core/notes";
import type { Booking } from "../../core/rewards/ledger-view";
import type { CommandSignal, HappenedSignal, Signal } from "../../core/signals/signal";
import type { Viewer } from "../../core/signals/names";
import { hears, type Running } from "./modules";
import { freshTurn, type ModuleNote, type Turn, type TurnKit } from "./turn-kit";

/** Rules may answer what rules did; so deep, and so often, and no further. */
const deepest = 20;
const mostDerived = 400;
const personOf = (signal: Signal): Viewer | null => ("viewer" in signal ? signal.viewer : null);

/** What of a signal is kept in the log: all but its place, which has columns of its own. */
function bodyOf(signal: Signal, notes: readonly ModuleNote[]): unknown {
  const { seq: _seq, atMs: _at, id: _id, kind: _kind, ...rest } = signal;
  return notes.length === 0 ? rest : { ...rest, notes };
}

type Next = { signal: Signal; source: string; to: readonly Running[]; depth: number; answer: boolean };
/** Whether a signal goes any further, and to whom. */
function addressed(signal: Signal, kit: TurnKit, named: Running | null): { to: readonly Running[]; note: ModuleNote | null } {
  let unanswered = false;
  for (const m of kit.modules) {
    const stop = m.rules.stops?.(m.settings, m.durable, signal) ?? null;
    if (stop === "unanswered") unanswered = true;
    else if (stop !== null) return { to: [], note: { game: m.id, note: { refusal: stop, count: 1 } } };
  }
  if (named !== null) return { to: [named], note: null };
  // Who decides upon something announces it to the others.
  const deciding = kit.modules.filter((m) => m.rules.decides?.includes(signal.kind) === true);
  const hearing = deciding.length > 0 ? deciding : kit.modules.filter((m) => hears(m, signal.kind));
  const taken = hearing.some((m) => m.rules.takesText?.(m.settings, m.durable, signal));
  const leaves = (m: Running): boolean => (unanswered && !isGame(m.kind)) || (taken && m.rules.leavesTaken?.(m.settings) === true);
  return { to: hearing.filter((m) => !leaves(m)), note: null };
}
const providedShow = (modules: readonly Running[]): Provided["show"] => {
  for (const m of modules) {
    const show = m.rules.provides?.(m.settings, m.durable).show;
    if (show !== undefined) return show;
  }
  return null;
};
/** What the engine tells a module when somebody is forgotten: it leaves no row, since that would name them again. */
export const forgetting = "forget-viewer";
/** Nobody outside can give a signal this id: theirs are longer. */
export const forgettingId = "forget";
const forgets = (signal: Signal): boolean => signal.kind === "command" && signal.id === forgettingId;
const forgotten = ({ rules, durable, transient }: Running, viewer: string) => ({
  durable: (rules.forget?.(durable, viewer) ?? durable) as unknown,
  transient,
  effects: [],
  notes: [],
  orders: undefined,
  kept: undefined,
  booking: undefined,
});
/** A command as its module may trust it; what it can't be read as is not kept. */
function readFor(module: Running, signal: Signal): Result<Signal> {
  if (signal.kind !== "command" || forgets(signal)) return ok(signal);
  const read = readCommand(module.rules, signal.command);
  return read.ok ? ok({ ...signal, command: read.value }) : read;
}

/**
 * Steps one signal through the modules and carries out what they order, breadth first, in this one turn: a
 * rule's blow lands before the next signal is looked at.
 */
export function takeTurn(first: Signal, source: string, to: Running | null, kit: TurnKit): Turn {
  const turn = freshTurn();
  const ctx: StepContext = { ...kit.ctx, emotes: kit.emotes };
  // What an operator tells one module nobody stops; what a viewer asks of it, whoever is muted does not.
  const address = to === null || source === "page" ? addressed(first, kit, to) : { to: [to], note: null };
  const queue: Next[] = [{ signal: first, source, to: address.to, depth: 0, answer: false }];
  // A rehearsal leaves nothing behind and says nothing in chat.
  const rehearsing = providedShow(kit.modules)?.state === "rehearsing";
  let derived = 0;
  /** What comes after everything the signal led to so far: putting games back where they stood, and what follows that. */
  const later: (() => void)[] = [];

  const follow = (order: Order, module: Running, at: Next, own: ModuleNote[]): void => {
    if (order.do === "say") return void turn.says.push(order.text);
    if (order.do === "show") return void turn.shows.push({ queue: order.queue, alert: order.alert });
    if (order.do === "look-up") return void turn.lookUps.push({ game: module.id, name: order.name });
    if (order.do === "film") {
      const { n, request, source, name } = order;
      return void turn.films.push({ game: module.id, n, request, source, name });
    }
    if (order.do === "unfilm") return void turn.unfilms.push({ game: module.id, n: order.n });
    if (order.do === "studio") return void turn.scenes.push({ game: module.id, n: order.n, scene: order.scene });
    if (order.do === "apart") return void turn.apart.push({ game: module.id, viewer: order.viewer, command: order.command });
    if (order.do === "speak") {
      const { n, text, voice, ahead } = order;
      return void turn.speeches.push({ game: module.id, n, text, voice, ahead });
    }
    if (order.do === "end-alert") return void turn.ends.push(order.id);
    if (order.do === "answer") return void turn.says.push(`@${order.to} ${noteInWords(module.kind, order.note)}`);
    if (order.do === "hush") {
      turn.hush = order.on;
      return void own.push({ game: module.id, note: { did: order.on ? "show/hushed" : "show/released", count: 1 } });
    }
    if (order.do === "snapshot" && order.what === "keep") return keepSnapshot(module, kit, turn);
    if (order.do === "snapshot") return void later.push(() => bringBack(module, kit, turn));
    if (module.rules.snapshot !== undefined && later.length > 0) {
      const then = order;
      return void later.push(() => derive(then, module, at, own));
    }
    derive(order, module, at, own);
  };
  const derive = (order: Order, module: Running, at: Next, own: ModuleNote[]): void => {
    if (at.depth >= deepest || derived >= mostDerived)
      return void own.push({ game: module.id, note: { refusal: { code: "order/too-deep", facts: { deepest } }, count: 1 } });
    derived += 1;
    const seq = kit.nextSeq();
    const stamp = { seq, atMs: at.signal.atMs, id: `d${seq}` };
    const next = (signal: Signal, from: string, target: readonly Running[], answer = false): void =>
      void queue.push({ signal, source: from, to: target, depth: at.depth + 1, answer });
    switch (order.do) {
      case "command": {
        // What a channel has one of may be named by its kind.
        const target = kit.modules.filter((m) => m.id === order.gameId || (m.kind === order.gameId && m.rules.single === true));
        if (target.length === 0) {
          own.push({ game: module.id, note: { refusal: { code: "game/unknown", facts: {} }, count: 1 } });
          if (order.answer === true) turn.says.push("This game is not there any more.");
        }
        const { viewer, command, by = module.name, answer = false, sale } = order;
        const bought = sale === undefined ? {} : { sale };
        const signal: CommandSignal = { kind: "command", ...stamp, gameId: target[0]?.id ?? order.gameId, by, viewer, command, ...bought };
        // What a moderator asks for in chat, and the rundown starts, is an operator's hand like any other.
        return next(signal, module.rules.speaksForOperators === true ? "operator" : module.kind, target, answer);
      }
      case "give-back": {
        const seller = kit.modules.find((m) => m.rules.givesBack !== undefined);
        const command = seller?.rules.givesBack?.(order.sale);
        if (seller === undefined || command === undefined) return;
        return next({ kind: "command", ...stamp, gameId: seller.id, by: module.name, viewer: null, command }, "engine", [seller]);
      }
      case "cue": {
        const target = kit.modules.filter((m) => hears(m, "cue"));
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
          kit.modules.filter((m) => hears(m, "redemption")),
        );
      }
      case "arrived":
        return next(
          { kind: "arrival", ...stamp, viewer: order.viewer, shows: order.shows, beforeMs: order.beforeMs },
          "show",
          kit.modules.filter((m) => m !== module && hears(m, "arrival")),
        );
      case "announce":
        return next(
          { kind: order.what, ...stamp, viewer: null },
          "show",
          kit.modules.filter((m) => m !== module && hears(m, order.what)),
        );
      case "emit": {
        const { what, viewer, amount, text, effects, touches } = order;
        const own = effects === undefined || effects.length === 0 ? {} : { effects };
        const signal: HappenedSignal = {
          kind: "happened",
          ...stamp,
          gameId: module.id,
          what,
          viewer,
          amount,
          text,
          ...own,
          ...(touches === undefined ? {} : { touches }),
        };
        return next(
          signal,
          "game",
          kit.modules.filter((m) => hears(m, "happened")),
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
    let logged = signal;
    const own: ModuleNote[] = address.note !== null && signal === first ? [address.note] : [];
    for (const module of at.to) {
      const read = readFor(module, signal);
      if (!read.ok) {
        const note: Note = { refusal: read.refusal, count: 1 };
        own.push({ game: module.id, note });
        if (at.answer) turn.says.push(sentence(noteInWords(module.kind, note)));
        logged = { ...signal, ...(signal.kind === "command" ? { command: { do: signal.command.do } } : {}) } as Signal;
        continue;
      }
      logged = read.value;
      const outcome = forgets(read.value)
        ? forgotten(module, read.value.kind === "command" ? String(read.value.command["viewer"]) : "")
        : module.rules.step({ settings: module.settings, durable: module.durable, transient: module.transient }, read.value, ctx);
      module.transient = outcome.transient;
      if (outcome.durable !== module.durable) {
        module.durable = outcome.durable;
        turn.changed.add(module);
      }
      for (const note of outcome.notes) {
        own.push({ game: module.id, note });
        if (at.answer) turn.says.push(sentence(noteInWords(module.kind, note)));
      }
      if (outcome.effects.length > 0) turn.effects.push({ game: module.id, effects: outcome.effects });
      for (const kept of outcome.kept ?? [])
        if (!rehearsing || kept.kind === "show") turn.kept.push({ ...kept, gameId: module.id, seq: signal.seq });
      // A rehearsal touches no points.
      if (outcome.booking !== undefined && !rehearsing && !isEmpty(outcome.booking))
        turn.booked.push(kit.apply(signal.seq, outcome.booking));
      for (const order of outcome.orders ?? []) follow(order, module, at, own);
    }
    turn.notes.push(...own);
    // Small happenings nobody answered are in the hit's own row already.
    // Nor is a sale told twice: it stands in the row of who asked for it, and among the sales.
    // Whether somebody is here for the first time is asked of the show alone; what it says is the row.
    if (forgets(signal)) continue;
    if (signal.kind === "here" || (signal.kind === "arrival" && at.source !== "show") || (signal.kind === "redemption" && own.length === 0))
      continue;
    if (signal.kind !== "happened" || own.length > 0 || toldOf(signal.what)?.told.logged === true)
      turn.rows.push({
        seq: signal.seq,
        atMs: signal.atMs,
        kind: signal.kind,
        source: at.source,
        id: signal === first && kit.idFromOutside ? signal.id : null,
        viewer: personOf(signal),
        body: signal.kind === "message" ? { text: signal.text } : bodyOf(logged, own),
      });
  }
  if (rehearsing) turn.says.length = 0;
  turn.after = new Map(
    [...turn.changed].map(({ id, durable, rules }) => [
      id,
      { durable, stored: (rules.rows?.stored(durable) ?? durable) as unknown, version: versionOf(rules.stateSteps) },
    ]),
  );
  return turn;
}

const isEmpty = (b: Booking): boolean =>
  b.entries.length === 0 && b.sales.length === 0 && b.prices.length === 0 && (b.due ?? []).length === 0 && (b.met ?? []).length === 0;
const sentence = (words: string): string => (words === "" ? "" : `${words[0]?.toUpperCase() ?? ""}${words.slice(1)}.`);

/** Before a rehearsal everything else is laid aside, into the state of who began it, so that a restart keeps it too. */
function keepSnapshot(by: Running, kit: TurnKit, turn: Turn): void {
  const { snapshot } = by.rules;
  if (snapshot === undefined) return;
  by.durable = snapshot.with(by.durable, Object.fromEntries(kit.modules.filter((m) => m !== by).map((m) => [m.id, m.durable])));
  turn.changed.add(by);
}

/** It was laid aside by this version, or by one before it. */
function fromSnapshot(module: Running, kept: unknown): Result<unknown> {
  const { durable, stateSteps } = module.rules;
  let read: Result<unknown> = refused("stored/unreadable");
  for (let version = versionOf(stateSteps); version >= 1 && !read.ok; version -= 1)
    read = readStored<unknown>(durable, stateSteps, version, kept);
  return read;
}

function bringBack(by: Running, kit: TurnKit, turn: Turn): void {
  const { snapshot } = by.rules;
  if (snapshot === undefined) return;
  const states = snapshot.of(by.durable) ?? {};
  for (const module of kit.modules) {
    const taken = Object.hasOwn(states, module.id) ? states[module.id] : undefined;
    const kept = module === by || taken === undefined ? null : fromSnapshot(module, taken);
    if (kept?.ok !== true) continue;
    module.durable = kept.value;
    turn.changed.add(module);
  }
  by.durable = snapshot.with(by.durable, null);
  turn.changed.add(by);
}
