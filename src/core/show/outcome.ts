import { Map as Entries } from "immutable";
import type { Order } from "../module/order";
import { refusal, type Refusal } from "../kernel/refusal";
import type { Note } from "../module/module";
import { type Signal } from "../signals/signal";
import { type PlanItem } from "./plan";
import { type ShowDurable, type ShowTransient, type ShowSettings } from "./settings";
import type { Kept, StepOutcome } from "../module/module";

export const minute = 60_000;
export type At = Readonly<{ settings: ShowSettings; durable: ShowDurable; transient: ShowTransient }>;

export type Outcome = StepOutcome<ShowDurable, ShowTransient, never>;

export const still = (at: At, notes: readonly Note[] = []): Outcome => ({
  durable: at.durable,
  transient: at.transient,
  effects: [],
  notes,
});

export const no = (at: At, why: Refusal, subject?: string): Outcome =>
  still(at, [{ refusal: why, count: 1, ...(subject === undefined ? {} : { subject }) }]);

export const did = (name: string, subject: string, facts: Note["facts"] = {}): Note => ({ did: name, count: 1, subject, facts });

export const isRunning = (durable: ShowDurable): boolean => durable.state !== "off";

export const timesStarted = (durable: Pick<ShowDurable, "done">, item: string): number =>
  durable.done.find((d) => d.item === item)?.times ?? 0;

export const isOpen = (durable: Pick<ShowDurable, "done" | "skipped">, item: string): boolean =>
  timesStarted(durable, item) === 0 && !durable.skipped.includes(item);

export function begin(at: At, signal: Signal, state: "on" | "rehearsing", by: string, how: "hand" | "platform"): Outcome {
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
    transient: { heardMs: signal.atMs, asked: Entries() },
    effects: [],
    notes: [did(state === "on" ? "show/on" : "show/rehearsing", by)],
    orders: [
      ...(before?.orders ?? []),
      ...(state === "rehearsing" ? [{ do: "snapshot", what: "keep" } as const] : []),
      { do: "announce", what: "live" },
    ],
    kept: [...(before?.kept ?? [])],
  };
}

export function finish(at: At, signal: Signal, by: string, how: "hand" | "platform" | "silence", endedMs = signal.atMs): Outcome {
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
    transient: at.transient,
    effects: [],
    notes: [did(state === "rehearsing" ? "show/rehearsed" : "show/ended", by, { how })],
    kept: [kept],
    orders: [{ do: "announce", what: "ended" }, ...(state === "rehearsing" ? [{ do: "snapshot", what: "bring-back" } as const] : [])],
  };
}

/** Starts something planned: its orders, and that it was started. */
export function startItem(at: At, item: PlanItem, nowMs: number, by: string, itself: boolean): Outcome {
  const { durable } = at;
  const times = timesStarted(durable, item.id) + 1;
  const orders: Order[] = [];
  const { does } = item;
  if (does.do === "cue") orders.push({ do: "cue", cueId: does.cue, by });
  else if (does.do === "act")
    orders.push({ do: "command", gameId: does.game, viewer: null, by, answer: false, command: { ...does.input, do: does.act } });
  else if (does.do !== "note")
    orders.push({ do: "command", gameId: does.game, viewer: null, by, answer: false, command: { do: "switch", on: does.do === "start" } });
  return {
    durable: {
      ...durable,
      done: [...durable.done.filter((d) => d.item !== item.id), { item: item.id, atMs: nowMs, times }],
      skipped: durable.skipped.filter((s) => s !== item.id),
      asks: durable.asks.filter((a) => a.item !== item.id),
    },
    transient: at.transient,
    effects: [],
    notes: [did("show/started", item.title, { itself, times, by })],
    orders,
  };
}
