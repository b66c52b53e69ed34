import { findEmotes, type FoundEmote } from "../../chat/emotes";
import { mix32 } from "../../kernel/chance";
import { refusal } from "../../kernel/refusal";
import { recent, type Rolling, type Stamp, withStamps } from "../../kernel/rolling";
import type { Note, StepContext, StepOutcome } from "../../module/module";
import { type CommandSignal, mayAs, type MessageSignal, type Signal } from "../../signals/signal";
import type { Viewer } from "../../signals/names";
import { mostUsed, type WallTransient, withUsage } from "./transient";
import { withWorn, wornNow } from "./trims";
import type { WallCommand } from "./actions";
import type { WallDurable, WallEffect, WallSettings } from "./settings";
import { motions } from "./limits";

type At = Readonly<{ settings: WallSettings; durable: WallDurable; transient: WallTransient }>;
type Outcome = StepOutcome<WallDurable, WallTransient, WallEffect>;

const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, transient: at.transient, effects: [], notes });
const held = (code: string, count: number, facts: Record<string, string | number> = {}, subject?: string): Note => ({
  refusal: refusal(code, facts),
  count,
  subject,
});

/**
 * RULES section 2, in its order: on → role → find → once per message → most per message → combo → most per
 * viewer → spawn. Everything held back leaves a note that says why.
 */
export function wallStep(at: At, signal: Signal, ctx: StepContext): Outcome {
  switch (signal.kind) {
    case "message":
      return onMessage(at, signal, ctx);
    case "command":
      return onCommand(at, signal, ctx);
    default:
      return still(at);
  }
}

/** Spawning in the making: what shows, and the changed counts. */
type Draft = {
  keys: string[];
  combos: Rolling;
  viewers: Rolling;
  overLimit: Map<string, { count: number; freeInMs: number; name: string }>;
};

function onMessage(at: At, signal: MessageSignal, ctx: StepContext): Outcome {
  const { settings, durable, transient } = at;
  if (!durable.on) return still(at, [held("wall/off", 1)]);
  if (!mayAs(signal.viewer, settings.roles)) return still(at, [held("wall/role", 1)]);
  const found = findEmotes(signal.text, signal.marks, ctx.emotes, settings.sources);
  if (found.length === 0) return still(at, [held("wall/no-emotes", 1)]);

  const notes: Note[] = [];
  const taken = withinMessage(found, settings, notes);
  const draft: Draft = { keys: [], combos: transient.combos, viewers: transient.viewers, overLimit: new Map() };
  const waiting = new Map<string, { seen: number; copies: number; word: string }>();
  let singlesOff = 0;
  let countedOnce = 0;

  for (const emote of taken) {
    if (!needsCombo(settings, signal.viewer, emote)) {
      if (settings.singles) charge(draft, at, signal, emote.key, signal.viewer.id);
      else singlesOff += 1;
      continue;
    }
    const { combo } = settings;
    const before = recent(draft.combos, emote.key, signal.atMs, combo.withinMs);
    const waited = waiting.get(emote.key);
    if (combo.counted === "viewers" && before.some((s) => s.by === signal.viewer.id)) {
      countedOnce += 1;
      waiting.set(emote.key, { seen: before.length, copies: waited?.copies ?? 0, word: emote.word });
      continue;
    }
    const stamps: readonly Stamp[] = [...before, { atMs: signal.atMs, by: signal.viewer.id }];
    if (stamps.length < combo.needed) {
      draft.combos = withStamps(draft.combos, emote.key, stamps, signal.atMs, combo.withinMs);
      waiting.set(emote.key, { seen: stamps.length, copies: (waited?.copies ?? 0) + 1, word: emote.word });
      continue;
    }
    draft.combos = withStamps(draft.combos, emote.key, [], signal.atMs, combo.withinMs);
    waiting.delete(emote.key);
    // "One" is charged to whoever completed it; "all" to each of those who made it up.
    const payers = combo.spawns === "one" ? [signal.viewer.id] : stamps.map((s) => s.by);
    for (const by of payers) charge(draft, at, signal, emote.key, by);
  }

  if (singlesOff > 0) notes.push(held("wall/singles-off", singlesOff));
  if (countedOnce > 0) notes.push(held("wall/combo-counted-once", countedOnce));
  for (const { seen, copies, word } of waiting.values()) {
    const { needed, withinMs } = settings.combo;
    if (copies > 0) notes.push(held("wall/combo-waiting", copies, { seen, needed, withinS: withinMs / 1000 }, word));
  }
  for (const { count, freeInMs } of draft.overLimit.values()) {
    const { most, withinMs } = settings.perViewer;
    notes.push(held("wall/viewer-limit", count, { most, withinS: withinMs / 1000, freeInS: Math.ceil(freeInMs / 1000) }));
  }
  const next: WallTransient = {
    combos: draft.combos,
    viewers: draft.viewers,
    usage: withUsage(
      transient.usage,
      taken.map((e) => e.key),
      signal.atMs,
    ),
  };
  if (draft.keys.length === 0) return { durable, transient: next, effects: [], notes };
  notes.unshift({ did: "wall/shown", count: draft.keys.length, facts: { seq: signal.seq } });
  const spawn = spawnOf(draft.keys, draft.keys.length, signal.seq, ctx, 0, null, wornNow(settings, durable, signal.atMs));
  return { durable, transient: next, effects: [spawn], notes };
}

