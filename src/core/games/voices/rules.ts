import { Map as Times } from "immutable";
import { fold } from "../../kernel/fold";
import { refusal, type Refusal } from "../../kernel/refusal";
import { cut } from "../../kernel/text";
import type { Note, StepContext, StepOutcome } from "../../module/module";
import type { Order } from "../../module/order";
import { type CommandSignal, mayAs, type MessageSignal, type Signal, type TipSignal } from "../../signals/signal";
import type { Viewer } from "../../signals/names";
import { hasHidden, showable } from "../../words/template";
import type { VoicesCommand } from "./actions";
import { cleanText, cutToSentence, graphemesOf, spokenName } from "./clean";
import { begin, pass, readingMs } from "./lane";
import { voiceFor } from "./which-voice";
import type { Spoken, VoicesDurable, VoicesSettings } from "./settings";

/** When somebody was heard last, and anybody; lost in a crash, which costs a cooldown at most. */
export type VoicesDust = Readonly<{ own: Times<string, number>; sharedMs: number }>;
export const freshDust = (): VoicesDust => ({ own: Times(), sharedMs: -Infinity });
type At = Readonly<{ settings: VoicesSettings; durable: VoicesDurable; transient: VoicesDust }>;
type Outcome = StepOutcome<VoicesDurable, VoicesDust, never>;
type Facts = Record<string, string | number>;
const mostOwn = 500;
const mostRemembered = 20_000;

const still = ({ durable, transient }: At, notes: readonly Note[] = []): Outcome => ({ durable, transient, effects: [], notes });
const no = (at: At, code: string, facts: Facts = {}): Outcome => still(at, [{ refusal: refusal(code, facts), count: 1 }]);
const passed = (
  at: At,
  durable: VoicesDurable,
  atMs: number,
  ctx: StepContext,
  notes: readonly Note[] = [],
  orders: readonly Order[] = [],
): Outcome => {
  const laned = pass(at.settings, durable, atMs, ctx.hushed);
  return { ...still(at, notes), durable: laned.durable, orders: [...orders, ...laned.orders] };
};

/** One signal, or one command, through the rules of section 16. */
export function voicesStep(at: At, signal: Signal, ctx: StepContext): Outcome {
  switch (signal.kind) {
    case "message":
      return onMessage(at, signal, ctx);
    case "tip":
      return onTip(at, signal, ctx);
    case "timer": {
      const { now } = at.durable;
      // An engine that took too long: the text is left out, and that is said.
      const late = now?.phase === "making" && now.untilMs <= signal.atMs;
      const notes: Note[] = late ? [{ refusal: refusal("voices/engine", { name: now.text.viewer?.name ?? "" }), count: 1 }] : [];
      return passed(at, at.durable, signal.atMs, ctx, notes);
    }
    case "command":
      return onCommand(at, signal, ctx);
    default:
      return still(at);
  }
}

type Wanted = Readonly<{
  text: string;
  marks: MessageSignal["marks"];
  voice: string;
  how: VoicesSettings["how"];
  /** How addresses in it are said, where that is not as set. */
  links?: VoicesSettings["links"];
}>;
/** A text as it is shown and spoken, or why not: the checks in their order. */
function checked(
  at: At,
  wanted: Wanted,
  viewer: Viewer | null,
  atMs: number,
  ctx: StepContext,
  free: boolean,
): Refusal | Omit<Spoken, "n" | "fromMs" | "asks"> {
  const { settings, transient, durable } = at;
  if (!durable.on) return refusal("voices/off");
  if (!free && !mayAs(viewer, settings.roles)) return refusal("voices/role");
  if (hasHidden(wanted.text, ctx.hiddenWords)) return refusal("voices/hidden");
  let plain = cleanText(
    wanted.text,
    { ...settings, links: wanted.links ?? settings.links },
    { emotes: ctx.emotes, marks: wanted.marks, emojiName: ctx.emojiName },
  );
  let shown = showable(wanted.text, ctx.hiddenWords, 400);
  if (plain === "" && (wanted.how !== "shown" || shown === "")) return refusal("voices/empty");
  const ownFree = viewer === null ? 0 : (transient.own.get(viewer.id) ?? -Infinity) + settings.ownRestMs - atMs;
  if (!free && ownFree > 0) return refusal("voices/own-rest", { freeInS: Math.ceil(ownFree / 1000) });
  const sharedFree = transient.sharedMs + settings.sharedRestMs - atMs;
  if (!free && sharedFree > 0) return refusal("voices/shared-rest", { freeInS: Math.ceil(sharedFree / 1000) });
  const letters = graphemesOf(wanted.how === "shown" ? shown : plain).length;
  if (letters > settings.mostLetters) {
    if (settings.tooLong === "refused") return refusal("voices/too-long", { letters, most: settings.mostLetters });
    plain = cutToSentence(plain, settings.mostLetters);
    shown = cutToSentence(shown, settings.mostLetters);
  }
  if (durable.waiting.length >= settings.mostWaiting && (durable.now !== null || durable.waiting.length > 0))
    return refusal("voices/full", { most: settings.mostWaiting });
  const name = viewer === null ? "" : showable(viewer.name, ctx.hiddenWords, 40);
  const aloud = settings.said.find((s) => fold(s.name) === fold(viewer?.name ?? ""))?.as ?? spokenName(name);
  return {
    viewer: viewer === null ? null : { id: viewer.id, name },
    shown: wanted.how === "spoken" ? "" : shown,
    spoken: wanted.how === "shown" ? "" : settings.named && name !== "" ? `${aloud} says: ${plain}` : plain,
    voice: voiceFor(at, wanted.voice, viewer),
  };
}

