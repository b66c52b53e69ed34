import { fold } from "../kernel/fold";
import type { Order } from "../kernel/order";
import { refusal, type Refusal } from "../kernel/refusal";
import type { GameRules, Kept, Note, StepContext, StepOutcome } from "../kernel/step";
import { type Hand, type HandSignal, mayAs, type MessageSignal, type Signal } from "../signals/signal";
import { inOrder, type PlanItem } from "./plan";
import {
  amountDeeds,
  type Command,
  freshShow,
  gameDeeds,
  mostMuted,
  mostTemplates,
  showDefaults,
  type ShowDurable,
  showDurableSchema,
  type ShowDust,
  type ShowSettings,
  showSettingsSchema,
} from "./settings";

type At = Readonly<{ settings: ShowSettings; durable: ShowDurable; dust: ShowDust }>;
type Outcome = StepOutcome<ShowDurable, ShowDust, never>;

/** Something due longer ago than this is not started by itself any more: a person decides. */
export const latestMs = 120_000;
const minute = 60_000;

const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, dust: at.dust, effects: [], notes });
const no = (at: At, why: Refusal, subject?: string): Outcome =>
  still(at, [{ refusal: why, count: 1, ...(subject === undefined ? {} : { subject }) }]);
const did = (name: string, subject: string, facts: Note["facts"] = {}): Note => ({ did: name, count: 1, subject, facts });

export const isRunning = (durable: ShowDurable): boolean => durable.state !== "off";
export const timesStarted = (durable: Pick<ShowDurable, "done">, item: string): number =>
  durable.done.find((d) => d.item === item)?.times ?? 0;
const isOpen = (durable: Pick<ShowDurable, "done" | "skipped">, item: string): boolean =>
  timesStarted(durable, item) === 0 && !durable.skipped.includes(item);

/** When something planned is due, UTC milliseconds; null while it waits for something that did not start yet. */
export function dueOf(durable: ShowDurable, item: PlanItem): number | null {
  if (durable.show === null) return null;
  const { starts } = item;
  if (starts.how !== "after") return durable.show.sinceMs + item.atMin * minute;
  const before = durable.done.find((d) => d.item === starts.item);
  return before === undefined ? null : before.atMs + starts.delayMin * minute;
}

function begin(at: At, signal: Signal, state: "on" | "rehearsing", by: string, how: "hand" | "platform"): Outcome {
  const { durable, settings } = at;
  if (durable.state === state) return no(at, refusal(state === "on" ? "show/on-already" : "show/rehearsing-already"));
  if (state === "rehearsing" && durable.state === "on") return no(at, refusal("show/on-air"));
  // From a rehearsal straight on air: what was rehearsed is undone first.
  const before = durable.state === "rehearsing" ? finish(at, signal, by, "hand") : null;
  const from = before?.durable ?? durable;
  const next: ShowDurable = {
    ...from,
    state,
    show: { id: `show${signal.seq}`, sinceMs: signal.atMs, by, how },
    checkMs: settings.silenceMin === 0 ? null : signal.atMs + settings.silenceMin * minute,
    done: [],
    skipped: [],
    asks: [],
  };
  return {
    durable: next,
    dust: { heardMs: signal.atMs },
    effects: [],
    notes: [did(state === "on" ? "show/on" : "show/rehearsing", by)],
    orders: [
      ...(before?.orders ?? []),
      ...(state === "rehearsing" ? [{ do: "aside", what: "keep" } as const] : []),
      { do: "announce", what: "live" },
    ],
    kept: [...(before?.kept ?? [])],
  };
}

function finish(at: At, signal: Signal, by: string, how: "hand" | "platform" | "silence", endedMs = signal.atMs): Outcome {
  const { durable } = at;
  const { show, state } = durable;
  if (show === null || state === "off") return no(at, refusal("show/off"));
  const kept: Kept = {
    kind: "show",
    viewer: null,
    fromMs: show.sinceMs,
    toMs: Math.max(show.sinceMs, endedMs),
    body: { id: show.id, rehearsal: state === "rehearsing", by: show.by, how: show.how, endedBy: by, ended: how },
  };
  return {
    durable: { ...durable, state: "off", show: null, checkMs: null, done: [], skipped: [], asks: [] },
    dust: at.dust,
    effects: [],
    notes: [did(state === "rehearsing" ? "show/rehearsed" : "show/ended", by, { how })],
    kept: [kept],
    orders: [{ do: "announce", what: "ended" }, ...(state === "rehearsing" ? [{ do: "aside", what: "bring-back" } as const] : [])],
  };
}

