import { chanceFrom, mix32, shuffled } from "../../kernel/chance";
import { fold } from "../../kernel/fold";
import { refusal } from "../../kernel/refusal";
import type { Note, StepContext, StepOutcome } from "../../module/module";
import { type CommandSignal, mayAs, type MessageSignal, type Signal } from "../../signals/signal";
import { nameOf, type Viewer } from "../../signals/names";
import { fillTemplate, showable } from "../../words/template";
import type { CompanionCommand } from "./actions";
import {
  type Answer,
  type Askable,
  type CompanionDurable,
  type CompanionSettings,
  fullMood,
  moodAt,
  moodFallsMs,
  thousandthsAt,
} from "./settings";

/** When somebody wrote last; lost in a crash, after which it is as if somebody just had. */
export type CompanionDust = Readonly<{ heardMs: number | null }>;
export const freshDust = (): CompanionDust => ({ heardMs: null });
type At = Readonly<{ settings: CompanionSettings; durable: CompanionDurable; transient: CompanionDust }>;
type Outcome = StepOutcome<CompanionDurable, CompanionDust, never>;

const minute = 60_000;
const mostNext = 6;
/** How long it does each thing, when it says nothing. */
const lasts: Readonly<Record<Askable, number>> = {
  greet: 2_600,
  dance: 6_000,
  sleep: 0,
  eat: 3_200,
  startle: 1_800,
  cheer: 2_600,
  speak: 2_200,
};

const still = ({ durable, transient }: At, notes: readonly Note[] = []): Outcome => ({ durable, transient, effects: [], notes });
const no = (at: At, code: string, facts: Record<string, string | number> = {}): Outcome =>
  still(at, [{ refusal: refusal(code, facts), count: 1 }]);

/** One signal, or one command, through the rules of section 15. */
export function companionStep(given: At, signal: Signal, ctx: StepContext): Outcome {
  const at = comesIn.has(signal.kind) ? joined(given, signal.atMs, ctx) : given;
  const { settings, durable } = at;
  if (signal.kind === "command") return onCommand(at, signal, ctx);
  if (signal.kind === "live" || signal.kind === "ended") return onShow(at, signal, ctx);
  if (signal.kind === "timer") return onTimer(at, signal.atMs);
  if (!durable.on) return still(at);
  switch (signal.kind) {
    case "message":
      return onMessage(at, signal, ctx);
    case "arrival":
      return hello(at, signal.viewer, signal, ctx);
    case "follow":
    case "membership":
    case "gift":
    case "tip":
      return settings.cheers[signal.kind] ? does(awake(at, signal.atMs), "cheer", "", signal.atMs, "companion/cheers") : still(at);
    case "raid":
      return settings.startles.raid ? does(awake(at, signal.atMs), "startle", "", signal.atMs, "companion/startles") : still(at);
    case "happened": {
      const { blow = 0, joy = false } = signal.touches ?? {};
      // What another game tells wakes it; a light blow does not.
      if (settings.cheers.luck && joy) return does(awake(at, signal.atMs), "cheer", "", signal.atMs, "companion/cheers");
      if (settings.startles.blow && blow >= 0.5) return does(awake(at, signal.atMs), "startle", "", signal.atMs, "companion/startles");
      return still(at);
    }
    default:
      return still(at);
  }
}

/** What comes from outside: what else is done in the turn that ends a show must not begin it again. */
const comesIn: ReadonlySet<Signal["kind"]> = new Set(["arrival", "follow", "membership", "gift", "tip", "raid"]);
/** One that was added in the middle of a show heard nobody say that it began: it takes part from now on. */
function joined(at: At, atMs: number, ctx: StepContext): At {
  const { durable, settings } = at;
  if (durable.showing || ctx.showId === null) return at;
  const now = { ...durable, showing: true, mood: { ...durable.mood, atMs } };
  return { ...at, durable: { ...now, lookMs: lookFrom(settings, now, atMs) } };
}

/** Something to do: now, or after what it does already; beyond a few, what would come is left out. */
function does(at: At, state: Askable, bubble: string, atMs: number, note: string): Outcome {
  const { settings, durable } = at;
  if (durable.next.length >= mostNext) return no(at, "companion/busy");
  const n = durable.made + 1;
  const ms = bubble === "" ? lasts[state] : Math.max(lasts[state], settings.bubbleMs);
  const queued = { ...durable, made: n, next: [...durable.next, { n, state, bubble, ms }] };
  return { ...still(at, [{ did: note, count: 1, subject: settings.name }]), durable: pass(queued, atMs) };
}