function onMessage(at: At, signal: MessageSignal, ctx: StepContext): Outcome {
  const { settings } = at;
  const { viewer, text } = signal;
  const first = /^\s*(\S{1,40})/u.exec(text)?.[1] ?? "";
  const word = settings.words.find((w) => fold(w.word) === fold(first));
  // What is a word of something else is not read out.
  if (word === undefined && (!settings.every || first.startsWith("!") || ctx.isWord(first))) return still(at);
  const from = word === undefined ? 0 : text.indexOf(first) + first.length;
  const rest = text.slice(from);
  const marks = signal.marks.flatMap((m) => (m.start >= from ? [{ ...m, start: m.start - from }] : []));
  const made = checked(at, { text: rest, marks, voice: word?.voice ?? "", how: settings.how }, viewer, signal.atMs, ctx, false);
  if ("code" in made) {
    const note: Note = { refusal: made, count: 1 };
    // Only who asked for it hears why not.
    return {
      ...still(at, word === undefined ? [] : [note]),
      ...(word === undefined ? {} : { orders: [{ do: "answer", to: viewer.name, note }] }),
    };
  }
  const own = (at.transient.own.size > mostRemembered ? Times<string, number>() : at.transient.own).set(viewer.id, signal.atMs);
  return {
    ...still(at),
    transient: { own, sharedMs: signal.atMs },
    orders: [
      {
        do: "apart",
        viewer,
        command: { do: "take", shown: made.shown, spoken: made.spoken, voice: made.voice, answer: word !== undefined },
      },
    ],
  };
}

function onTip(at: At, signal: TipSignal, ctx: StepContext): Outcome {
  const { settings } = at;
  if (settings.tipLeast === 0 || (signal.homeMinor ?? 0) < settings.tipLeast || signal.text.trim() === "") return still(at);
  // Nobody wants to hear an address read aloud.
  const wanted: Wanted = { text: signal.text, marks: [], voice: "", how: settings.how, links: "nothing" };
  const made = checked(at, wanted, signal.viewer, signal.atMs, ctx, true);
  if ("code" in made) return still(at, [{ refusal: made, count: 1 }]);
  return take(at, made, signal, ctx);
}

/** Into the lane: to wait its time, for somebody's yes, or for its turn. */
function take(at: At, text: Omit<Spoken, "n" | "fromMs" | "asks">, signal: Signal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  const n = durable.made + 1;
  const waiting: Spoken = { ...text, n, fromMs: signal.atMs + settings.delayMs, asks: settings.approve };
  const voice = settings.voices.find((v) => v.id === text.voice) ?? settings.voices[0];
  const ahead: Order[] = text.spoken === "" || voice === undefined ? [] : [{ do: "speak", n, text: text.spoken, voice, ahead: true }];
  const outcome = passed(at, { ...durable, made: n, waiting: [...durable.waiting, waiting] }, signal.atMs, ctx, [
    {
      did: settings.approve ? "voices/asks" : "voices/taken",
      count: 1,
      subject: text.viewer?.name ?? "",
      facts: { n, text: cut(text.shown || text.spoken, 80) },
    },
  ]);
  // What begins at once is not made twice.
  const begins = outcome.orders?.some((o) => o.do === "speak") === true;
  return {
    ...outcome,
    orders: [...(begins ? [] : ahead), ...(outcome.orders ?? [])],
    kept: [
      {
        kind: "spoken",
        viewer: text.viewer,
        fromMs: signal.atMs,
        toMs: signal.atMs,
        body: {
          text: text.shown || text.spoken,
          voice: text.voice,
          how: text.spoken === "" ? "shown" : text.shown === "" ? "spoken" : "both",
        },
      },
    ],
  };
}

