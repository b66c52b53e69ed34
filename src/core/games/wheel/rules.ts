import { bytesToHex } from "@noble/hashes/utils.js";
import { proofOf, recorded } from "../../chance/round";
import { drawWinners, listHash, listOf } from "../../chance/scheme";
import { mix32 } from "../../kernel/chance";
import { refusal } from "../../kernel/refusal";
import type { Kept, Note, StepContext, StepOutcome } from "../../module/module";
import type { Order } from "../../module/order";
import { publicName } from "../../signals/names";
import type { CommandSignal, Signal } from "../../signals/signal";
import type { WheelCommand } from "./actions";
import { arcsOf, inPlay, mayCome, restAt, timesDrawn } from "./layout";
import { announced, changedTo, fits, promised, ticketsOf } from "./promise";
import type { Spin, WheelDurable, WheelEffect, WheelPromise, WheelSettings, Who } from "./settings";
import { chancesTold, resultTold } from "./words";

type At = Readonly<{ settings: WheelSettings; durable: WheelDurable; transient: null }>;
type Outcome = StepOutcome<WheelDurable, null, WheelEffect>;
const mostResults = 20;
/** So long a promise is public before anything is drawn from it. */
export const publicMs = 500;
/** A result is looked at before the next that waits begins, however long it stays. */
const restMs = { least: 1_500, most: 5_000 };

export const freshWheel = (): WheelDurable => ({
  on: true,
  n: 0,
  angle: 0,
  drawn: [],
  last: "",
  next: null,
  spin: null,
  restsUntilMs: 0,
  waiting: [],
  results: [],
});

const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, transient: null, effects: [], notes });
const no = (at: At, code: string, facts: Record<string, string | number> = {}): Outcome =>
  still(at, [{ refusal: refusal(code, facts), count: 1 }]);
const and = (first: Outcome, then: Outcome): Outcome => ({
  ...then,
  effects: [...first.effects, ...then.effects],
  notes: [...first.notes, ...then.notes],
  orders: [...(first.orders ?? []), ...(then.orders ?? [])],
  kept: [...(first.kept ?? []), ...(then.kept ?? [])],
});

/** One signal through the rules of section 6. What is drawn follows from secrets that were promised before. */
export function wheelStep(given: At, signal: Signal, ctx: StepContext): Outcome {
  const game = signal.kind === "command" ? signal.gameId : signal.kind === "timer" ? signal.moduleId : "";
  if (game === "") return still(given);
  const first = renewed(given, game, signal.atMs, ctx);
  const at: At = { ...given, durable: first.durable };
  if (signal.kind === "command") return and(first, onCommand(at, signal, ctx));
  const ended =
    at.durable.spin !== null && at.durable.spin.endsMs <= signal.atMs ? onEnd(at, at.durable.spin, game, signal, ctx) : still(at);
  return and(first, and(ended, nextWaiting({ ...at, durable: ended.durable }, game, signal, ctx)));
}

/** The promise of the next spin, made anew where it is not for the wheel as it is now; the one before it stays visible as abandoned. */
function renewed(at: At, game: string, atMs: number, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  // While it turns, what comes next is not known yet.
  if (durable.spin !== null) return still(at);
  const { next } = durable;
  if (next !== null && fits(next, settings, ctx.rehearsing)) {
    const same = changedTo(next, ticketsOf(settings, durable), atMs);
    return same === next ? still(at) : { ...still(at), durable: { ...durable, next: same } };
  }
  const why = next !== null && next.rehearsal === ctx.rehearsing ? "settings" : "";
  return anew(at, game, atMs, ctx, why);
}
function anew(at: At, game: string, atMs: number, ctx: StepContext, why: string): Outcome {
  const { settings, durable } = at;
  const n = durable.n + 1;
  const next = promised(settings, durable, ctx.vault, { game, n, atMs, rehearsing: ctx.rehearsing });
  return {
    ...still(at),
    durable: { ...durable, n, next },
    kept: durable.next === null || why === "" ? [] : [abandoned(durable.next, atMs, why)],
  };
}
const abandoned = ({ round, commitment, n, sinceMs }: WheelPromise, atMs: number, why: string): Kept => ({
  kind: "abandoned",
  viewer: null,
  fromMs: sinceMs,
  toMs: atMs,
  body: { round, n, commitment, why },
});