/** Ends what is over, and begins what may begin by now. */
function pass(given: CompanionDurable, atMs: number): CompanionDurable {
  const durable = given.doing !== null && given.doing.untilMs <= atMs ? { ...given, doing: null } : given;
  const [first, ...next] = durable.next;
  if (durable.doing !== null || first === undefined) return durable;
  const { ms, ...rest } = first;
  return { ...durable, next, doing: { ...rest, sinceMs: atMs, untilMs: atMs + ms } };
}

const awake = (at: At, atMs: number): At =>
  at.durable.asleep ? { ...at, durable: { ...at.durable, asleep: false, lookMs: lookFrom(at.settings, at.durable, atMs) } } : at;
const lookFrom = ({ sleepMin }: CompanionSettings, { showing }: CompanionDurable, atMs: number): number | null =>
  sleepMin === 0 || !showing ? null : atMs + sleepMin * minute;

function onShow(at: At, { kind, atMs, seq }: Signal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  const begins = kind === "live";
  const mood = { thousandths: thousandthsAt(durable, settings.moodPerHour, atMs), atMs };
  const seed = begins ? mix32(seq, ctx.salt) : durable.seed;
  const now = { ...durable, mood, seed, showing: begins, asleep: false, dancing: false, doing: null, next: [], rests: [] };
  return { ...still({ ...at, durable: { ...now, lookMs: lookFrom(settings, now, atMs) } }), transient: { heardMs: begins ? atMs : null } };
}

function onTimer(at: At, atMs: number): Outcome {
  const { settings, durable, transient } = at;
  const fallsMs = moodFallsMs(durable, settings.moodPerHour);
  const fallen =
    fallsMs === null || fallsMs > atMs
      ? durable
      : { ...durable, mood: { thousandths: thousandthsAt(durable, settings.moodPerHour, atMs), atMs } };
  const passed = pass(fallen, atMs);
  if (passed.lookMs === null || passed.lookMs > atMs || passed.asleep) return { ...still(at), durable: passed };
  // After a restart nobody is known to have been silent.
  const heardMs = transient.heardMs ?? atMs;
  const due = heardMs + settings.sleepMin * minute;
  if (settings.sleepMin === 0 || due > atMs)
    return { ...still(at), transient: { heardMs }, durable: { ...passed, lookMs: settings.sleepMin === 0 ? null : due } };
  return {
    ...still(at, [{ did: "companion/sleeps", count: 1, subject: settings.name }]),
    durable: { ...passed, asleep: true, lookMs: null },
  };
}

function onMessage(given: At, signal: MessageSignal, ctx: StepContext): Outcome {
  const at: At = { ...given, transient: { heardMs: signal.atMs } };
  const { settings, durable } = at;
  const first = /^\s*(\S{1,40})/u.exec(signal.text)?.[1] ?? "";
  const answer = first === "" ? undefined : settings.answers.find((a) => fold(a.word) === fold(first));
  const apart = (command: CompanionCommand): Outcome => ({ ...still(at), orders: [{ do: "apart", viewer: signal.viewer, command }] });
  // What a message leads to is done in a turn of its own, so that its emotes fly at once.
  if (answer === undefined) return durable.asleep ? apart({ do: "wake" }) : still(at);
  if (!mayAs(signal.viewer, answer.roles)) return no(at, "companion/role");
  const restsMs = restOf(durable, answer.word, signal.atMs);
  if (restsMs > 0) return no(at, "companion/rests", { freeInS: Math.ceil(restsMs / 1000) });
  const rest = signal.text.slice(signal.text.indexOf(first) + first.length);
  return apart({ do: "answer", word: answer.word, text: showable(rest, ctx.hiddenWords, 80) });
}

const said = (bubble: string, viewer: Viewer | null, text: string, at: At, atMs: number, ctx: StepContext): string =>
  fillTemplate(bubble, {
    viewer: showable(nameOf(viewer), ctx.hiddenWords, 40),
    text,
    channel: ctx.channelName,
    mood: moodAt(at.durable, at.settings.moodPerHour, atMs),
  });

/** Greets by name, in lines that do not come again until all were said. */
function hello(given: At, viewer: Viewer, signal: Signal, ctx: StepContext): Outcome {
  const at = awake(given, signal.atMs);
  const { hello: lines, ignored } = at.settings;
  if (lines.length === 0 || viewer.roles.includes("streamer")) return still(given);
  if (ignored.some((name) => fold(name) === fold(viewer.name) || name === viewer.id)) return still(given);
  const kept = at.durable.lines?.of === lines.length ? at.durable.lines : { of: lines.length, left: [], last: -1 };
  const fresh = (): number[] => {
    const order = shuffled(
      lines.map((_, i) => i),
      chanceFrom(mix32(signal.seq, ctx.salt)),
    );
    return order.length > 1 && order[0] === kept.last ? [...order.slice(1), kept.last] : order;
  };
  const [first = 0, ...left] = kept.left.length === 0 ? fresh() : kept.left;
  const durable = { ...at.durable, lines: { of: lines.length, left, last: first } };
  return does({ ...at, durable }, "greet", said(lines[first] ?? "", viewer, "", at, signal.atMs, ctx), signal.atMs, "companion/greets");
}

