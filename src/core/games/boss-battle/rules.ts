import { mix32 } from "../../kernel/chance";
import { refusal } from "../../kernel/refusal";
import type { Kept, Note, StepContext, StepOutcome } from "../../module/module";
import { earnedBy, plus } from "../../signals/rate";
import type { CommandSignal, Signal } from "../../signals/signal";
import { nameOf, type Viewer } from "../../signals/names";
import { amountOf } from "../../signals/tiers";
import { strike, withDamage } from "./blow";
import type { BossCommand } from "./actions";
import { type BossDurable, type BossEffect, type BossSettings, type HitKind, hitKinds } from "./settings";
import { bossRulesInWords } from "./words";

type At = Readonly<{ settings: BossSettings; durable: BossDurable; transient: null }>;
type Outcome = StepOutcome<BossDurable, null, BossEffect>;
const mostKept = 2_000;

const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, transient: null, effects: [], notes });
const held = (at: At, code: string, facts: Record<string, string | number> = {}): Outcome =>
  still(at, [{ refusal: refusal(code, facts), count: 1 }]);
const isHitKind = (kind: string): kind is HitKind => (hitKinds as readonly string[]).includes(kind);

export const freshBoss = (settings: BossSettings): BossDurable => ({
  on: true,
  health: settings.health,
  max: settings.health,
  boss: { name: settings.roster[0]?.name ?? "", viewerId: null, figure: settings.roster[0]?.figure ?? "jug" },
  sinceMs: 0,
  rosterAt: 0,
  falls: 0,
  lastHit: null,
  showStartMs: null,
  kept: [],
  minutes: [],
});

/** One signal, or one command, through the rules of section 3. Nothing is chance but the seeds of its motion. */
export function bossStep(given: At, signal: Signal, ctx: StepContext): Outcome {
  // The first boss reigns from the first signal it meets.
  const at: At =
    given.durable.sinceMs === 0 && signal.kind !== "message" ? { ...given, durable: { ...given.durable, sinceMs: signal.atMs } } : given;
  if (signal.kind === "command") return onCommand(at, signal, ctx);
  if (signal.kind === "live" || signal.kind === "ended")
    return { ...still(at), durable: { ...at.durable, kept: [], showStartMs: signal.kind === "live" ? signal.atMs : null } };
  if (isHitKind(signal.kind)) return onSignal(given, at, signal.kind, signal, ctx);
  return still(given);
}

/** What a signal would do by itself: its amount by the blank's rate, its remainder, and its limit. */
function damageOf(at: At, kind: HitKind, signal: Signal): Readonly<{ value: number; kept: BossDurable["kept"] }> {
  const blank = at.settings.hits[kind];
  const amount = kind === "membership" && at.settings.hits.membership.by === "each" ? 1 : (amountOf(signal) ?? 0);
  const viewer = "viewer" in signal ? signal.viewer : null;
  const key = viewer === null ? null : `${viewer.id} ${kind}`;
  const { value, remainders } = earnedBy(key, blank.rate, amount, at.durable.kept, mostKept);
  return { value: blank.most > 0 ? Math.min(blank.most, value) : value, kept: remainders };
}

function onSignal(given: At, at: At, kind: HitKind, signal: Signal, ctx: StepContext): Outcome {
  const blank = at.settings.hits[kind];
  // What does nothing says nothing: a chat line is no near miss.
  if (blank.rate.give === 0) return kind === "message" ? still(given) : held(given, "boss/no-damage", { kind });
  if (!at.durable.on) return kind === "message" ? still(given) : held(given, "boss/off");
  if (signal.kind === "membership" && signal.fromGift !== "" && at.settings.hits.gift.rate.give > 0)
    return held(given, "boss/gift-counted");
  if (amountOf(signal) === null) return held(given, "boss/currency", { currency: signal.kind === "tip" ? signal.currency : "" });
  const { value, kept } = damageOf(at, kind, signal);
  const next: At = kept === at.durable.kept ? at : { ...at, durable: { ...at.durable, kept } };
  if (value <= 0) return { ...held(next, "boss/not-yet", { kind }), durable: next.durable };
  const viewer = "viewer" in signal ? signal.viewer : null;
  return blow(next, value, kind, viewer, nameOf(viewer), signal, ctx);
}

/** A blow of whoever: the champion's own heals, does nothing, or hurts like anyone's. */
function blow(at: At, amount: number, kind: string, viewer: Viewer | null, by: string, signal: Signal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  const own = viewer !== null && durable.boss.viewerId === viewer.id;
  if (own && settings.champion.own === "nothing") return { ...held(at, "boss/champion-idle"), durable };
  if (own && settings.champion.own === "heal")
    return heal(at, amount, kind, viewer, by, settings.champion.healing === "endless", signal, ctx);
  const struck = strike(settings, durable, {
    amount,
    kind,
    viewer,
    by,
    atMs: signal.atMs,
    seq: signal.seq,
    seed: mix32(signal.seq, ctx.salt),
  });
  return { ...struck, transient: null };
}