function onCommand(at: At, signal: CommandSignal, ctx: StepContext): Outcome {
  const { durable, settings } = at;
  const { viewer, atMs, gameId } = signal;
  const by = publicName(signal);
  // The engine has read it by the schemas of the actions.
  const command = signal.command as WheelCommand;
  switch (command.do) {
    case "switch":
      if (durable.on === command.on) return no(at, command.on ? "wheel/already-on" : "wheel/already-off");
      return {
        ...still(at, [{ did: command.on ? "wheel/switched-on" : "wheel/switched-off", count: 1 }]),
        durable: { ...durable, on: command.on },
      };
    case "spin": {
      if (!durable.on) return no(at, "wheel/off");
      const who: Who = { by: viewer?.name ?? by, viewer: viewer === null ? null : { ...viewer, roles: [...viewer.roles] } };
      if (durable.spin === null && mayCome(settings, durable).length === 0) return no(at, "wheel/empty");
      // An operator's own begins at once or not at all: of two who press together, one has spun it. A viewer's waits its turn.
      if (viewer === null && (durable.spin !== null || durable.waiting.some((w) => w.viewer === null)))
        return no(at, "wheel/turning", { freeInS: Math.max(1, Math.ceil(((durable.spin?.endsMs ?? atMs) - atMs) / 1000)) });
      const free = durable.spin === null && (viewer === null || (durable.waiting.length === 0 && atMs >= durable.restsUntilMs));
      const publicAt = (durable.next?.sinceMs ?? 0) + publicMs;
      if (free && atMs >= publicAt) return begin(at, who, gameId, signal, ctx);
      // Its promise was made just now: nothing is drawn from it before everybody could see it.
      if (free) return waits(at, [who, ...durable.waiting], 1, publicAt);
      // Where none may wait, one still may until the result before was looked at.
      if (durable.waiting.length >= (durable.spin === null ? Math.max(1, settings.mostWaiting) : settings.mostWaiting))
        return no(at, "wheel/full", { most: settings.mostWaiting });
      const waiting = [...durable.waiting, who];
      return waits(at, waiting, waiting.length, Math.max(durable.restsUntilMs, publicAt));
    }
    case "reset": {
      if (durable.drawn.length === 0) return no(at, "wheel/all-there");
      const back = settings.segments.length - inPlay(settings, durable).length;
      const fresh: WheelDurable = { ...durable, drawn: [] };
      const { next } = fresh;
      const list = next === null || fresh.spin !== null ? next : changedTo(next, ticketsOf(settings, fresh), atMs);
      return {
        ...still(at, [{ did: "wheel/reset", count: back }]),
        durable: { ...fresh, next: list },
        effects: [{ do: "reset" }],
      };
    }
    case "drop-waiting":
      if (durable.waiting.length === 0) return no(at, "wheel/none-wait");
      return { ...still(at, [{ did: "wheel/dropped", count: durable.waiting.length }]), durable: { ...durable, waiting: [] } };
    case "tell-rules": {
      const text = chancesTold(settings, durable, ctx.gameName(gameId));
      return { ...still(at, [{ did: "wheel/rules-told", count: 1 }]), orders: [{ do: "say", text }] };
    }
  }
}

const waits = (at: At, waiting: Who[], turns: number, restsUntilMs: number): Outcome => ({
  ...still(at, [{ did: "wheel/waits", count: turns, subject: waiting[turns - 1]?.by ?? "" }]),
  durable: { ...at.durable, waiting, restsUntilMs },
});

/** The result is decided here, before anything moves. */
function begin(at: At, who: Who, game: string, signal: Signal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  const promise = durable.next;
  // What is drawn from is what the promise says may come: it is kept in step with the wheel.
  const list = listOf(promise?.changes ?? []);
  if (list.length === 0 || promise === null) return no(at, "wheel/empty");
  const secret = ctx.vault.open(promise.round, promise.sealed);
  if (secret === null) {
    // Nobody can read it any more: that round is over, and the next is promised before anything is drawn from it.
    const lost = anew(at, game, signal.atMs, ctx, "lost");
    return { ...lost, notes: [{ refusal: refusal("wheel/secret-lost"), count: 1 }] };
  }
  const hash = listHash(list);
  const drawn = drawWinners({ secret, round: promise.round, list: hash, shake: "" }, list, { count: 1 });
  const winner = drawn.ok ? drawn.value[0] : undefined;
  const place = settings.segments.findIndex((s) => s.id === winner?.id);
  const segment = settings.segments[place];
  if (winner === undefined || segment === undefined) return no(at, "wheel/empty");
  const seed = mix32(signal.seq, ctx.salt);
  const to = restAt(arcsOf(settings, durable), place, settings.looks.pointerAt, seed);
  const { atMs } = signal;
  const shut = recorded(promise, { kind: "lock", atMs, by: "operator", list: hash });
  const spin: Spin = {
    promise: recorded(shut, { kind: "draw", atMs, index: 0 }),
    announced: announced(settings),
    segment: segment.id,
    label: segment.label,
    effects: segment.effects,
    fromMs: signal.atMs,
    endsMs: signal.atMs + settings.spinMs,
    from: durable.angle,
    to,
    seed,
    winner,
    who,
  };
  return {
    durable: { ...durable, spin, next: null },
    transient: null,
    effects: [{ do: "spin", n: promise.n, from: durable.angle, to, ms: settings.spinMs, seed, by: who.by }],
    notes: [{ did: "wheel/spun", count: 1, subject: who.by }],
    orders: [{ do: "emit", what: "wheel/spun", viewer: who.viewer, amount: promise.n, text: "" }],
  };
}

