import { refusal } from "../../kernel/refusal";
import type { Note, StepContext } from "../../module/module";
import type { CommandSignal } from "../../signals/signal";
import { showable } from "../../words/template";
import type { ClipsCommand } from "./actions";
import { asked, fromForm, secondsAsked } from "./asking";
import { begun, ended, nextOf, opensMs, plays } from "./lane";
import { answered, type At, failed, laid, leftOut, no, type Outcome, passed, still } from "./outcome";
import { byPoints, mayCome, taken } from "./taking";
import { both, credited, openedMs, shortened } from "./settling";
import { type Clip, clipFactsSchema, type ClipsDurable } from "./settings";

const mostBarred = 500;

export function onCommand(at: At, signal: CommandSignal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  // The engine has read it by its schemas.
  const command = signal.command as ClipsCommand;
  const { atMs, viewer } = signal;
  const did = (name: string, part: Partial<ClipsDurable>, subject = "", facts: Note["facts"] = {}): Outcome =>
    passed(at, { ...still(at, [{ did: name, count: 1, subject, facts }]), durable: { ...durable, ...part } }, atMs, ctx.hushed);
  switch (command.do) {
    case "switch":
      return switched(at, command.on, atMs);
    case "send": {
      const of = asked(command.text);
      if (of === null) return giveSaleBack(no(at, "clips/no-address", { word: settings.word }), signal.sale);
      const wanted = { asked: of, source: "", viewer, free: true, atMs };
      const why = mayCome(at, wanted, ctx);
      // Who bought it with a reward gets that back.
      if (why !== null) return giveSaleBack(still(at, [{ refusal: why, count: 1, subject: viewer?.name ?? "" }]), signal.sale);
      const pay = signal.sale === undefined ? ({ by: "nothing" } as const) : ({ by: "sale", sale: signal.sale } as const);
      return taken(at, wanted, Math.min(command.seconds, secondsAsked(settings, settings.mostMs)), pay, ctx);
    }
    case "take": {
      const { address, source, startMs, ms, title } = command;
      const wanted = { asked: { address, startMs, ms, title }, source, viewer, free: false, atMs };
      const outcome = byPoints(at, wanted, signal.seq, ctx);
      return command.answer ? answered(outcome, signal.by) : outcome;
    }
    case "mine": {
      const of = fromForm(command);
      return "code" in of
        ? still(at, [{ refusal: of, count: 1 }])
        : byPoints(at, { asked: of, source: command.source, viewer, free: false, atMs }, signal.seq, ctx);
    }
    case "withdraw":
    case "drop": {
      const clip = durable.queue.find((c) => c.n === command.n);
      if (clip === undefined || (command.do === "withdraw" && clip.viewer?.id !== viewer?.id)) return no(at, "clips/gone");
      const note: Note = {
        did: command.do === "drop" ? "clips/dropped" : "clips/withdrawn",
        count: 1,
        subject: clip.viewer?.name ?? "",
        facts: { n: clip.n },
      };
      return passed(at, leftOut(still(at, [note]), clip, "it was left out", atMs), atMs, ctx.hushed);
    }
    case "filmed":
      return filmed(at, command, atMs, ctx.hushed);
    case "not-filmed": {
      const clip = durable.queue.find((c) => c.n === command.n && c.phase === "making");
      if (clip === undefined) return still(at);
      return passed(at, failed(still(at), clip, refusal(command.code, command.facts), atMs), atMs, ctx.hushed);
    }
    case "seen":
      if (durable.now?.clip.n !== command.n || durable.now.seen) return still(at);
      return { ...still(at), durable: { ...durable, now: { ...durable.now, seen: true } } };
    case "approve": {
      const clip = durable.queue.find((c) => c.n === command.n);
      if (clip?.phase !== "asks") return no(at, "clips/decided");
      return did(
        "clips/approved",
        { queue: durable.queue.map((c) => (c === clip ? { ...c, phase: "waits" } : c)) },
        clip.viewer?.name ?? "",
        { n: clip.n },
      );
    }
    case "play":
    case "own":
    case "again":
    case "replay":
      return byHand(at, command, atMs, ctx);
    case "unveil":
    case "veil": {
      const { now } = durable;
      if (now === null) return no(at, "clips/nothing");
      const shown = command.do === "unveil";
      if (now.shown === shown) return no(at, shown ? "clips/shown-already" : "clips/hidden-already");
      const next = { ...now, shown, seenMs: openedMs(now, atMs), openMs: shown ? Math.max(atMs, now.sinceMs + opensMs) : null };
      return did(shown ? "clips/shown" : "clips/hidden", { now: next }, now.clip.viewer?.name ?? "", { n: now.clip.n });
    }
    case "skip": {
      if (durable.now === null) return no(at, "clips/nothing");
      const { clip } = durable.now;
      const note: Note = { did: "clips/skipped", count: 1, subject: clip.viewer?.name ?? "", facts: { n: clip.n } };
      return laid(at, still(at, [note]), ended(settings, durable, true, atMs), atMs);
    }
    case "hold":
    case "go-on": {
      const held = command.do === "hold";
      if (held === durable.held) return no(at, held ? "clips/held-already" : "clips/not-held");
      return did(held ? "clips/held" : "clips/goes-on", { held });
    }
    case "front":
    case "move":
      return moved(at, command.n, command.do === "front" ? -Infinity : command.by);
    case "settled":
    case "credit": {
      const note = durable.owed.find((o) => o.id === command.n);
      if (note === undefined || (command.do === "credit" && note.viewer === null)) return no(at, "clips/decided");
      const left = { ...durable, owed: durable.owed.filter((o) => o !== note) };
      const next = command.do === "credit" ? credited(left, note.viewer, note.minor, { currency: note.currency, atMs }) : left;
      return did(command.do === "credit" ? "clips/credited" : "clips/settled", next, note.viewer?.name ?? "");
    }
    case "bar":
    case "let-back":
    case "bar-file":
    case "let-file":
      return barring(at, command, atMs, ctx);
  }
}
const giveSaleBack = (outcome: Outcome, sale: string | undefined): Outcome =>
  sale === undefined ? outcome : { ...outcome, orders: [...(outcome.orders ?? []), { do: "give-back", sale }] };

