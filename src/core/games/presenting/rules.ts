import { fold } from "../../kernel/fold";
import { refusal } from "../../kernel/refusal";
import { cut } from "../../kernel/text";
import type { Note, StepContext, StepOutcome } from "../../module/module";
import type { Order } from "../../module/order";
import type { CommandSignal, Signal } from "../../signals/signal";
import { fillTemplate, showable } from "../../words/template";
import type { PresentingCommand } from "./actions";
import type { Person, PresentingDurable, PresentingSettings } from "./settings";

type At = Readonly<{ settings: PresentingSettings; durable: PresentingDurable; transient: null }>;
type Outcome = StepOutcome<PresentingDurable, null, never>;
type Facts = Record<string, string | number | boolean>;

/** Whom the platform does not tell of for so long is not waited for. */
export const askedMs = 20_000;
const mostAsked = 20;
const mostLately = 200;
const mostName = 60;

const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, transient: null, effects: [], notes });
const no = (at: At, code: string, facts: Facts = {}): Outcome => still(at, [{ refusal: refusal(code, facts), count: 1 }]);

/** One signal, or one command, through the rules of section 14. */
export function presentingStep(at: At, signal: Signal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  switch (signal.kind) {
    case "raid":
      if (!durable.on || settings.raidLeast === 0 || signal.viewers < settings.raidLeast) return still(at);
      return ask(at, signal.viewer.name, signal.viewer.name, false, signal, ctx);
    case "timer": {
      const asked = durable.asked.filter((a) => a.atMs + askedMs > signal.atMs);
      const given = durable.asked.filter((a) => !asked.includes(a));
      const passed = pass(settings, { ...durable, asked }, signal.atMs);
      return {
        durable: passed,
        transient: null,
        effects: [],
        notes: given.map((a) => ({ refusal: refusal("presenting/late", { name: a.name }), count: 1 })),
        orders: given.filter((a) => a.answer).map((a) => tell(tooLate(a.name))),
      };
    }
    case "command":
      return onCommand(at, signal, ctx);
    default:
      return still(at);
  }
}

const tooLate = (name: string): string => `${name} could not be found in time. Try again in a moment.`;
const tell = (text: string): Order => ({ do: "say", text });

/** Looks for somebody; what the platform tells comes back as a command. */
function ask(at: At, given: string, by: string, hand: boolean, signal: Signal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  // Half of what people type begins with the sign that addresses somebody.
  const name = cut(given.trim().replace(/^@+/, ""), mostName);
  const shown = showable(name, ctx.hiddenWords, 40);
  if (shown === "" || /\s/.test(name)) return no(at, "presenting/no-name");
  if (durable.asked.some((a) => fold(a.name) === fold(name))) return no(at, "presenting/asked-already", { name: shown });
  if (durable.asked.length >= mostAsked || durable.waiting.length + durable.asked.length > settings.mostWaiting)
    return no(at, "presenting/full", { most: settings.mostWaiting });
  const last = durable.lately.findLast(([who]) => who === fold(name))?.[1];
  if (!hand && last !== undefined && signal.atMs - last < settings.againMs)
    return no(at, "presenting/again", { name: shown, freeInS: Math.ceil((last + settings.againMs - signal.atMs) / 1000) });
  return {
    ...still(at, [{ did: "presenting/asked", count: 1, subject: shown }]),
    durable: { ...durable, asked: [...durable.asked, { name, by, atMs: signal.atMs, answer: hand }] },
    orders: [{ do: "look-up", name }],
  };
}

/** Ends what is over, and begins what may begin by now. */
function pass(settings: PresentingSettings, given: PresentingDurable, atMs: number): PresentingDurable {
  const durable = given.now !== null && given.now.untilMs <= atMs ? { ...given, now: null } : given;
  const [next, ...waiting] = durable.waiting;
  if (durable.now !== null || durable.freeMs > atMs || next === undefined) return durable;
  const untilMs = atMs + settings.showMs;
  return { ...durable, now: { person: next, untilMs }, freeMs: untilMs + settings.gapMs, waiting };
}

