import { publicName } from "../signals/names";
import { fold } from "../kernel/fold";
import type { Order } from "../module/order";
import { refusal, type Refusal } from "../kernel/refusal";
import type { Module, StepContext, StepOutcome } from "../module/module";
import { nextDue, type Pending, perform, whatIsDue } from "../rules/effects";
import { cueBookTo2, cueBookTo3, cuesStateTo3, pendingTo2 } from "../rules/migrations";
import { mayAs, type Signal } from "../signals/signal";
import { type Cue, type CueBook, cueBookDefaults, type CueBookDurable, cueBookDurableSchema, cueBookSchema } from "./settings";
import { cuesFront } from "./notes";

export type CueTransient = Readonly<{ fired: Readonly<Record<string, number>> }>;

type At = Readonly<{ settings: CueBook; durable: CueBookDurable; transient: CueTransient }>;

type Outcome = StepOutcome<CueBookDurable, CueTransient, never>;

const still = (at: At): Outcome => ({ durable: at.durable, transient: at.transient, effects: [], notes: [] });

const held = (at: At, why: Refusal, subject: string): Outcome => ({ ...still(at), notes: [{ refusal: why, count: 1, subject }] });

/** When a cue may be fired again, in milliseconds from now; 0 when it may. */
export const coolingMs = (cue: Cue, firedMs: number | undefined, nowMs: number): number =>
  firedMs === undefined ? 0 : Math.max(0, firedMs + cue.cooldownMs - nowMs);

/** A picture that an on/off cue shows stays: it is state, restored after a restart, not an alert. */
const stays = (order: Order): boolean => order.do === "show" && (order.alert.picture !== "" || order.alert.text !== "");

function fire(at: At, cue: Cue, signal: Signal, ctx: StepContext, by: string): Outcome {
  const coolsMs = coolingMs(cue, at.transient.fired[cue.id], signal.atMs);
  // What was paid for is not refused: the reward has a cooldown of its own.
  const paid = signal.kind === "cue" && signal.via === "reward";
  if (coolsMs > 0 && !paid) return held(at, refusal("cue/cooling", { freeInS: Math.ceil(coolsMs / 1000) }), cue.name);
  const isOn = at.durable.on.some((o) => o.cueId === cue.id);
  const turningOff = cue.kind === "on-off" && isOn;
  const cueSignal: Signal = {
    kind: "cue",
    seq: signal.seq,
    atMs: signal.atMs,
    id: signal.id,
    cueId: cue.id,
    by,
    via: "click",
    viewer: null,
  };
  const done = perform(turningOff ? cue.offEffects : cue.effects, cueSignal, ctx, { id: `${signal.seq}.${cue.id}`, hidden: [] });
  // What a cue makes a game do is done in the name of who fired it, as viewers may read it.
  const name = publicName({ by, house: signal.kind === "cue" ? signal.house : undefined });
  const inName = (order: Order): Order => (order.do === "command" ? { ...order, by: name } : order);
  const orders = done.orders.map(inName);
  const later = done.later.map((p) => ({ ...p, orders: p.orders.map(inName) }));
  const sticky = cue.kind === "on-off" && !turningOff ? orders.flatMap((o) => (o.do === "show" && stays(o) ? [o.alert] : [])) : [];
  const on =
    cue.kind === "once"
      ? at.durable.on
      : turningOff
        ? at.durable.on.filter((o) => o.cueId !== cue.id)
        : [...at.durable.on, { cueId: cue.id, sinceMs: signal.atMs, alerts: sticky }];
  const pending: readonly Pending[] = [
    ...(turningOff ? at.durable.pending.filter((p) => !p.id.endsWith(`.${cue.id}`)) : at.durable.pending),
    ...later,
  ];
  const changed = on !== at.durable.on || later.length > 0;
  return {
    durable: changed ? { on, pending: [...pending] } : at.durable,
    transient: { fired: { ...at.transient.fired, [cue.id]: signal.atMs } },
    effects: [],
    notes: [{ did: turningOff ? "cue/off" : cue.kind === "on-off" ? "cue/on" : "cue/fired", count: 1, subject: cue.name, facts: { by } }],
    // A sound that belongs to what stays is played once, when it comes.
    orders: orders.flatMap((o): readonly Order[] =>
      sticky.length > 0 && o.do === "show" && stays(o)
        ? o.alert.sound === ""
          ? []
          : [{ ...o, alert: { ...o.alert, picture: "", text: "" } }]
        : [o],
    ),
  };
}

/** The cues of a channel: a part without a picture of its own, but for what on/off cues keep on it. */
export const cueBook: Module<CueBook, CueBookDurable, CueTransient, never> = {
  ...cuesFront,
  settings: cueBookSchema,
  defaults: cueBookDefaults,
  settingsSteps: [cueBookTo2, cueBookTo3],
  stateSteps: [pendingTo2, cuesStateTo3],
  freshDurable: () => ({ on: [], pending: [] }),
  freshDust: () => ({ fired: {} }),
  durable: cueBookDurableSchema,
  single: true,
  hears: ["message", "cue"],
  onStage: true,
  provides: (book) => ({ cues: book.cues.map((c) => c.id) }),
  chatWords: (book) => book.cues.map((c) => c.word),
  dueMs: (_, durable) => nextDue(durable.pending),
  step: (at, signal, ctx) => {
    switch (signal.kind) {
      case "cue": {
        const cue = at.settings.cues.find((c) => c.id === signal.cueId);
        return cue === undefined ? held(at, refusal("cue/unknown"), "") : fire(at, cue, signal, ctx, signal.by);
      }
      case "message": {
        const word = fold(signal.text).trim();
        if (word === "" || word.length > 60) return still(at);
        const cue = at.settings.cues.find((c) => c.word !== "" && fold(c.word) === word);
        if (cue === undefined) return still(at);
        if (!mayAs(signal.viewer, cue.roles)) return held(at, refusal("cue/role"), cue.name);
        return fire(at, cue, signal, ctx, signal.viewer.name);
      }
      case "timer": {
        const { orders, rest } = whatIsDue(at.durable.pending, signal.atMs);
        return orders.length === 0 ? still(at) : { ...still(at), durable: { ...at.durable, pending: rest }, orders };
      }
      default:
        return still(at);
    }
  },
  view: (settings, durable, audience, transient) => {
    if (audience === "operator")
      return {
        on: durable.on.map((o) => o.cueId),
        cues: settings.cues.map(({ id, name, key, word, kind, cooldownMs, effects }) => ({
          id,
          name,
          key,
          word,
          kind,
          does: effects[0] === undefined ? "" : effects[0].do === "act" ? effects[0].act : effects[0].do,
          /** Until when it rests; 0 when it does not. */
          restsUntilMs: transient?.fired[id] === undefined ? 0 : transient.fired[id] + cooldownMs,
        })),
      };
    if (audience === "viewer") return {};
    // A cue that was removed while on no longer shows anything.
    return { alerts: durable.on.filter((o) => settings.cues.some((c) => c.id === o.cueId)).flatMap((o) => o.alerts) };
  },
};
