import { fold } from "../../kernel/fold";
import { refusal, type Refusal } from "../../kernel/refusal";
import type { Note, StepContext } from "../../module/module";
import type { MessageSignal, Signal, TipSignal } from "../../signals/signal";
import { type Asked, asked, bought } from "./asking";
import { onCommand } from "./on-command";
import { answered, type At, failed, type Outcome, passed, still } from "./outcome";
import { creditOf, credited, withoutCredit } from "./settling";
import type { ClipsDurable, ClipsSettings, Pay } from "./settings";
import { mayCome, taken, type Wanted } from "./taking";

/** One signal, or one command, through the rules of section 17. */
export function clipsStep(at: At, signal: Signal, ctx: StepContext): Outcome {
  switch (signal.kind) {
    case "message":
      return onMessage(at, signal, ctx);
    case "tip":
      return onTip(at, signal, ctx);
    case "timer":
      return onTimer(at, signal.atMs, ctx.hushed);
    case "command":
      return onCommand(at, signal, ctx);
    default:
      return still(at);
  }
}

function onTimer(at: At, atMs: number, hushed: boolean): Outcome {
  let outcome = still(at);
  for (const clip of at.durable.queue.filter((c) => c.phase === "making" && c.lateMs <= atMs))
    outcome = failed(outcome, clip, refusal("clips/too-slow"), atMs);
  return passed(at, outcome, atMs, hushed);
}

function onMessage(at: At, { viewer, text, atMs }: MessageSignal, ctx: StepContext): Outcome {
  const first = /^\s*(\S{1,40})/u.exec(text)?.[1] ?? "";
  if (fold(first) !== fold(at.settings.word)) return still(at);
  const of = asked(text.slice(text.indexOf(first) + first.length));
  const why = of === null ? refusal("clips/no-address", { word: at.settings.word }) : null;
  if (of === null || why !== null) return answered(still(at, [{ refusal: why ?? refusal("clips/no-address"), count: 1 }]), viewer.name);
  const early = mayCome(at, { asked: of, source: "", viewer, free: false, atMs }, ctx);
  if (early !== null) return answered(still(at, [{ refusal: early, count: 1 }]), viewer.name);
  // In a turn of its own, so that it has a number of its own: what is paid by it is paid once.
  return { ...still(at), orders: [{ do: "apart", viewer, command: { do: "take", ...of, source: "", answer: true } }] };
}
/** What a tip asks for. One that only has a link in it is a tip, and none of ours: the word says what is wanted. */
function askedByTip({ tips, word }: Pick<ClipsSettings, "tips" | "word">, text: string): Asked | null {
  const named = text.split(/\s+/u).some((w) => fold(w) === fold(word));
  return tips.perSecond === 0 || !named ? null : asked(text);
}
/** A tip that names a clip is for us, also where it is refused. */
export const takesText = (settings: ClipsSettings, _durable: ClipsDurable, signal: Signal): boolean =>
  signal.kind === "tip" && askedByTip(settings, signal.text) !== null;

function onTip(at: At, signal: TipSignal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  const { viewer, atMs } = signal;
  const of = askedByTip(settings, signal.text);
  if (of === null) return still(at);
  const minor = signal.homeMinor;
  const say = (why: Refusal, keptForNext = false): Outcome => {
    const note: Note = { refusal: why, count: 1, subject: viewer?.name ?? "", facts: { keptForNext } };
    return { ...still(at, [note]), ...(viewer === null ? {} : { orders: [{ do: "answer", to: viewer.name, note }] }) };
  };
  if (minor === null) return say(refusal("clips/no-rate", { currency: signal.currency }));
  const credit = viewer === null ? 0 : creditOf(durable, viewer.id);
  const buys = bought(settings, minor, credit);
  const wanted: Wanted = { asked: of, source: "", viewer, free: true, atMs };
  const why = "code" in buys ? { ...buys, facts: { ...buys.facts, currency: ctx.homeCurrency } } : mayCome(at, wanted, ctx);
  if ("code" in buys || why !== null) {
    // What was given is theirs still: for the next, or to be given back by hand.
    const note = say(why ?? refusal("clips/off"), viewer !== null);
    if (viewer !== null) return { ...note, durable: credited(durable, viewer, minor, { currency: ctx.homeCurrency, atMs }) };
    const owed = {
      id: durable.made + 1,
      viewer: null,
      minor,
      currency: ctx.homeCurrency,
      why: "no clip was shown for it",
      title: of.title,
      atMs,
    };
    return { ...note, durable: { ...durable, made: durable.made + 1, owed: [...durable.owed, owed] } };
  }
  const left =
    viewer === null ? durable : credited(withoutCredit(durable, viewer.id), viewer, buys.rest, { currency: ctx.homeCurrency, atMs });
  const pay: Pay = { by: "money", amount: buys.paid, perSecond: settings.tips.perSecond, currency: ctx.homeCurrency };
  return taken({ ...at, durable: left }, wanted, buys.seconds, pay, ctx);
}
