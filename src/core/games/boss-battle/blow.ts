import { mix32 } from "../../kernel/chance";
import type { Kept, Note } from "../../module/module";
import type { Order } from "../../module/order";
import { plus } from "../../signals/rate";
import type { Viewer } from "../../signals/names";
import type { Boss, BossDurable, BossEffect, BossSettings } from "./settings";

/** One blow and all that comes of it: falls, reigns, who comes next (RULES section 3). */
export type Blow = Readonly<{ amount: number; kind: string; viewer: Viewer | null; by: string; atMs: number; seq: number; seed: number }>;
export type Struck = Readonly<{
  durable: BossDurable;
  effects: readonly BossEffect[];
  notes: readonly Note[];
  kept: readonly Kept[];
  orders: readonly Order[];
}>;

export const mostFalls = 20;
const minutesKept = 61;

const minuteOf = (atMs: number): number => Math.floor(atMs / 60_000);
export function withDamage(minutes: BossDurable["minutes"], atMs: number, amount: number): BossDurable["minutes"] {
  const minute = minuteOf(atMs);
  const last = minutes[minutes.length - 1];
  if (last !== undefined && last[0] === minute) return [...minutes.slice(0, -1), [minute, Math.max(0, plus(last[1], amount))]];
  return [...minutes.filter(([m]) => m > minute - minutesKept), [minute, Math.max(0, amount)]];
}

/**
 * What the next boss begins with. *Matched*: the damage of the last K minutes of the show, as long as it
 * would last M minutes at that pace; the base where nobody struck. A show younger than K minutes counts
 * only the minutes it has had.
 */
export function nextHealth(settings: BossSettings, durable: BossDurable, atMs: number): number {
  const { growth, health: base } = settings;
  const under = (value: number): number =>
    Math.min(growth.ceiling > 0 ? growth.ceiling : Number.MAX_SAFE_INTEGER, Number.MAX_SAFE_INTEGER, value);
  switch (growth.how) {
    case "none":
      return base;
    case "step":
      return under(plus(durable.max, growth.step));
    case "percent": {
      const more = (BigInt(durable.max) * BigInt(growth.percent)) / 100n;
      return under(plus(durable.max, Math.max(1, Number(more))));
    }
    case "matched": {
      const now = minuteOf(atMs);
      const startMin = durable.showStartMs === null ? -Infinity : minuteOf(durable.showStartMs);
      const first = Math.max(now - growth.lookBackMin + 1, startMin);
      const sum = durable.minutes.filter(([m]) => m >= first).reduce((a, [, d]) => plus(a, d), 0);
      if (sum === 0) return base;
      const minutes = Math.max(1, Math.min(growth.lookBackMin, now - first + 1));
      const value = (BigInt(sum) * BigInt(growth.lastMin)) / BigInt(minutes);
      const whole = value > BigInt(growth.most) ? growth.most : Number(value);
      return Math.max(growth.least, Math.min(growth.most, whole));
    }
  }
}

/** Whoever struck last, the next of the roster, or the same. Without a viewer: the roster's next, or the same. */
function successor(settings: BossSettings, durable: BossDurable, striker: Viewer | null): { boss: Boss; rosterAt: number } {
  if (settings.next === "same") return { boss: durable.boss, rosterAt: durable.rosterAt };
  if (settings.next === "striker" && striker !== null) {
    // Which vessel a champion wears follows from who they are, so that they know it again.
    let mark = 0;
    for (let i = 0; i < striker.id.length; i += 1) mark = mix32(mark, striker.id.charCodeAt(i));
    const figure = settings.roster[mark % settings.roster.length]?.figure ?? "jug";
    return { boss: { name: striker.name, viewerId: striker.id, figure }, rosterAt: durable.rosterAt };
  }
  const rosterAt = (durable.rosterAt + 1) % settings.roster.length;
  const entry = settings.roster[rosterAt] ?? settings.roster[0];
  return { boss: { name: entry?.name ?? "", viewerId: null, figure: entry?.figure ?? "jug" }, rosterAt };
}

export function strike(settings: BossSettings, given: BossDurable, blow: Blow): Struck {
  const effects: BossEffect[] = [];
  const notes: Note[] = [];
  const kept: Kept[] = [];
  const orders: Order[] = [];
  const { viewer, kind, atMs, by } = blow;
  const name = viewer?.name ?? by;
  const striker = viewer === null ? null : { id: viewer.id, name: viewer.name };
  let durable: BossDurable = { ...given, minutes: withDamage(given.minutes, atMs, blow.amount) };
  let amount = blow.amount;
  for (let falls = 0; ; falls += 1) {
    const before = durable.health;
    const after = Math.max(0, before - amount);
    const facts = { boss: durable.boss.name, health: after, max: durable.max, seq: blow.seq };
    notes.push({ did: "boss/hit", count: amount, subject: name, facts });
    kept.push({
      kind: "hit",
      viewer: striker,
      fromMs: atMs,
      toMs: atMs,
      body: { amount, kind, by, boss: durable.boss.name, before, after },
    });
    if (after > 0) {
      durable = { ...durable, health: after, lastHit: { name, viewerId: viewer?.id ?? null, amount, kind, atMs, seq: blow.seq } };
      effects.push({ do: "hit", amount, kind, name, seed: mix32(blow.seed, falls), health: after, max: durable.max });
      const felt = Math.min(1, (amount / Math.max(1, durable.max)) * 3);
      orders.push({ do: "emit", what: "boss/hit", viewer, amount, text: durable.boss.name, touches: { blow: felt } });
      break;
    }
    const leftover = amount - before;
    const fallen = durable.boss;
    kept.push({
      kind: "reign",
      viewer: fallen.viewerId === null ? null : { id: fallen.viewerId, name: fallen.name },
      fromMs: durable.sinceMs,
      toMs: atMs,
      body: { name: fallen.name, by: name, byId: viewer?.id ?? null, how: kind, health: durable.max, nth: durable.falls + 1 },
    });
    const { boss, rosterAt } = successor(settings, durable, viewer);
    const fresh = nextHealth(settings, durable, atMs);
    const more = settings.carry === "leftover" ? leftover : settings.carry === "whole" ? blow.amount : 0;
    const max = plus(fresh, more);
    durable = {
      ...durable,
      boss,
      rosterAt,
      health: max,
      max,
      sinceMs: Math.max(atMs, durable.sinceMs),
      falls: durable.falls + 1,
      lastHit: null,
    };
    effects.push({ do: "fall", amount, kind, name, fallen, next: boss, seed: mix32(blow.seed, 100 + falls), health: max, max });
    notes.push({ did: "boss/fell", count: 1, subject: fallen.name, facts: { next: boss.name, health: max } });
    orders.push({ do: "emit", what: "boss/fell", viewer, amount: blow.amount, text: fallen.name, touches: { blow: 1, joy: true } });
    if (settings.carry !== "strikes" || leftover <= 0) break;
    if (falls + 1 >= mostFalls) {
      notes.push({ did: "boss/leftover-dropped", count: leftover, facts: { falls: mostFalls } });
      break;
    }
    amount = leftover;
  }
  return { durable, effects, notes, kept, orders };
}
