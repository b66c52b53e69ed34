import { mix32 } from "../../kernel/chance";
import { refusal } from "../../kernel/refusal";
import type { Note, StepContext, StepOutcome } from "../../module/module";
import type { CommandSignal, HappenedSignal, Signal } from "../../signals/signal";
import { nameOf, type Viewer } from "../../signals/names";
import { amountOf } from "../../signals/tiers";
import type { BrimfulCommand } from "./actions";
import { faceLook, type Load, loadsOf, mostPictures, pieceLook, tierOf } from "./dropping";
import { type Coming, dropped, emptied, type Filled, percentFull, settled, stoodUp, tipped } from "./filling";
import { emptyPile, withoutSignal } from "./pile";
import { type BrimfulDurable, type BrimfulEffect, type BrimfulSettings, type DropKind, dropKinds, newTier } from "./settings";
import { brimfulRulesInWords } from "./words";

type At = Readonly<{ settings: BrimfulSettings; durable: BrimfulDurable; transient: null }>;
type Outcome = StepOutcome<BrimfulDurable, null, BrimfulEffect>;

const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, transient: null, effects: [], notes });
const held = (at: At, code: string, facts: Record<string, string | number> = {}): Outcome =>
  still(at, [{ refusal: refusal(code, facts), count: 1 }]);
const done = (filled: Filled): Outcome => ({ ...filled, transient: null });
/** Weaker blows than this share of a whole boss are not felt beyond it. */
const leastBlow = 0.05;
const isDropKind = (kind: string): kind is DropKind => (dropKinds as readonly string[]).includes(kind);

export const freshBrimful = (): BrimfulDurable => ({
  on: true,
  pile: emptyPile,
  waiting: emptyPile,
  lies: null,
  brimmed: false,
  reached: false,
  brims: 0,
  sinceMs: 0,
  nextLook: 1,
  givers: [],
  kept: [],
});

/** When it stands up by itself. */
export const upDueMs = (settings: BrimfulSettings, durable: BrimfulDurable): number | null =>
  durable.lies === null || settings.vessel.upAfterMs === 0 ? null : durable.lies.sinceMs + settings.vessel.upAfterMs;

/** One signal, or one command, through the rules of section 4. */
export function brimfulStep(at: At, signal: Signal, ctx: StepContext): Outcome {
  if (signal.kind === "command") return onCommand(at, signal, ctx);
  if (signal.kind === "timer") return onTimer(at, signal);
  if (signal.kind === "happened") return onTouch(at, signal, ctx);
  // Only at its end is what rounding left over given up.
  if (signal.kind === "ended") return { ...still(at), durable: at.durable.kept.length === 0 ? at.durable : { ...at.durable, kept: [] } };
  return isDropKind(signal.kind) ? onSignal(at, signal.kind, signal, ctx) : still(at);
}

const comingOf = (viewer: Viewer | null, by: string, signal: Signal, amount: number): Coming => ({
  viewer,
  by,
  atMs: signal.atMs,
  seq: signal.seq,
  amount,
  shown: viewer !== null || signal.kind !== "command",
});

function onSignal(at: At, kind: DropKind, signal: Signal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  // What drops nothing says nothing: a chat line is no near miss.
  const quiet = kind === "message";
  if (settings.drops[kind].length === 0) return quiet ? still(at) : held(at, "brimful/no-drop", { kind });
  if (!durable.on) return quiet ? still(at) : held(at, "brimful/off");
  if (signal.kind === "membership" && signal.fromGift !== "" && settings.drops.gift.length > 0) return held(at, "brimful/gift-counted");
  if (amountOf(signal) === null) return held(at, "brimful/currency", { currency: signal.kind === "tip" ? signal.currency : "" });
  const tier = tierOf(settings, kind, signal);
  if (tier === null) return quiet ? still(at) : held(at, "brimful/below", { kind });
  const { loads, kept } = loadsOf(settings, durable.kept, tier, signal, ctx);
  const next: At = kept === durable.kept ? at : { ...at, durable: { ...durable, kept } };
  if (loads.length === 0) return held(next, kept === durable.kept ? "brimful/nothing" : "brimful/not-yet", { kind });
  const viewer = "viewer" in signal ? signal.viewer : null;
  return done(dropped(next.durable, settings, loads, comingOf(viewer, nameOf(viewer), signal, amountOf(signal) ?? 0), ctx));
}

