import { Map as Entries } from "immutable";
import { actionOf } from "../games/words";
import { fold } from "../kernel/fold";
import type { Order } from "../module/order";
import { refusal, type Refusal } from "../kernel/refusal";
import { textField, numberField } from "../module/field-of";
import type { Module, Note, StepContext } from "../module/module";
import { type ArrivalSignal, type Command, mayAs, type MessageSignal, platformKinds, type Signal } from "../signals/signal";
import { showCommands } from "./commands";
import { inOrder } from "./order";
import type { PlanItem } from "./plan";
import { showSettingsTo2, showStateTo2 } from "../rules/migrations";
import { showFront } from "./notes";
import {
  freshShow,
  gameEffects,
  type ModeratorWord,
  showDefaults,
  type ShowDurable,
  showDurableSchema,
  type ShowTransient,
  type ShowSettings,
  showSettingsSchema,
} from "./settings";
import { onCommand } from "./on-command";
import { type At, type Outcome, still, no, did, isRunning, isOpen, begin, finish, startItem, minute } from "./outcome";

/** Something due longer ago than this is not started by itself any more: a person decides. */
export const latestMs = 120_000;

/** When something planned is due, UTC milliseconds; null while it waits for something that did not start yet. */
export function dueOf(durable: ShowDurable, item: PlanItem): number | null {
  if (durable.show === null) return null;
  const { starts } = item;
  if (starts.how !== "after") return durable.show.sinceMs + item.atMin * minute;
  const before = durable.done.find((d) => d.item === starts.item);
  return before === undefined ? null : before.atMs + starts.delayMin * minute;
}

function onTimer(at: At, nowMs: number, signal: Signal): Outcome {
  let now: At = at;
  const notes: Note[] = [];
  const orders: Order[] = [];
  const { settings } = at;
  const { checkMs } = at.durable;
  if (checkMs !== null && checkMs <= nowMs) {
    const silenceMs = settings.silenceMin * minute;
    const heardMs = at.transient.heardMs ?? (nowMs - checkMs > silenceMs ? 0 : nowMs);
    if (silenceMs > 0 && nowMs - heardMs >= silenceMs)
      // Nobody was here: it ended when it was last looked for, not when the computer woke up.
      return finish(at, signal, "", "silence", Math.min(nowMs, checkMs));
    const next = silenceMs === 0 ? null : Math.max(nowMs + 1_000, heardMs + silenceMs);
    now = { ...now, transient: { ...now.transient, heardMs }, durable: { ...now.durable, checkMs: next } };
  }
  for (const item of now.durable.plan.items) {
    const due = dueOf(now.durable, item);
    if (!isRunning(now.durable) || due === null || due > nowMs || !isOpen(now.durable, item.id)) continue;
    if (now.durable.asks.some((a) => a.item === item.id)) continue;
    const late = nowMs - due > latestMs;
    if (item.starts.how === "hand" || late) {
      const ask = {
        id: `due.${item.id}`,
        kind: late && item.starts.how !== "hand" ? ("missed" as const) : ("due" as const),
        sinceMs: due,
        item: item.id,
      };
      now = { ...now, durable: { ...now.durable, asks: [...now.durable.asks, ask] } };
      continue;
    }
    const started = startItem(now, item, nowMs, "the rundown", true);
    now = { ...now, durable: started.durable };
    notes.push(...started.notes);
    orders.push(...(started.orders ?? []));
  }
  return { durable: now.durable, transient: now.transient, effects: [], notes, orders };
}

