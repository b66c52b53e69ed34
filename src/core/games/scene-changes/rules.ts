import { fold } from "../../kernel/fold";
import { refusal } from "../../kernel/refusal";
import type { Note, StepContext, StepOutcome } from "../../module/module";
import type { Order } from "../../module/order";
import type { CommandSignal, Signal } from "../../signals/signal";
import { nameOf } from "../../signals/names";
import { amountOf } from "../../signals/tiers";
import type { StudioCommand } from "./actions";
import { studioNoteInWords } from "./notes";
import { type AnsweredKind, answeredKinds, type Going, type StudioDurable, type StudioSettings } from "./settings";

type At = Readonly<{ settings: StudioSettings; durable: StudioDurable; transient: null }>;
type Outcome = StepOutcome<StudioDurable, null, never>;

/** A studio that says nothing for so long is taken not to have done it. */
const answersWithinMs = 6_000;

const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, transient: null, effects: [], notes });
const no = (at: At, code: string, facts: Record<string, string | number> = {}): Outcome =>
  still(at, [{ refusal: refusal(code, facts), count: 1 }]);
const did = (at: At, what: string, subject: string, durable: StudioDurable, orders: readonly Order[] = [], facts = {}): Outcome => ({
  ...still(at, [{ did: what, count: 1, subject, facts }]),
  durable,
  orders,
});
const isAnswered = (kind: string): kind is AnsweredKind => answeredKinds.some((k) => k === kind);

/** One signal, or one command, through the rules of section 18. */
export function studioStep(at: At, signal: Signal, ctx: StepContext): Outcome {
  if (signal.kind === "command") return onCommand(at, signal, ctx);
  if (signal.kind === "timer") return onTimer(at, signal.atMs);
  if (!isAnswered(signal.kind) || !at.durable.on) return still(at);
  const answer = at.settings.answers[signal.kind];
  if (!answer.on || answer.scene === "") return still(at);
  const amount = amountOf(signal);
  if (amount === null || amount < answer.least) return still(at);
  const by = "viewer" in signal ? nameOf(signal.viewer) : ctx.channelName;
  const { scene, holdMs, onlyIn } = answer;
  return go(at, { scene, holdMs, by, onlyIn }, signal.atMs, ctx);
}

/** A change that does not come says why: in the talk, on the tape, and in what is kept of it. */
function leftOut(
  at: At,
  { scene, by }: Pick<Going, "scene" | "by">,
  atMs: number,
  code: string,
  facts: Record<string, string | number> = {},
): Outcome {
  const note: Note = { refusal: refusal(code, { by, ...facts }), count: 1 };
  return {
    ...still(at, [note]),
    orders: [{ do: "emit", what: "scenes/left-out", viewer: null, amount: 0, text: `${scene}: ${studioNoteInWords(note)}` }],
    kept: [{ kind: "change", viewer: null, fromMs: atMs, toMs: atMs, body: { scene, by, code, facts } }],
  };
}
const and = (first: Outcome, then: Outcome): Outcome => ({
  ...then,
  notes: [...first.notes, ...then.notes],
  orders: [...(first.orders ?? []), ...(then.orders ?? [])],
  kept: [...(first.kept ?? []), ...(then.kept ?? [])],
});
/** All that wait are left out for one reason. */
const noneWaits = (at: At, atMs: number, code: string): Outcome =>
  at.durable.waiting.reduce((all, going) => and(all, leftOut(at, going, atMs, code)), still(at));

/**
 * Whether it may begin. `from` are the scene that is on and, where another one has just held, the scene to which that one goes
 * back: “only from these” means where the show is, not what was shown in between.
 */
const mayGo = ({ onlyIn }: Going, from: readonly (string | null)[]): boolean =>
  onlyIn.length === 0 || from.some((scene) => scene !== null && onlyIn.includes(scene));

/** By its name, as chat writes it: capitals and accents make no other scene, unless there are two such. */
const sceneCalled = ({ studio }: StudioDurable, name: string): string | null =>
  studio.scenes.find((scene) => scene === name) ?? studio.scenes.find((scene) => fold(scene) === fold(name)) ?? null;

