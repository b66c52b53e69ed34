import { isGame } from "../../core/games/fronts";
import type { GameId } from "../../core/kernel/ids";
import { ok, refusal, type Refusal, type Result } from "../../core/kernel/refusal";
import { readStored, settingsVersion, storedInWords } from "../../core/kernel/stored";
import type { AnyModule, Provided } from "../../core/module/module";
import { moduleOf } from "../../core/modules";
import type { Signal } from "../../core/signals/signal";
import type { ChannelRow, GameRow } from "../ports/engine-store";

/** A module as it runs on one channel: its settings, and where it stands. */
export type Running = {
  id: GameId;
  kind: string;
  name: string;
  rules: AnyModule;
  version: number;
  settings: unknown;
  durable: unknown;
  transient: unknown;
};
/** What games hear beside their own commands and timers: what the crowd and the platform send. */
const crowdKinds: ReadonlySet<Signal["kind"]> = new Set([
  "message",
  "follow",
  "membership",
  "gift",
  "tip",
  "reaction",
  "raid",
  "host",
  "purchase",
  "live",
  "ended",
]);
export const hears = ({ rules }: Running, kind: Signal["kind"]): boolean => rules.hears?.includes(kind) ?? crowdKinds.has(kind);

/** The modules of a channel: read from what is stored, and never written over where that can't be read. */
export class Modules {
  list: readonly Running[] = [];
  /** Those that do not run, since what is stored of them can't be read. */
  unreadable: readonly Readonly<{ name: string; what: "settings" | "state"; why: Refusal }>[] = [];
  /** States as they are committed: where memory goes back to. */
  private readonly committed = new Map<string, unknown>();

  constructor(private readonly onError?: (what: string, error: unknown) => void) {}

  /** New settings between two signals; states stay as they are in memory. */
  load(row: ChannelRow): void {
    const before = new Map(this.list.map((m) => [m.id, m]));
    const unreadable: { name: string; what: "settings" | "state"; why: Refusal }[] = [];
    this.list = row.games.flatMap((game): Running[] => {
      const { id, kind, name, version } = game;
      const no = (what: "settings" | "state", why: Refusal): Running[] => {
        // It does not run, and nothing of it is written over: what can't be read now may be read by the right version.
        unreadable.push({ name, what, why });
        this.onError?.(`the ${what} of ${name} can't be read; it does not run`, new Error(storedInWords(why)));
        return [];
      };
      const rules = moduleOf(kind);
      if (rules === null) return no("settings", refusal("stored/unreadable", { why: `there is no kind of game called ${kind}` }));
      const settings = readStored<unknown>(rules.settings, rules.settingsSteps, settingsVersion(game.settings), game.settings);
      if (!settings.ok) return no("settings", settings.refusal);
      const old = before.get(id);
      if (old !== undefined) return [{ ...old, name, version, settings: settings.value }];
      const durable = stateOf(game, rules, settings.value);
      if (!durable.ok) return no("state", durable.refusal);
      return [{ id, kind, name, rules, version, settings: settings.value, durable: durable.value, transient: rules.freshDust() }];
    });
    this.unreadable = unreadable;
    for (const m of this.list) if (!this.committed.has(m.id)) this.committed.set(m.id, m.durable);
  }

  /** States as they are stored, after a commit whose outcome is unknown. */
  readAgain(row: ChannelRow): void {
    this.list = this.list.filter((m) => {
      const game = row.games.find((g) => g.id === m.id);
      const kept = game === undefined ? null : stateOf(game, m.rules, m.settings);
      if (kept?.ok !== true) return false;
      m.durable = kept.value;
      this.committed.set(m.id, m.durable);
      return true;
    });
  }

  settle(states: ReadonlyMap<string, unknown>): void {
    for (const [id, durable] of states) this.committed.set(id, durable);
  }
  takeBack(): void {
    for (const m of this.list) if (this.committed.has(m.id)) m.durable = this.committed.get(m.id);
  }

  byId(id: string): Running | undefined {
    return this.list.find((m) => m.id === id);
  }
  /** By its id, or by its kind where a channel has just one. */
  named(id: string): Running | undefined {
    return this.byId(id) ?? this.list.find((m) => m.kind === id && m.rules.single === true);
  }
  games(): readonly Running[] {
    return this.list.filter((m) => isGame(m.kind));
  }
  hearing(kind: Signal["kind"]): readonly Running[] {
    return this.list.filter((m) => hears(m, kind));
  }
  provided(): Provided {
    return Object.assign({}, ...this.list.map((m) => m.rules.provides?.(m.settings, m.durable) ?? {})) as Provided;
  }
  /** The show as it stands: it alone changes from signal to signal. */
  show(): Provided["show"] {
    for (const m of this.list) {
      const show = m.rules.provides?.(m.settings, m.durable).show;
      if (show !== undefined) return show;
    }
    return null;
  }
}

/** The state of a module as it is stored; a fresh one only where none was ever stored. */
function stateOf(game: GameRow, rules: AnyModule, settings: unknown): Result<unknown> {
  if (game.durable === null || game.durable === undefined) return ok(rules.freshDurable(settings));
  const state = readStored<unknown>(rules.durable, rules.stateSteps, game.stateVersion ?? 1, game.durable);
  return state.ok && rules.rows !== undefined ? ok(rules.rows.recall(state.value, game.recalled ?? []) as unknown) : state;
}

/** The show that runs on air, by what is stored; empty off air and in rehearsal. */
export function storedShowId(row: ChannelRow): string {
  for (const game of row.games) {
    const rules = moduleOf(game.kind);
    if (rules?.provides === undefined || game.durable === null || game.durable === undefined) continue;
    const settings = readStored<unknown>(rules.settings, rules.settingsSteps, settingsVersion(game.settings), game.settings);
    const state = readStored<unknown>(rules.durable, rules.stateSteps, game.stateVersion ?? 1, game.durable);
    const show = settings.ok && state.ok ? rules.provides(settings.value, state.value).show : null;
    if (show?.state === "on") return show.id;
  }
  return "";
}