/** Who was asked after and not met (the database was away) is asked after again. */
const askAgainMs = 10_000;
/** Whether somebody may be here for the first time in this show, and nobody has asked after them. */
function isUnmet({ durable, transient }: At, { viewer, atMs }: MessageSignal, ctx: StepContext): boolean {
  if (!isRunning(durable)) return false;
  const askedMs = transient.asked.get(viewer.id);
  // A rehearsal counts nobody in, so what is remembered is all there is.
  if (durable.state === "rehearsing") return askedMs === undefined;
  if (askedMs !== undefined && atMs - askedMs < askAgainMs) return false;
  return ctx.ledgerView.attendance(viewer.id)?.showId !== durable.show?.id;
}
function onMessage(at: At, signal: MessageSignal, ctx: StepContext): Outcome {
  const outcome = onWords(at, signal, ctx);
  if (!isUnmet(at, signal, ctx)) return outcome;
  const { transient } = outcome;
  return {
    ...outcome,
    transient: { ...transient, asked: transient.asked.set(signal.viewer.id, signal.atMs) },
    orders: [...(outcome.orders ?? []), { do: "apart", viewer: signal.viewer, command: null }],
  };
}
/** Counts somebody in who is here for the first time in this show, and lets the others know. */
function onArrival(at: At, { viewer, atMs }: ArrivalSignal, ctx: StepContext): Outcome {
  const { state, show } = at.durable;
  if (show === null) return still(at);
  const known = ctx.ledgerView.attendance(viewer.id);
  if (state === "on" && known?.showId === show.id) return still(at);
  return {
    ...still(at),
    booking: { entries: [], sales: [], names: [], prices: [], met: [{ id: viewer.id, name: viewer.name, atMs }] },
    orders: [{ do: "arrived", viewer, shows: (known?.shows ?? 0) + 1, beforeMs: known?.lastMs ?? null }],
  };
}

/** A command of a moderator in chat: its orders, with the outcome as an answer. */
function onWords(at: At, signal: MessageSignal, ctx: StepContext): Outcome {
  const heard: At = isRunning(at.durable) ? { ...at, transient: { ...at.transient, heardMs: signal.atMs } } : at;
  if (at.settings.commands.length === 0) return still(heard);
  const [first = ""] = signal.text.trim().split(/\s+/, 1);
  if (first === "" || first.length > 40) return still(heard);
  const word = fold(first);
  const command = at.settings.commands.find((c) => fold(c.word) === word);
  if (command === undefined) return still(heard);
  if (!mayAs(signal.viewer, command.roles)) return no(heard, refusal("command/role"), command.word);
  const rest = signal.text.trim().slice(first.length).trim();
  const fire = ordersOf(heard, command, rest, signal, ctx);
  if (!fire.ok) {
    const refused = no(heard, fire.why, command.word);
    return { ...refused, orders: [{ do: "answer", to: signal.viewer.name, note: refused.notes[0] ?? { count: 1 } }] };
  }
  return { ...still(heard, [did("command/done", command.word)]), orders: fire.orders };
}

type Fire = Readonly<{ ok: true; orders: readonly Order[] }> | Readonly<{ ok: false; why: Refusal }>;
function ordersOf(at: At, command: ModeratorWord, rest: string, signal: MessageSignal, ctx: StepContext): Fire {
  const [second = ""] = rest.split(/\s+/, 1);
  const amount = /^\d{1,15}$/.test(second) ? Number(second) : null;
  if (gameEffects.includes(command.does) && command.game === "") return { ok: false, why: refusal("command/no-game") };
  const by = signal.viewer.name;
  const give = (given: Command, gameId: string = command.game): Fire => ({
    ok: true,
    orders: [{ do: "command", gameId, viewer: null, by, answer: true, command: given }],
  });
  switch (command.does) {
    case "start":
    case "stop":
      return give({ do: "switch", on: command.does === "start" });
    case "act": {
      const action = actionOf(ctx.gameKind(command.game), command.act);
      const number = action === null ? null : numberField(action.input);
      const words = action === null ? null : textField(action.input);
      if (words !== null) return give({ do: command.act, [words[0]]: rest });
      if (number === null) return give({ do: command.act });
      if (amount === null || amount < 1) return { ok: false, why: refusal("command/amount", { word: command.word }) };
      return give({ do: command.act, [number[0]]: Math.min(number[1].most, amount) });
    }
    case "hush":
    case "release":
      return { ok: true, orders: [{ do: "hush", on: command.does === "hush" }] };
    case "on-air":
    case "rehearse":
    case "end":
      return give({ do: "show", what: command.does }, "show");
    case "next": {
      const next = nextItem(at.durable);
      if (next === null) return { ok: false, why: refusal("show/nothing-next") };
      return give({ do: "plan-fire", item: next.id, times: 0 }, "show");
    }
  }
}

/** What comes next in the rundown; null when nothing is left. */
export const nextItem = (show: Pick<ShowDurable, "plan" | "done" | "skipped">): PlanItem | null =>
  inOrder(show.plan.items).find((item) => isOpen(show, item.id)) ?? null;