const restOf = ({ rests }: CompanionDurable, word: string, atMs: number): number =>
  Math.max(0, (rests.find(([of]) => of === fold(word))?.[1] ?? 0) - atMs);
/** Words that rest, with this one: those that do no longer are dropped. */
function rested({ rests }: CompanionDurable, { word, restMs }: Answer, atMs: number): CompanionDurable["rests"] {
  const others = rests.filter(([of, untilMs]) => untilMs > atMs && of !== fold(word));
  return restMs === 0 ? others : [...others, [fold(word), atMs + restMs]];
}
function sleeps(at: At, rests: CompanionDurable["rests"] = at.durable.rests): Outcome {
  const { settings, durable } = at;
  if (durable.asleep) return no(at, "companion/asleep-already");
  return {
    ...still(at, [{ did: "companion/sleeps", count: 1, subject: settings.name }]),
    durable: { ...durable, rests, asleep: true, dancing: false, lookMs: null, doing: null, next: [] },
  };
}

function onCommand(given: At, signal: CommandSignal, ctx: StepContext): Outcome {
  // The engine has read it by its schemas.
  const command = signal.command as CompanionCommand;
  const { settings, durable } = given;
  const { atMs, viewer } = signal;
  if (command.do === "switch") {
    if (command.on === durable.on) return no(given, command.on ? "companion/already-on" : "companion/already-off");
    const name = command.on ? "companion/switched-on" : "companion/switched-off";
    return { ...still(given, [{ did: name, count: 1 }]), durable: { ...durable, on: command.on, doing: null, next: [] } };
  }
  if (!durable.on) return no(given, "companion/off");
  const at = awake(given, atMs);
  switch (command.do) {
    case "wake":
      return { ...still(at, given.durable.asleep ? [{ did: "companion/wakes", count: 1, subject: settings.name }] : []) };
    case "answer": {
      const answer = settings.answers.find((a) => a.word === command.word);
      if (answer === undefined) return still(given);
      // Two may have written it before the first was stored.
      const restsMs = restOf(durable, answer.word, atMs);
      if (restsMs > 0) return no(given, "companion/rests", { freeInS: Math.ceil(restsMs / 1000) });
      if (answer.state === "sleep") return sleeps(given, rested(durable, answer, atMs));
      const now = { ...at, durable: { ...at.durable, rests: rested(at.durable, answer, atMs) } };
      return does(now, answer.state, said(answer.bubble, viewer, command.text, at, atMs, ctx), atMs, "companion/answers");
    }
    case "do": {
      if (command.state === "sleep") return sleeps(given);
      const bubble = said(showable(command.bubble, ctx.hiddenWords, 120), viewer, "", at, atMs, ctx);
      // The engine has read it by its choices.
      return does(at, command.state as Askable, bubble, atMs, "companion/does");
    }
    case "dance":
      if (durable.dancing) return no(given, "companion/dancing-already");
      return { ...still(at, [{ did: "companion/dances", count: 1, subject: settings.name }]), durable: { ...at.durable, dancing: true } };
    case "calm":
      if (!durable.dancing) return no(given, "companion/not-dancing");
      return { ...still(given, [{ did: "companion/calms", count: 1, subject: settings.name }]), durable: { ...durable, dancing: false } };
    case "feed": {
      const before = thousandthsAt(at.durable, settings.moodPerHour, atMs);
      const thousandths = Math.min(fullMood, before + command.amount * 1_000);
      const fed = { ...at.durable, fed: at.durable.fed + 1, mood: { thousandths, atMs } };
      const outcome = does({ ...at, durable: fed }, "eat", "", atMs, "companion/eats");
      return {
        ...outcome,
        // However busy it is, the food counts.
        notes: [
          {
            did: "companion/eats",
            count: 1,
            subject: settings.name,
            facts: { amount: command.amount, mood: Math.floor(thousandths / 1_000) },
          },
        ],
        orders: [{ do: "emit", what: "companion/fed", viewer, amount: command.amount, text: nameOf(viewer) }],
      };
    }
  }
}

export function companionDue({ moodPerHour }: CompanionSettings, durable: CompanionDurable): number | null {
  const { doing, next, lookMs } = durable;
  const dues = [doing?.untilMs, doing === null && next.length > 0 ? 0 : null, lookMs, moodFallsMs(durable, moodPerHour)];
  return dues.reduce<number | null>((first, due) => (due != null && (first === null || due < first) ? due : first), null);
}