function switched(at: At, on: boolean, atMs: number): Outcome {
  const { settings, durable } = at;
  if (on === durable.on) return no(at, on ? "clips/already-on" : "clips/already-off");
  const note: Note = { did: on ? "clips/switched-on" : "clips/switched-off", count: 1 };
  let outcome: Outcome = { ...still(at, [note]), durable: { ...durable, on } };
  if (on) return outcome;
  if (durable.now !== null) outcome = laid(at, outcome, ended(settings, outcome.durable, true, atMs), atMs);
  // Nobody waits for nothing: what will not be shown is given back.
  for (const clip of durable.queue) outcome = leftOut(outcome, clip, "clips were switched off", atMs);
  return outcome;
}

/** It is made: what it turned out to be decides whether it is shown. */
function filmed(at: At, command: Extract<ClipsCommand, { do: "filmed" }>, atMs: number, hushed: boolean): Outcome {
  const { settings, durable } = at;
  const clip = durable.queue.find((c) => c.n === command.n && c.phase === "making");
  const facts = clipFactsSchema.safeParse(command.facts);
  // Taken out meanwhile, or given up: what came of it is for nobody.
  if (clip === undefined) return still(at);
  const fails = (code: string, of: Record<string, string | number> = {}): Outcome =>
    passed(at, failed(still(at), clip, refusal(code, of), atMs), atMs, hushed);
  if (!facts.success) return fails("video/broken");
  const { flashes, flashesAtMs, black, audible } = facts.data;
  if (durable.barred.files.some((f) => f.sha === command.sha)) return fails("clips/barred-file");
  if (flashes !== "none" && settings.flashes === "refuse")
    return fails("clips/flashes", { atS: Math.floor(flashesAtMs / 1000), red: flashes === "red" ? 1 : 0 });
  if (black && settings.black === "refuse") return fails("clips/black");
  if (!audible && settings.silent === "refuse") return fails("clips/silent");
  const short = shortened(durable, clip, facts.data.ms, atMs);
  const made: Clip = { ...short.clip, facts: facts.data, sha: command.sha, phase: settings.approve ? "asks" : "waits" };
  const note: Note = {
    did: settings.approve ? "clips/asks" : "clips/made",
    count: 1,
    subject: clip.viewer?.name ?? "",
    facts: { n: clip.n },
  };
  const queue = durable.queue.map((c) => (c === clip ? made : c));
  const outcome = { ...still(at, [note]), durable: { ...short.durable, queue } };
  return passed(at, both(outcome, short, clip.viewer), atMs, hushed);
}