function heal(
  at: At,
  amount: number,
  kind: string,
  viewer: Viewer | null,
  by: string,
  endless: boolean,
  signal: Signal,
  ctx: StepContext,
): Outcome {
  const { durable } = at;
  const full = endless ? Number.MAX_SAFE_INTEGER : Math.max(durable.max, durable.health);
  const health = Math.min(full, plus(durable.health, amount));
  const gained = health - durable.health;
  if (gained <= 0) return { ...held(at, "boss/full", { boss: durable.boss.name }), durable };
  const name = viewer?.name ?? by;
  const facts = { boss: durable.boss.name, health, max: durable.max };
  const kept: Kept = {
    kind: "heal",
    viewer: viewer === null ? null : { id: viewer.id, name: viewer.name },
    fromMs: signal.atMs,
    toMs: signal.atMs,
    body: { amount: gained, kind, by, boss: durable.boss.name, before: durable.health, after: health },
  };
  return {
    durable: { ...durable, health },
    transient: null,
    effects: [{ do: "heal", amount: gained, name, seed: mix32(signal.seq, ctx.salt), health, max: durable.max }],
    notes: [{ did: "boss/healed", count: gained, subject: name, facts }],
    kept: [kept],
    orders: [
      {
        do: "emit",
        what: "boss/healed",
        viewer,
        amount: gained,
        text: durable.boss.name,
      },
    ],
  };
}

function onCommand(at: At, signal: CommandSignal, ctx: StepContext): Outcome {
  const { viewer, by } = signal;
  const { durable, settings } = at;
  // The engine has read it by the schemas of the actions.
  const command = signal.command as BossCommand;
  switch (command.do) {
    case "switch":
      if (durable.on === command.on) return held(at, command.on ? "boss/already-on" : "boss/already-off");
      return {
        ...still(at, [{ did: command.on ? "boss/switched-on" : "boss/switched-off", count: 1 }]),
        durable: { ...durable, on: command.on },
      };
    case "damage":
      if (!durable.on) return held(at, "boss/off");
      if (command.amount <= 0) return held(at, "boss/no-damage", { kind: "command" });
      return blow(at, command.amount, viewer === null ? "operator" : "rule", viewer, by, signal, ctx);
    case "heal":
      if (!durable.on) return held(at, "boss/off");
      if (command.amount <= 0) return held(at, "boss/no-damage", { kind: "command" });
      return heal(at, command.amount, viewer === null ? "operator" : "rule", viewer, by, false, signal, ctx);
    case "undo": {
      const { lastHit } = durable;
      if (lastHit === null) return held(at, "boss/nothing-to-undo");
      // Another hit came in between: taking that one back would wrong somebody else.
      if (command.seq !== undefined && command.seq !== lastHit.seq) return held(at, "boss/not-the-last", { boss: durable.boss.name });
      // A heal may have come since: what is taken back never lifts it above what it may be.
      const full = settings.champion.healing === "endless" ? Number.MAX_SAFE_INTEGER : Math.max(durable.max, durable.health);
      const health = Math.min(full, plus(durable.health, lastHit.amount));
      const kept: Kept = {
        kind: "undo",
        viewer: null,
        fromMs: signal.atMs,
        toMs: signal.atMs,
        body: { amount: lastHit.amount, of: lastHit.name, by, boss: durable.boss.name, before: durable.health, after: health },
      };
      return {
        durable: { ...durable, health, lastHit: null, minutes: withDamage(durable.minutes, signal.atMs, -lastHit.amount) },
        transient: null,
        effects: [{ do: "mend", seed: mix32(signal.seq, ctx.salt), health, max: durable.max }],
        notes: [{ did: "boss/undone", count: lastHit.amount, subject: lastHit.name, facts: { health, max: durable.max } }],
        kept: [kept],
      };
    }
    case "start-over": {
      // Ends the reign without anyone having felled it: it is kept, and told as such.
      const fresh = freshBoss(settings);
      const next: BossDurable = { ...fresh, on: durable.on, sinceMs: signal.atMs, showStartMs: durable.showStartMs };
      const kept: Kept = {
        kind: "reign",
        viewer: durable.boss.viewerId === null ? null : { id: durable.boss.viewerId, name: durable.boss.name },
        fromMs: durable.sinceMs,
        toMs: signal.atMs,
        body: { name: durable.boss.name, by, byId: null, how: "start-over", health: durable.max, nth: durable.falls + 1 },
      };
      return {
        durable: next,
        transient: null,
        effects: [{ do: "mend", seed: mix32(signal.seq, ctx.salt), health: next.health, max: next.max }],
        notes: [{ did: "boss/started-over", count: 1, facts: { boss: next.boss.name, health: next.health } }],
        kept: [kept],
      };
    }
    case "tell-rules":
      return {
        ...still(at, [{ did: "boss/rules-told", count: 1 }]),
        orders: [{ do: "say", text: bossRulesInWords(settings, ctx.homeCurrency).join(" ") }],
      };
  }
}