function withinMessage(found: readonly FoundEmote[], settings: WallSettings, notes: Note[]): readonly FoundEmote[] {
  let taken = found;
  if (settings.eachOncePerMessage) {
    const seen = new Set<string>();
    taken = found.filter((emote) => !seen.has(emote.key) && seen.add(emote.key));
    if (taken.length < found.length) notes.push(held("wall/repeat", found.length - taken.length));
  }
  const over = taken.length - settings.mostPerMessage;
  if (over <= 0) return taken;
  notes.push(held("wall/most-per-message", over, { most: settings.mostPerMessage }));
  return taken.slice(0, settings.mostPerMessage);
}

const needsCombo = (settings: WallSettings, viewer: Viewer, emote: FoundEmote): boolean =>
  settings.combo.on && mayAs(viewer, settings.combo.roles) && (settings.combo.emoji || !emote.key.startsWith("emoji:"));

/** Lets one emote show at a viewer's charge, or notes that this viewer has had enough for now. */
function charge(draft: Draft, at: At, signal: MessageSignal, key: string, by: string): void {
  const { perViewer } = at.settings;
  if (perViewer.on) {
    const before = recent(draft.viewers, by, signal.atMs, perViewer.withinMs);
    if (before.length >= perViewer.most) {
      // The oldest of the last `most` frees the next place.
      const oldest = before[before.length - perViewer.most]?.atMs ?? signal.atMs;
      const freeInMs = oldest + perViewer.withinMs - signal.atMs;
      const over = draft.overLimit.get(by);
      draft.overLimit.set(by, { count: (over?.count ?? 0) + 1, freeInMs, name: by });
      return;
    }
    draft.viewers = withStamps(draft.viewers, by, [...before, { atMs: signal.atMs, by: "" }], signal.atMs, perViewer.withinMs);
  }
  draft.keys.push(key);
}

const spawnOf = (
  keys: readonly string[],
  count: number,
  seq: number,
  ctx: StepContext,
  overMs: number,
  motion: WallSettings["motion"] | null,
  trims: readonly string[],
): WallEffect => ({
  do: "spawn",
  keys: [...keys],
  count,
  seed: mix32(seq, ctx.salt),
  overMs,
  motion,
  trims: [...trims],
  of: seq,
});

function onCommand(at: At, signal: CommandSignal, ctx: StepContext): Outcome {
  // The engine has read it by the schemas of the actions.
  const command = signal.command as WallCommand;
  switch (command.do) {
    case "switch":
      if (at.durable.on === command.on) return still(at, [held(command.on ? "wall/already-on" : "wall/already-off", 1)]);
      return {
        durable: { ...at.durable, on: command.on },
        transient: at.transient,
        effects: command.on ? [] : [{ do: "clear" }],
        notes: [{ did: command.on ? "wall/switched-on" : "wall/switched-off", count: 1 }],
      };
    case "clear":
      return { ...still(at, [{ did: "wall/cleared", count: 1 }]), effects: [{ do: "clear" }] };
    case "flock": {
      if (!at.durable.on) return still(at, [held("wall/off", 1)]);
      const { minutes } = at.settings.flock;
      const chosen = command.emotes.from === "chosen";
      const keys = chosen ? command.emotes.chosen : mostUsed(at.transient.usage, signal.atMs, minutes);
      if (keys.length === 0) {
        return still(at, [chosen ? held("wall/flock-nothing-chosen", 1) : held("wall/flock-nothing-used", 1, { minutes })]);
      }
      const motion = motions.find((m) => m === command.motion) ?? at.settings.flock.motion;
      const worn = wornNow(at.settings, at.durable, signal.atMs);
      const own = command.trim === "" ? undefined : at.settings.trims[Number(command.trim) - 1];
      if (command.trim !== "" && own === undefined) return still(at, [held("wall/no-trim", 1, { trim: command.trim })]);
      const trims = own === undefined || worn.includes(own.id) ? worn : [...worn, own.id];
      const spawn = spawnOf(keys, command.count, signal.seq, ctx, command.overMs, motion, trims);
      return { ...still(at, [{ did: "wall/flock", count: command.count, facts: { seq: signal.seq } }]), effects: [spawn] };
    }
    case "wear": {
      const on = command.on === "on";
      const next = withWorn(at.settings, at.durable, command.trim, on, command.forMs, signal.atMs);
      if (next === null) return still(at, [held("wall/no-trim", 1, { trim: command.trim })]);
      return { ...still(at, [{ did: on ? "wall/trim-on" : "wall/trim-off", count: command.trim }]), durable: next };
    }
    case "remove":
      if (command.seq === undefined) return still(at);
      return { ...still(at, [{ did: "wall/removed", count: 1 }]), effects: [{ do: "remove", of: command.seq }] };
  }
}