/** Begun by hand: the next, one of the channel's own, or one that was shown already. Nobody pays for these. */
function byHand(
  at: At,
  command: Extract<ClipsCommand, { do: "play" | "own" | "again" | "replay" }>,
  atMs: number,
  ctx: StepContext,
): Outcome {
  const { settings, durable } = at;
  if (!durable.on) return no(at, "clips/off");
  if (command.do === "play") {
    if (durable.now !== null) return no(at, "clips/plays-already");
    const next = nextOf(durable);
    return next === undefined
      ? no(at, "clips/nothing-waits")
      : { ...still(at, [plays(next)]), durable: begun(settings, durable, next, atMs) };
  }
  const n = durable.made + 1;
  const free = { n, pay: { by: "nothing" } as const, askedMs: atMs, phase: "waits" as const, lateMs: 0 };
  let clip: Clip;
  if (command.do === "own") {
    const film = ctx.filmOf(command.picture);
    if (film === null) return no(at, "clips/no-film");
    const flashes = film.flashing.length > 0 ? ("general" as const) : ("none" as const);
    const none = { black: false, flashes, flashesAtMs: film.flashing[0]?.[0] ?? 0, strip: null };
    clip = {
      ...free,
      viewer: null,
      address: "",
      source: "",
      title: film.name,
      startMs: 0,
      ms: film.ms,
      facts: { ...none, ...film },
      sha: "",
    };
  } else {
    const last = command.do === "again" ? durable.lately[0] : durable.lately.find((c) => c.n === command.n);
    if (last === undefined) return no(at, "clips/nothing-lately");
    const { atMs: _, ended: __, ...of } = last;
    if (durable.barred.files.some((f) => f.sha === of.sha && f.sha !== "")) return no(at, "clips/barred-file");
    clip = { ...of, ...free };
  }
  if (durable.queue.length >= settings.mostWaiting) return no(at, "clips/full", { most: settings.mostWaiting });
  const note: Note = { did: "clips/waits", count: 1, subject: clip.viewer?.name ?? "", facts: { n, title: clip.title } };
  return passed(at, { ...still(at, [note]), durable: { ...durable, made: n, queue: [...durable.queue, clip] } }, atMs, ctx.hushed);
}

function moved(at: At, n: number, by: number): Outcome {
  const queue = [...at.durable.queue];
  const from = queue.findIndex((c) => c.n === n);
  const [clip] = from < 0 ? [] : queue.splice(from, 1);
  if (clip === undefined) return no(at, "clips/gone");
  queue.splice(Math.max(0, Math.min(queue.length, from + by)), 0, clip);
  return { ...still(at, [{ did: "clips/moved", count: 1, subject: clip.viewer?.name ?? "" }]), durable: { ...at.durable, queue } };
}

function barring(
  at: At,
  command: Extract<ClipsCommand, { do: "bar" | "let-back" | "bar-file" | "let-file" }>,
  atMs: number,
  ctx: StepContext,
): Outcome {
  const { durable } = at;
  const { viewers, files } = durable.barred;
  const changed = (did: string, barred: ClipsDurable["barred"], subject: string): Outcome => ({
    ...still(at, [{ did, count: 1, subject }]),
    durable: { ...durable, barred },
  });
  if (command.do === "let-file") {
    const file = files.find((f) => f.sha === command.sha);
    return file === undefined
      ? no(at, "clips/decided")
      : changed("clips/let-file", { viewers, files: files.filter((f) => f !== file) }, file.title);
  }
  if (command.do === "bar-file") {
    const all = [...(durable.now === null ? [] : [durable.now.clip]), ...durable.queue, ...durable.lately];
    const clip = all.find((c) => c.n === command.n);
    if (clip === undefined || clip.sha === "") return no(at, "clips/gone");
    const more = [...files.filter((f) => f.sha !== clip.sha), { sha: clip.sha, title: clip.title || clip.address.slice(0, 80) }].slice(
      -mostBarred,
    );
    return cleared(at, changed("clips/barred-file", { viewers, files: more }, clip.title), (c) => c.sha === clip.sha, atMs);
  }
  const name = command.name.trim().replace(/^@/, "");
  if (ctx.ledgerView.areSeveral(name)) return no(at, "viewer/several", { name: showable(name, ctx.hiddenWords, 40) });
  const known = ctx.ledgerView.named(name) ?? durable.queue.find((c) => c.viewer?.name === name)?.viewer ?? null;
  if (command.do === "let-back") {
    const before = viewers.find((v) => v.id === known?.id || v.name === name);
    return before === undefined
      ? no(at, "clips/not-barred", { name: showable(name, ctx.hiddenWords, 40) })
      : changed("clips/let-back", { viewers: viewers.filter((v) => v !== before), files }, before.name);
  }
  if (known === null) return no(at, "clips/unknown", { name: showable(name, ctx.hiddenWords, 40) });
  const more = [...viewers.filter((v) => v.id !== known.id), known].slice(-mostBarred);
  const outcome = changed("clips/barred", { viewers: more, files }, known.name);
  return cleared(at, outcome, (c) => c.viewer?.id === known.id, atMs);
}

/** What is barred while it waits or plays goes at once; what never showed is given back. */
function cleared(at: At, given: Outcome, goes: (clip: Clip) => boolean, atMs: number): Outcome {
  let outcome = given;
  const { now } = outcome.durable;
  if (now !== null && goes(now.clip)) outcome = laid(at, outcome, ended(at.settings, outcome.durable, true, atMs), atMs);
  for (const clip of outcome.durable.queue.filter(goes)) outcome = leftOut(outcome, clip, "it was left out", atMs);
  return outcome;
}