export function presentingDue({ asked, now, waiting, freeMs }: PresentingDurable): number | null {
  const dues = [...asked.map((a) => a.atMs + askedMs), now?.untilMs, waiting.length > 0 ? Math.max(freeMs, now?.untilMs ?? 0) : undefined];
  return dues.reduce<number | null>((first, due) => (due !== undefined && (first === null || due < first) ? due : first), null);
}

function onCommand(at: At, signal: CommandSignal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  // The engine has read it by its schemas.
  const command = signal.command as PresentingCommand;
  switch (command.do) {
    case "switch":
      if (command.on === durable.on) return no(at, command.on ? "presenting/already-on" : "presenting/already-off");
      return {
        ...still(at, [{ did: command.on ? "presenting/switched-on" : "presenting/switched-off", count: 1 }]),
        durable: { ...durable, on: command.on, asked: [], now: null, waiting: [] },
      };
    case "present": {
      if (!durable.on) return no(at, "presenting/off");
      // A rule's or a reward's comes with a viewer; a hand's, a cue's and a moderator's word without.
      const hand = signal.viewer === null;
      return ask(at, command.name.trim() === "" ? (signal.viewer?.name ?? "") : command.name, signal.by, hand, signal, ctx);
    }
    case "found":
    case "not-found": {
      const asked = durable.asked.find((a) => fold(a.name) === fold(command.name));
      // Too late, or it was switched off meanwhile.
      if (asked === undefined) return still(at);
      const rest = durable.asked.filter((a) => a !== asked);
      const name = showable(asked.name, ctx.hiddenWords, 40);
      if (command.do === "not-found")
        return {
          ...no(at, command.late ? "presenting/late" : command.away ? "presenting/no-answer" : "presenting/not-found", { name }),
          durable: { ...durable, asked: rest },
          orders: asked.answer
            ? [
                tell(
                  command.late
                    ? tooLate(name)
                    : command.away
                      ? `${name} could not be looked for: the platform does not answer.`
                      : `Nobody called ${name} was found.`,
                ),
              ]
            : [],
        };
      return present(at, { ...durable, asked: rest }, asked.by, { ...command, name }, signal, ctx);
    }
    case "skip": {
      if (durable.now === null) return no(at, "presenting/nothing-shown");
      return {
        ...still(at, [{ did: "presenting/skipped", count: 1, subject: durable.now.person.name }]),
        durable: pass(settings, { ...durable, now: null, freeMs: signal.atMs }, signal.atMs),
      };
    }
    case "clear":
      if (durable.waiting.length === 0) return no(at, "presenting/nobody-waits");
      return { ...still(at, [{ did: "presenting/cleared", count: durable.waiting.length }]), durable: { ...durable, waiting: [] } };
  }
}

function present(
  at: At,
  durable: PresentingDurable,
  by: string,
  found: Readonly<{ name: string; page: string; topic: string; about: string }>,
  signal: Signal,
  ctx: StepContext,
): Outcome {
  const { settings } = at;
  const person: Person = {
    n: durable.made + 1,
    name: found.name,
    page: cut(found.page, 300),
    topic: showable(found.topic, ctx.hiddenWords, 120),
    about: showable(found.about, ctx.hiddenWords, 200),
  };
  const queued = { ...durable, made: person.n, waiting: [...durable.waiting, person] };
  const lately: PresentingDurable["lately"] = [
    ...durable.lately.filter(([who]) => who !== fold(person.name)),
    [fold(person.name), signal.atMs],
  ];
  const { n: _, ...values } = person;
  const reply = fillTemplate(settings.reply, { ...values, channel: ctx.channelName })
    .replace(/\s+/g, " ")
    .trim();
  return {
    ...still(at, [{ did: "presenting/presented", count: 1, subject: person.name, facts: { page: person.page } }]),
    durable: pass(settings, { ...queued, lately: lately.slice(-mostLately) }, signal.atMs),
    orders: [
      ...(reply === "" ? [] : [tell(reply)]),
      { do: "emit", what: "presenting/presented", viewer: null, amount: 1, text: person.name, touches: { people: [person.name] } },
    ],
    kept: [
      {
        kind: "presented",
        viewer: null,
        fromMs: signal.atMs,
        toMs: signal.atMs,
        body: { name: person.name, page: person.page, topic: person.topic, about: person.about, by },
      },
    ],
  };
}