/** What came to pass in another game, as far as it is felt here: said nowhere, it is the other game's news. */
function onTouch(at: At, signal: HappenedSignal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  const { blow = 0, pictures = [], people = [] } = signal.touches ?? {};
  if (!durable.on || signal.touches === undefined) return still(at);
  const loads: readonly Load[] = [
    ...(settings.touch.pictures && pictures.length > 0
      ? [{ look: pieceLook(settings, newTier("touch", { pictures: [...pictures] }), []), count: pictures.length, by: "" }]
      : []),
    ...(settings.touch.people ? people.map((name) => ({ look: faceLook(settings), count: 1, by: name })) : []),
  ];
  const coming = { ...comingOf(null, "", signal, 0), shown: false };
  const filled = loads.length === 0 ? null : dropped(durable, settings, loads, coming, ctx);
  const felt = settings.touch.blows && blow >= leastBlow;
  const shake: readonly BrimfulEffect[] = felt ? [{ do: "shake", seed: mix32(signal.seq, ctx.salt), strength: 0.15 + blow * 0.45 }] : [];
  if (filled === null) return { ...still(at), effects: shake };
  return done({ ...filled, effects: [...filled.effects, ...shake] });
}

function onTimer(at: At, signal: Signal): Outcome {
  const due = upDueMs(at.settings, at.durable);
  if (due === null || signal.atMs < due) return still(at);
  return done(stoodUp(at.durable, at.settings, comingOf(null, "", signal, 0)));
}

function onCommand(at: At, signal: CommandSignal, ctx: StepContext): Outcome {
  const { viewer, by } = signal;
  const { durable, settings } = at;
  const coming = comingOf(viewer, viewer?.name ?? by, signal, 0);
  const seed = mix32(signal.seq, ctx.salt);
  // The engine has read it by the schemas of the actions.
  const command = signal.command as BrimfulCommand;
  switch (command.do) {
    case "switch":
      if (durable.on === command.on) return held(at, command.on ? "brimful/already-on" : "brimful/already-off");
      return {
        ...still(at, [{ did: command.on ? "brimful/switched-on" : "brimful/switched-off", count: 1 }]),
        durable: { ...durable, on: command.on },
      };
    case "drop": {
      if (!durable.on) return held(at, "brimful/off");
      if (command.amount <= 0) return held(at, "brimful/nothing", { kind: "command" });
      if (command.what === "faces" && viewer === null) return held(at, "brimful/no-face");
      const size = command.size === 0 ? settings.size : Math.max(20, command.size);
      const look =
        command.what === "faces"
          ? { ...faceLook(settings), mass: command.mass }
          : pieceLook(settings, newTier("command", { size, mass: command.mass }), []);
      const load: Load = { look, count: command.amount, by: command.what === "faces" ? (viewer?.name ?? "") : "" };
      return done(dropped(durable, settings, [load], { ...coming, amount: command.amount }, ctx));
    }
    case "drop-emotes": {
      if (!durable.on) return held(at, "brimful/off");
      const { chosen } = command.emotes;
      if (command.amount <= 0 || chosen.length === 0) return held(at, "brimful/nothing", { kind: "command" });
      const tier = newTier("command", { pictures: chosen.slice(0, mostPictures) });
      const load: Load = { look: pieceLook(settings, tier, []), count: command.amount, by: "" };
      return done(dropped(durable, settings, [load], { ...coming, amount: command.amount }, ctx));
    }
    case "shake":
      if (!durable.on) return held(at, "brimful/off");
      return {
        ...still(at, [{ did: "brimful/shaken", count: 1, subject: coming.by }]),
        effects: [{ do: "shake", seed, strength: command.strength / 100 }],
      };
    case "tip": {
      if (!durable.on) return held(at, "brimful/off");
      if (settings.vessel.stand !== "free") return held(at, "brimful/stands-fast");
      if (durable.lies !== null) return held(at, "brimful/lies-already");
      const way = command.way === "left" ? -1 : command.way === "right" ? 1 : seed % 2 === 0 ? -1 : 1;
      return done(tipped(durable, settings, way, coming, seed));
    }
    case "upright":
      if (durable.lies === null) return held(at, "brimful/stands-already");
      return done(stoodUp(durable, settings, coming));
    case "empty": {
      const out = emptied(durable, settings, "emptied", coming);
      if (out.kept.length === 0) return held(at, "brimful/empty-already");
      return {
        ...still({ ...at, durable: out.durable }, [{ did: "brimful/emptied", count: 1, subject: coming.by }]),
        effects: [{ do: "empty", seed }],
        kept: out.kept,
      };
    }
    case "remove": {
      if (command.seq === undefined) return still(at);
      const lain = withoutSignal(durable.pile, command.seq);
      const waited = withoutSignal(durable.waiting, command.seq);
      if (lain === null && waited === null) return held(at, "brimful/gone");
      const next = settled({ ...durable, pile: lain?.pile ?? durable.pile, waiting: waited?.pile ?? durable.waiting }, settings);
      return {
        ...still({ ...at, durable: next }, [
          { did: "brimful/removed", count: (lain?.count ?? 0) + (waited?.count ?? 0), facts: { percent: percentFull(next, settings) } },
        ]),
      };
    }
    case "tell-rules":
      return {
        ...still(at, [{ did: "brimful/rules-told", count: 1 }]),
        orders: [
          {
            do: "say",
            text: [`It is ${percentFull(durable, settings)} % full.`, ...brimfulRulesInWords(settings, ctx.homeCurrency)].join(" "),
          },
        ],
      };
  }
}