/** Starts something planned: its orders, and that it was started. */
function startItem(at: At, item: PlanItem, nowMs: number, by: string, itself: boolean): Outcome {
  const { durable } = at;
  const times = timesStarted(durable, item.id) + 1;
  const orders: Order[] = [];
  const { does } = item;
  if (does.do === "cue") orders.push({ do: "cue", cueId: does.cue, by });
  else if (does.do !== "note")
    orders.push({ do: "hand", gameId: does.game, viewer: null, by, answer: false, hand: { do: "switch", on: does.do === "start" } });
  return {
    durable: {
      ...durable,
      done: [...durable.done.filter((d) => d.item !== item.id), { item: item.id, atMs: nowMs, times }],
      skipped: durable.skipped.filter((s) => s !== item.id),
      asks: durable.asks.filter((a) => a.item !== item.id),
    },
    dust: at.dust,
    effects: [],
    notes: [did("show/started", item.title, { itself, times, by })],
    orders,
  };
}

function onTimer(at: At, nowMs: number, signal: Signal): Outcome {
  let now: At = at;
  const notes: Note[] = [];
  const orders: Order[] = [];
  const { settings } = at;
  const { checkMs } = at.durable;
  if (checkMs !== null && checkMs <= nowMs) {
    const silenceMs = settings.silenceMin * minute;
    const heardMs = at.dust.heardMs ?? (nowMs - checkMs > silenceMs ? 0 : nowMs);
    if (silenceMs > 0 && nowMs - heardMs >= silenceMs)
      // Nobody was here: it ended when it was last looked for, not when the computer woke up.
      return finish(at, signal, "", "silence", Math.min(nowMs, checkMs));
    const next = silenceMs === 0 ? null : Math.max(nowMs + 1_000, heardMs + silenceMs);
    now = { ...now, dust: { heardMs }, durable: { ...now.durable, checkMs: next } };
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
  return { durable: now.durable, dust: now.dust, effects: [], notes, orders };
}

function onHand(at: At, signal: HandSignal): Outcome {
  const { hand, by } = signal;
  const { durable } = at;
  const itemOf = (id: string): PlanItem | undefined => durable.plan.items.find((i) => i.id === id);
  switch (hand.do) {
    case "show":
      return hand.what === "end"
        ? finish(at, signal, by, "hand")
        : begin(at, signal, hand.what === "on-air" ? "on" : "rehearsing", by, "hand");
    case "plan": {
      if (hand.revision !== durable.plan.revision) return no(at, refusal("show/plan-changed", { by: durable.plan.by }));
      const there = new Set(hand.items.map((i) => i.id));
      const plan = { revision: durable.plan.revision + 1, by, items: [...hand.items] };
      // What was moved may be due at another time now, so it is asked for anew.
      const asks = durable.asks.filter(
        (a) => a.item === "" || (there.has(a.item) && itemOf(a.item)?.atMin === hand.items.find((i) => i.id === a.item)?.atMin),
      );
      return { ...still(at, [did("show/planned", by)]), durable: { ...durable, plan, asks } };
    }
    case "plan-fire": {
      const item = itemOf(hand.item);
      if (item === undefined) return no(at, refusal("show/no-item"));
      if (!isRunning(durable)) return no(at, refusal("show/off"), item.title);
      if (timesStarted(durable, item.id) !== hand.times) return no(at, refusal("show/started-already"), item.title);
      return startItem(at, item, signal.atMs, by, false);
    }
    case "plan-move": {
      const item = itemOf(hand.item);
      if (item === undefined) return no(at, refusal("show/no-item"));
      const items = durable.plan.items.map((i) => (i === item ? { ...i, atMin: hand.atMin } : i));
      const plan = { revision: durable.plan.revision + 1, by, items };
      // At another time it is asked for anew.
      const asks = durable.asks.filter((a) => a.item !== item.id);
      return { ...still(at, [did("show/planned", by)]), durable: { ...durable, plan, asks } };
    }
    case "plan-skip": {
      const item = itemOf(hand.item);
      if (item === undefined) return no(at, refusal("show/no-item"));
      if (!isRunning(durable)) return no(at, refusal("show/off"), item.title);
      if (!isOpen(durable, item.id)) return no(at, refusal("show/started-already"), item.title);
      const asks = durable.asks.filter((a) => a.item !== item.id);
      return { ...still(at, [did("show/skipped", item.title)]), durable: { ...durable, skipped: [...durable.skipped, item.id], asks } };
    }
    case "plan-back": {
      const item = itemOf(hand.item);
      if (item === undefined || !durable.skipped.includes(item.id)) return no(at, refusal("show/no-item"));
      return {
        ...still(at, [did("show/back", item.title)]),
        durable: { ...durable, skipped: durable.skipped.filter((s) => s !== item.id) },
      };
    }
    case "template":
      return onTemplate(at, hand, by, signal.seq);
    case "mute": {
      const others = durable.muted.filter((m) => m.id !== hand.id);
      if (hand.on && others.length >= mostMuted) return no(at, refusal("show/too-many-muted", { most: mostMuted }));
      const muted = hand.on ? [...others, { id: hand.id, name: hand.name, by, atMs: signal.atMs }] : others;
      return { ...still(at, [did(hand.on ? "show/muted" : "show/unmuted", hand.name)]), durable: { ...durable, muted } };
    }
    case "decide": {
      const ask = durable.asks.find((a) => a.id === hand.ask);
      if (ask === undefined) return no(at, refusal("show/decided-already"));
      const without: At = { ...at, durable: { ...durable, asks: durable.asks.filter((a) => a.id !== ask.id) } };
      if (ask.kind === "live")
        return hand.yes ? begin(without, signal, "on", by, "platform") : { ...still(without), durable: without.durable };
      if (ask.kind === "ended") return hand.yes ? finish(without, signal, by, "platform") : { ...still(without), durable: without.durable };
      const item = itemOf(ask.item);
      if (item === undefined) return { ...still(without), durable: without.durable };
      if (hand.yes) return startItem(without, item, signal.atMs, by, false);
      return {
        ...still(without, [did("show/skipped", item.title)]),
        durable: { ...without.durable, skipped: [...without.durable.skipped, item.id] },
      };
    }
    default:
      return no(at, refusal("game/cannot"));
  }
}

function onTemplate(at: At, hand: Extract<Hand, { do: "template" }>, by: string, seq: number): Outcome {
  const { durable } = at;
  const there = durable.templates.find((t) => t.id === hand.id);
  switch (hand.what) {
    case "save": {
      const same = durable.templates.find((t) => fold(t.name) === fold(hand.name));
      const others = durable.templates.filter((t) => t !== same);
      if (hand.name.trim() === "") return no(at, refusal("show/template-name"));
      if (others.length >= mostTemplates) return no(at, refusal("show/too-many-templates", { most: mostTemplates }));
      const template = { id: same?.id ?? `t${seq}`, name: hand.name.trim(), items: durable.plan.items };
      return { ...still(at, [did("show/template-saved", template.name)]), durable: { ...durable, templates: [...others, template] } };
    }
    case "use": {
      if (there === undefined) return no(at, refusal("show/no-template"));
      const plan = { revision: durable.plan.revision + 1, by, items: there.items };
      return { ...still(at, [did("show/template-used", there.name)]), durable: { ...durable, plan, done: [], skipped: [], asks: [] } };
    }
    case "remove":
      if (there === undefined) return no(at, refusal("show/no-template"));
      return {
        ...still(at, [did("show/template-removed", there.name)]),
        durable: { ...durable, templates: durable.templates.filter((t) => t !== there) },
      };
  }
}

/** A command of a moderator in chat: its orders, with the outcome as an answer. */
function onMessage(at: At, signal: MessageSignal): Outcome {
  const heard: At = isRunning(at.durable) ? { ...at, dust: { heardMs: signal.atMs } } : at;
  if (at.settings.commands.length === 0) return still(heard);
  const [first = "", second = ""] = signal.text.trim().split(/\s+/, 2);
  if (first === "" || first.length > 40) return still(heard);
  const word = fold(first);
  const command = at.settings.commands.find((c) => fold(c.word) === word);
  if (command === undefined) return still(heard);
  if (!mayAs(signal.viewer, command.roles)) return no(heard, refusal("command/role"), command.word);
  const fire = ordersOf(heard, command, second, signal);
  if (!fire.ok) {
    const refused = no(heard, fire.why, command.word);
    return { ...refused, orders: [{ do: "answer", to: signal.viewer.name, note: refused.notes[0] ?? { count: 1 } }] };
  }
  return { ...still(heard, [did("command/done", command.word)]), orders: fire.orders };
}

type Fire = Readonly<{ ok: true; orders: readonly Order[] }> | Readonly<{ ok: false; why: Refusal }>;
function ordersOf(at: At, command: Command, rest: string, signal: MessageSignal): Fire {
  const amount = /^\d{1,15}$/.test(rest) ? Number(rest) : null;
  if (amountDeeds.includes(command.does) && (amount === null || amount < 1))
    return { ok: false, why: refusal("command/amount", { word: command.word }) };
  if (gameDeeds.includes(command.does) && command.game === "") return { ok: false, why: refusal("command/no-game") };
  const by = signal.viewer.name;
  const hand = (hand: Hand, gameId = command.game): Fire => ({
    ok: true,
    orders: [{ do: "hand", gameId, viewer: null, by, answer: true, hand }],
  });
  switch (command.does) {
    case "start":
    case "stop":
      return hand({ do: "switch", on: command.does === "start" });
    case "hit":
      return hand({ do: "damage", amount: amount ?? 0 });
    case "heal":
      return hand({ do: "heal", amount: amount ?? 0 });
    case "undo":
      return hand({ do: "undo" });
    case "start-over":
      return hand({ do: "start-over" });
    case "rules":
      return hand({ do: "tell-rules" });
    case "clear":
      return hand({ do: "clear" });
    case "flock":
      return hand({ do: "flock", count: Math.min(2_000, amount ?? 1), overMs: 2_000, from: "most-used", chosen: [], motion: null });
    case "hush":
    case "release":
      return { ok: true, orders: [{ do: "hush", on: command.does === "hush" }] };
    case "on-air":
    case "rehearse":
    case "end":
      return hand({ do: "show", what: command.does }, "show");
    case "next": {
      const next = nextItem(at.durable);
      if (next === null) return { ok: false, why: refusal("show/nothing-next") };
      return hand({ do: "plan-fire", item: next.id, times: 0 }, "show");
    }
  }
}

/** What comes next in the rundown; null when nothing is left. */
export const nextItem = (show: Pick<ShowDurable, "plan" | "done" | "skipped">): PlanItem | null =>
  inOrder(show.plan.items).find((item) => isOpen(show, item.id)) ?? null;

/**
 * The show: on air, rehearsing or off; its rundown; who is muted; what moderators may do by chat word. A
 * part like a game, without a picture. It hears the platform's "live" and "ended" first, and announces to
 * the others that a show begins or ends, whoever said so.
 */
export const showRules: GameRules<ShowSettings, ShowDurable, ShowDust, never> = {
  kind: "show",
  settings: showSettingsSchema,
  defaults: showDefaults,
  freshDurable: freshShow,
  freshDust: () => ({ heardMs: null }),
  durable: showDurableSchema,
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
  step: (at: At, signal: Signal, _ctx: StepContext): Outcome => {
    switch (signal.kind) {
      case "hand":
        return onHand(at, signal);
      case "message":
        return onMessage(at, signal);
      case "timer":
        return onTimer(at, signal.atMs, signal);
      case "live":
        if (at.durable.state === "on") return still(at);
        if (at.settings.begins === "platform") return begin(at, signal, "on", "the platform", "platform");
        return asked(at, "live", signal.atMs);
      case "ended":
        if (at.durable.state !== "on") return still({ ...at, durable: without(at.durable, "live") });
        if (at.settings.begins === "platform") return finish(at, signal, "the platform", "platform");
        return asked(at, "ended", signal.atMs);
      case "cue":
      case "happened":
        return still(at);
      default:
        return isRunning(at.durable) ? still({ ...at, dust: { heardMs: signal.atMs } }) : still(at);
    }
  },
  view: (_settings, durable, audience) => {
    const { state, show } = durable;
    if (audience !== "operator") return { state, sinceMs: show?.sinceMs ?? null };
    const { plan, done, skipped, asks, muted, templates } = durable;
    return {
      state,
      show,
      plan,
      done,
      skipped,
      asks,
      muted,
      templates: templates.map((t) => ({ id: t.id, name: t.name, things: t.items.length })),
    };
  },
};

const without = (durable: ShowDurable, kind: string): ShowDurable =>
  durable.asks.some((a) => a.kind === kind) ? { ...durable, asks: durable.asks.filter((a) => a.kind !== kind) } : durable;
const asked = (at: At, kind: "live" | "ended", atMs: number): Outcome => {
  if (at.durable.asks.some((a) => a.kind === kind)) return still(at);
  return { ...still(at), durable: { ...at.durable, asks: [...at.durable.asks, { id: kind, kind, sinceMs: atMs, item: "" }] } };
};