/** To a scene, now or when its turn comes. */
function go(at: At, given: Going, atMs: number, ctx: Pick<StepContext, "rehearsing">, from: string | null = null): Outcome {
  const { settings, durable } = at;
  const out = (code: string, facts: Record<string, string | number> = {}): Outcome => leftOut(at, given, atMs, code, facts);
  if (given.scene === "") return no(at, "scenes/no-scene");
  if (!durable.studio.connected) return out("scenes/away");
  const scene = sceneCalled(durable, given.scene);
  if (scene === null) return out("scenes/unknown-scene", { scene: given.scene });
  const going = { ...given, scene };
  const { holdMs } = going;
  const { hold, asked, studio } = durable;
  if (hold === null && asked === null) return mayGo(going, [studio.current, from]) ? ask(at, going, atMs, ctx) : out("scenes/other-scene");
  if (settings.meanwhile === "drop") return out("scenes/holds", { scene: hold?.scene ?? asked?.scene ?? "" });
  if (settings.meanwhile === "extend" && holdMs > 0 && mayGo(going, [studio.current, hold?.back ?? asked?.back ?? null])) {
    if (hold?.scene === scene && asked === null)
      return did(at, "scenes/extended", scene, { ...durable, hold: { ...hold, untilMs: hold.untilMs + holdMs } });
    if (asked?.scene === scene && !asked.returns)
      return did(at, "scenes/extended", scene, { ...durable, asked: { ...asked, holdMs: asked.holdMs + holdMs } });
  }
  if (durable.waiting.length >= settings.mostWaiting) return out("scenes/full", { most: settings.mostWaiting });
  return did(at, "scenes/waits", scene, { ...durable, waiting: [...durable.waiting, going] });
}

/** The studio is asked; what it answers comes as a command. */
function ask(at: At, going: Going, atMs: number, ctx: Pick<StepContext, "rehearsing">, returns = false): Outcome {
  const { durable } = at;
  const { current } = durable.studio;
  if (current === going.scene) return did(at, "scenes/there", going.scene, durable);
  // A rehearsal leaves the studio alone: somebody may be on air with it.
  if (ctx.rehearsing) return did(at, "scenes/rehearsed", going.scene, durable);
  const n = durable.made + 1;
  const asked = { ...going, n, back: current, returns, untilMs: atMs + answersWithinMs };
  return {
    ...still(at),
    durable: { ...durable, made: n, asked, trouble: null },
    orders: [{ do: "studio", n, scene: going.scene }],
  };
}

/** What waits begins as soon as nothing holds any more. What can't be done by then says so. */
function next(outcome: Outcome, at: At, atMs: number): Outcome {
  let now = outcome;
  for (;;) {
    const { durable } = now;
    const [first, ...waiting] = durable.waiting;
    if (first === undefined || durable.hold !== null || durable.asked !== null) return now;
    now = and(now, go({ ...at, durable: { ...durable, waiting } }, first, atMs, { rehearsing: false }));
  }
}

const failed = (durable: StudioDurable, why: string): StudioDurable => ({
  ...durable,
  asked: null,
  trouble: durable.asked === null ? null : { scene: durable.asked.scene, why },
});

function onTimer(at: At, atMs: number): Outcome {
  const { durable } = at;
  if (durable.asked !== null && durable.asked.untilMs <= atMs)
    return next(
      {
        ...leftOut(at, durable.asked, atMs, "scenes/silent", { scene: durable.asked.scene }),
        durable: failed(durable, "it did not answer"),
      },
      at,
      atMs,
    );
  if (durable.hold === null || durable.hold.untilMs > atMs) return still(at);
  return goBack(at, atMs);
}

/** The way back: never late, never over somebody else's hand. */
function goBack(at: At, atMs: number): Outcome {
  const { durable } = at;
  const { hold, studio } = durable;
  if (hold === null) return still(at);
  const free = { ...durable, hold: null };
  if (!studio.connected) {
    const lost = and(no(at, "scenes/no-return", { scene: hold.back }), noneWaits(at, atMs, "scenes/away"));
    return { ...lost, durable: { ...free, waiting: [] } };
  }
  if (studio.current !== hold.scene) return next({ ...still(at), durable: free }, at, atMs);
  if (!studio.scenes.includes(hold.back)) return next({ ...no(at, "scenes/unknown-scene", { scene: hold.back }), durable: free }, at, atMs);
  // Somebody waits: straight on to theirs, and from there back to where all began. Those whose turn comes in vain say so.
  let skipped = still({ ...at, durable: free });
  for (;;) {
    const [first, ...waiting] = skipped.durable.waiting;
    if (first === undefined) break;
    const here = { ...at, durable: { ...skipped.durable, waiting } };
    const gone = go(here, first, atMs, { rehearsing: false }, hold.back);
    const { asked } = gone.durable;
    skipped = and(skipped, gone);
    if (asked !== null) return { ...skipped, durable: { ...gone.durable, asked: { ...asked, back: hold.back } } };
  }
  const going = { scene: hold.back, holdMs: 0, by: hold.by, onlyIn: [] };
  return and(skipped, ask({ ...at, durable: skipped.durable }, going, atMs, { rehearsing: false }, true));
}