function onCommand(at: At, signal: CommandSignal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  // The engine has read it by its schemas.
  const command = signal.command as VoicesCommand;
  const { atMs } = signal;
  const done = (name: string, part: Partial<VoicesDurable>, subject = ""): Outcome =>
    passed(at, { ...durable, ...part }, atMs, ctx, [{ did: name, count: 1, subject }]);
  switch (command.do) {
    case "switch": {
      if (command.on === durable.on) return no(at, command.on ? "voices/already-on" : "voices/already-off");
      const ended = stopNow(durable);
      return {
        ...done(command.on ? "voices/switched-on" : "voices/switched-off", { on: command.on, now: null, waiting: [] }),
        orders: ended,
      };
    }
    case "say": {
      const how = command.how === "as-set" ? settings.how : (command.how as VoicesSettings["how"]);
      const made = checked(at, { text: command.text, marks: [], voice: command.voice, how }, signal.viewer, atMs, ctx, true);
      return "code" in made ? still(at, [{ refusal: made, count: 1 }]) : take(at, made, signal, ctx);
    }
    case "take": {
      const full = durable.waiting.length >= settings.mostWaiting && (durable.now !== null || durable.waiting.length > 0);
      if (!durable.on) return still(at);
      if (full) {
        const note: Note = { refusal: refusal("voices/full", { most: settings.mostWaiting }), count: 1 };
        return { ...still(at, [note]), ...(command.answer ? { orders: [{ do: "answer", to: signal.by, note }] } : {}) };
      }
      const { viewer } = signal;
      const who = viewer === null ? null : { id: viewer.id, name: showable(viewer.name, ctx.hiddenWords, 40) };
      return take(at, { viewer: who, shown: command.shown, spoken: command.spoken, voice: command.voice }, signal, ctx);
    }
    case "made": {
      const { now } = durable;
      // Too late, or skipped meanwhile.
      if (now?.text.n !== command.n || now.phase !== "making") return still(at);
      const laned = begin(settings, durable, now.text, command.ms, command.url, atMs);
      const { viewer, shown, spoken } = now.text;
      return {
        ...still(at, [
          { did: "voices/said", count: 1, subject: viewer?.name ?? "", facts: { n: command.n, text: cut(shown || spoken, 80) } },
        ]),
        durable: laned.durable,
        orders: [
          ...laned.orders,
          { do: "emit", what: "voices/said", viewer: viewer === null ? null : { ...viewer, roles: [] }, amount: 1, text: shown || spoken },
        ],
      };
    }
    case "not-made": {
      const { now } = durable;
      if (now?.text.n !== command.n || now.phase !== "making") return still(at);
      const note: Note = { refusal: refusal("voices/engine", { name: now.text.viewer?.name ?? "" }), count: 1 };
      // Its words can be read, even if they can't be heard.
      if (now.text.shown !== "") {
        const laned = begin(settings, durable, now.text, readingMs(now.text.shown), null, atMs);
        return { ...still(at, [note]), durable: laned.durable };
      }
      return passed(at, { ...durable, now: null }, atMs, ctx, [note]);
    }
    case "skip": {
      if (durable.now === null) return no(at, "voices/nothing-said");
      const outcome = done("voices/skipped", { now: null, freeMs: atMs + settings.gapMs }, durable.now.text.viewer?.name ?? "");
      return { ...outcome, orders: [...stopNow(durable), ...(outcome.orders ?? [])] };
    }
    case "clear":
      if (durable.waiting.length === 0) return no(at, "voices/nothing-waits");
      return done("voices/cleared", { waiting: [] });
    case "hold":
    case "go-on": {
      const held = command.do === "hold";
      if (held === durable.held) return no(at, held ? "voices/held-already" : "voices/not-held");
      return done(held ? "voices/held" : "voices/goes-on", { held });
    }
    case "approve":
    case "drop": {
      const text = durable.waiting.find((t) => t.n === command.n);
      if (text === undefined || (command.do === "approve" && !text.asks)) return no(at, "voices/decided-already");
      const waiting =
        command.do === "drop"
          ? durable.waiting.filter((t) => t !== text)
          : durable.waiting.map((t) => (t === text ? { ...t, asks: false } : t));
      return done(command.do === "drop" ? "voices/dropped" : "voices/approved", { waiting }, text.viewer?.name ?? "");
    }
    case "voice":
    case "usual-voice":
      return give(at, command, signal, ctx);
  }
}
/** What is heard of it stops on every page. */
const stopNow = ({ now }: VoicesDurable): readonly Order[] =>
  now?.phase === "said" ? [{ do: "end-alert", id: `voice.${now.text.n}.${now.sinceMs}` }] : [];

function give(at: At, command: Extract<VoicesCommand, { do: "voice" | "usual-voice" }>, signal: CommandSignal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  const given = command.do === "voice" ? command.name.trim().replace(/^@/, "") : "";
  const viewer = given === "" ? signal.viewer : ctx.ledgerView.named(given);
  if (viewer === null && ctx.ledgerView.areSeveral(given)) return no(at, "viewer/several", { name: showable(given, ctx.hiddenWords, 40) });
  if (viewer === null) return no(at, "voices/unknown", { name: showable(given, ctx.hiddenWords, 40) });
  const asked = command.do === "voice" ? command.voice.trim() : "";
  const voice = asked === "" ? null : settings.voices.find((v) => v.id === asked || fold(v.name) === fold(asked));
  if (voice === undefined) return no(at, "voices/no-voice", { voice: showable(asked, ctx.hiddenWords, 40) });
  const others = durable.own.filter((o) => o.id !== viewer.id);
  if (voice !== null && others.length >= mostOwn) return no(at, "voices/too-many-own", { most: mostOwn });
  const own = voice === null ? others : [...others, { id: viewer.id, name: viewer.name, voice: voice.id }];
  return {
    ...still(at, [{ did: "voices/given", count: 1, subject: viewer.name, facts: { voice: voice?.name ?? "" } }]),
    durable: { ...durable, own },
  };
}