/**
 * The show: on air, rehearsing or off; its rundown; who is muted; what moderators may do by chat word. A
 * module like a game, without a picture. It hears the platform's "live" and "ended" first, and announces to
 * the others that a show begins or ends, whoever said so.
 */
export const showRules: Module<ShowSettings, ShowDurable, ShowTransient, never> = {
  ...showFront,
  settings: showSettingsSchema,
  defaults: showDefaults,
  settingsSteps: [showSettingsTo2],
  stateSteps: [showStateTo2],
  freshDurable: freshShow,
  freshDust: () => ({ heardMs: null, asked: Entries() }),
  durable: showDurableSchema,
  single: true,
  hears: ["message", ...platformKinds, "purchase-request", "redemption"],
  decides: ["live", "ended", "arrival"],
  speaksForOperators: true,
  commands: showCommands,
  viewerCommands: ["my-face"],
  mine: (_, { noFaces }, viewer) => ({ face: !noFaces.list.some((f) => f.id === viewer) }),
  provides: (_, { state, show, noFaces }) => ({
    noFaces: { mark: noFaces.mark, names: noFaces.list.map((f) => f.name) },
    show: show === null ? null : { state, id: show.id, sinceMs: show.sinceMs },
  }),
  stops: (_, { muted }, signal) => {
    const viewer = "viewer" in signal ? signal.viewer : null;
    return viewer !== null && muted.some((m) => m.id === viewer.id) ? refusal("viewer/muted") : null;
  },
  chatWords: (settings) => settings.commands.map((c) => c.word),
  snapshot: { of: (durable) => durable.snapshot, with: (durable, snapshot) => ({ ...durable, snapshot }) },
  forget: (durable, viewer) => ({
    ...durable,
    muted: durable.muted.filter((m) => m.id !== viewer),
    noFaces: { ...durable.noFaces, list: durable.noFaces.list.filter((f) => f.id !== viewer) },
  }),
  dueMs: (_, durable) => {
    if (!isRunning(durable)) return null;
    let next = durable.checkMs;
    for (const item of durable.plan.items) {
      const due = dueOf(durable, item);
      if (due === null || !isOpen(durable, item.id) || durable.asks.some((a) => a.item === item.id)) continue;
      if (next === null || due < next) next = due;
    }
    return next;
  },
  step: (at: At, signal: Signal, ctx: StepContext): Outcome => {
    switch (signal.kind) {
      case "command":
        return onCommand(at, signal);
      case "message":
        return onMessage(at, signal, ctx);
      case "timer":
        return onTimer(at, signal.atMs, signal);
      case "arrival":
        return onArrival(at, signal, ctx);
      case "live":
        if (at.durable.state === "on") return still(at);
        if (at.settings.begins === "platform") return begin(at, signal, "on", "the platform", "platform");
        return asked(at, "live", signal.atMs);
      case "ended":
        if (at.durable.state !== "on") return still({ ...at, durable: without(at.durable, "live") });
        if (at.settings.begins === "platform") return finish(at, signal, "the platform", "platform");
        return asked(at, "ended", signal.atMs);
      default:
        return isRunning(at.durable) ? still({ ...at, transient: { ...at.transient, heardMs: signal.atMs } }) : still(at);
    }
  },
  view: (_settings, durable, audience) => {
    const { state, show } = durable;
    if (audience !== "operator") return { state, sinceMs: show?.sinceMs ?? null };
    const { plan, done, skipped, asks, muted, templates, noFaces } = durable;
    return {
      state,
      show,
      plan,
      done,
      skipped,
      asks,
      muted,
      noFaces: noFaces.list,
      templates: templates.map((t) => ({ id: t.id, name: t.name, things: t.items.length })),
    };
  },
};

export const without = (durable: ShowDurable, kind: string): ShowDurable =>
  durable.asks.some((a) => a.kind === kind) ? { ...durable, asks: durable.asks.filter((a) => a.kind !== kind) } : durable;
const asked = (at: At, kind: "live" | "ended", atMs: number): Outcome => {
  if (at.durable.asks.some((a) => a.kind === kind)) return still(at);
  return { ...still(at), durable: { ...at.durable, asks: [...at.durable.asks, { id: kind, kind, sinceMs: atMs, item: "" }] } };
};