function onCommand(at: At, signal: CommandSignal, ctx: StepContext): Outcome {
  // The engine has read it by its schemas.
  const command = signal.command as StudioCommand;
  const { durable } = at;
  const { atMs } = signal;
  switch (command.do) {
    case "switch": {
      if (command.on === durable.on) return no(at, command.on ? "scenes/already-on" : "scenes/already-off");
      const off = command.on ? {} : { hold: null, waiting: [] };
      const done = did(at, command.on ? "scenes/switched-on" : "scenes/switched-off", "", { ...durable, ...off, on: command.on });
      return command.on ? done : and(noneWaits(at, atMs, "scenes/off"), done);
    }
    case "stands":
      return stands(at, command, atMs);
    case "went":
      return went(at, command.n, atMs);
    case "not-went": {
      const { asked } = durable;
      if (asked?.n !== command.n) return still(at);
      return next(
        { ...leftOut(at, asked, atMs, "scenes/refused", { scene: asked.scene, why: command.why }), durable: failed(durable, command.why) },
        at,
        atMs,
      );
    }
    case "switch-to": {
      if (!durable.studio.connected) return no(at, "scenes/away");
      if (!durable.studio.scenes.includes(command.scene)) return no(at, "scenes/unknown-scene", { scene: command.scene });
      // An operator's hand goes before all that holds or waits.
      const free = { ...at, durable: { ...durable, hold: null, waiting: [], asked: null } };
      return and(
        noneWaits(at, atMs, "scenes/by-hand"),
        ask(free, { scene: command.scene, holdMs: 0, by: signal.by, onlyIn: [] }, atMs, ctx),
      );
    }
    case "go":
      if (!durable.on) return no(at, "scenes/off");
      return go(at, { scene: command.scene.trim(), holdMs: command.holdMs, by: signal.by, onlyIn: [] }, atMs, ctx);
    case "back":
      return durable.hold === null ? no(at, "scenes/nothing-holds") : goBack(at, atMs);
  }
}

function stands(at: At, told: Extract<StudioCommand, { do: "stands" }>, atMs: number): Outcome {
  const { durable } = at;
  const { connected, name, current } = told;
  const scenes = [...told.scenes];
  if (!connected) {
    const lost = durable.asked === null && durable.waiting.length === 0;
    const gone = { ...durable, studio: { ...durable.studio, connected }, asked: null, waiting: [], trouble: null };
    if (!durable.studio.connected && lost) return still(at);
    const { asked: wanted } = durable;
    const told = wanted === null || wanted.returns ? still(at) : leftOut(at, wanted, atMs, "scenes/away");
    return { ...(lost ? still(at) : and(told, noneWaits(at, atMs, "scenes/away"))), durable: gone };
  }
  const now = { ...durable, studio: { connected, name, scenes, current } };
  const { hold, asked } = now;
  // Somebody moved on by hand, or another rule did: there is nothing to go back from.
  const moved = hold !== null && asked === null && current !== hold.scene;
  if (moved) return next(did(at, "scenes/moved-on", current ?? "", { ...now, hold: null }), at, atMs);
  return JSON.stringify(now.studio) === JSON.stringify(durable.studio) ? still(at) : { ...still(at), durable: now };
}

function went(at: At, n: number, atMs: number): Outcome {
  const { durable } = at;
  const { asked } = durable;
  if (asked?.n !== n) return still(at);
  const { scene, holdMs, by, back, returns } = asked;
  const studio = { ...durable.studio, current: scene };
  const hold = returns || holdMs === 0 || back === null ? null : { scene, holdMs, by, onlyIn: [], back, untilMs: atMs + holdMs };
  const told: Order = { do: "emit", what: "scenes/switched", viewer: null, amount: 0, text: scene };
  const change = { kind: "change", viewer: null, fromMs: atMs, toMs: atMs, body: { scene, by, code: returns ? "back" : "", facts: {} } };
  const outcome = did(at, returns ? "scenes/returned" : "scenes/went", scene, { ...durable, studio, asked: null, hold }, [told], { by });
  return next({ ...outcome, kept: [change] }, at, atMs);
}

export function studioDue({ hold, asked }: StudioDurable): number | null {
  if (asked !== null) return asked.untilMs;
  return hold?.untilMs ?? null;
}