/** The wheel rests: what came is told, kept with its proof, and the next is promised. */
function onEnd(at: At, spin: Spin, game: string, signal: Signal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  const { promise, who, segment, label } = spin;
  const drawn = new Map(timesDrawn(durable));
  drawn.set(segment, (drawn.get(segment) ?? 0) + 1);
  const known = new Set(settings.segments.map((s) => s.id));
  const result = { n: promise.n, round: promise.round, id: segment, label, atMs: spin.endsMs, by: who.by, isPublic: true };
  const rested: WheelDurable = {
    ...durable,
    spin: null,
    angle: spin.to,
    last: segment,
    drawn: [...drawn].filter(([id]) => known.has(id)),
    restsUntilMs: signal.atMs + Math.min(restMs.most, Math.max(restMs.least, settings.panelMs)),
    results: [result, ...durable.results].slice(0, mostResults),
  };
  const next = anew({ ...at, durable: { ...rested, next: null } }, game, signal.atMs, ctx, "");
  const secret = ctx.vault.open(promise.round, promise.sealed);
  const { changes, record, sinceMs: openedMs } = promise;
  const lock = { how: "operator" as const, atMs: spin.fromMs };
  const proof =
    secret === null
      ? null
      : proofOf({ promise, openedMs, settings: spin.announced, secret: bytesToHex(secret), lock, changes, record, draws: [spin.winner] });
  const kept: Kept = {
    kind: "spin",
    viewer: who.viewer === null ? null : { id: who.viewer.id, name: who.viewer.name },
    fromMs: spin.fromMs,
    toMs: spin.endsMs,
    body: { round: promise.round, n: promise.n, segment, label, by: who.by, proof },
  };
  const text = resultTold(settings.says, result, next.durable.next?.commitment ?? "");
  const picture = settings.segments.find((s) => s.id === segment)?.picture ?? "";
  const orders: Order[] = [
    ...(text === "" ? [] : [{ do: "say" as const, text }]),
    {
      do: "emit",
      what: "wheel/drawn",
      viewer: who.viewer,
      amount: promise.n,
      text: label,
      effects: spin.effects,
      touches: picture === "" ? { joy: true } : { joy: true, pictures: [picture] },
    },
  ];
  const place = settings.segments.findIndex((s) => s.id === segment);
  return {
    durable: next.durable,
    transient: null,
    effects: place < 0 ? [] : [{ do: "result", n: promise.n, segment: place, label, by: who.by, ms: settings.panelMs }],
    notes: [{ did: "wheel/drawn", count: 1, subject: label, facts: { by: who.by, n: promise.n } }],
    orders,
    kept: [kept],
  };
}

const startsAt = ({ next, restsUntilMs }: WheelDurable): number => Math.max(restsUntilMs, (next?.sinceMs ?? 0) + publicMs);

/** Whoever waits longest spins when the result before was looked at. */
function nextWaiting(at: At, game: string, signal: Signal, ctx: StepContext): Outcome {
  const { durable } = at;
  const [who, ...waiting] = durable.waiting;
  if (who === undefined || durable.spin !== null || !durable.on || signal.atMs < startsAt(durable)) return still(at);
  return begin({ ...at, durable: { ...durable, waiting } }, who, game, signal, ctx);
}

/** When it wants to be woken: to promise, to end a spin, to begin the next that waits. */
export function wheelDue(settings: WheelSettings, durable: WheelDurable): number | null {
  if (durable.spin !== null) return durable.spin.endsMs;
  if (durable.next === null || !fits(durable.next, settings, durable.next.rehearsal)) return 0;
  return durable.on && durable.waiting.length > 0 && mayCome(settings, durable).length > 0 ? startsAt(durable) : null;
}
