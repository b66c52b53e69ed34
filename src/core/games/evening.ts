import { emoteIndex } from "../chat/emotes";
import { deepFreeze } from "../kernel/freeze";
import { bareContext, type Kept, type Note, type StepContext, type StepOutcome } from "../module/module";
import { changesOf, type Entry } from "../points/ledger";
import { emptyLedgerView } from "../rewards/ledger-view";
import type { Signal } from "../signals/signal";
import type { Role } from "../signals/names";

type Game<S, D, T> = Readonly<{
  step: (at: Readonly<{ settings: S; durable: D; transient: T }>, signal: Signal, ctx: StepContext) => StepOutcome<D, T, never>;
  freshDurable: (settings: S) => D;
  freshDust: () => T;
  noteInWords: (note: Note) => string;
  dueMs?: (settings: S, durable: D) => number | null;
}>;

/** For tests: an evening with one game by its real rules, and the ledger it moves points in; everybody begins with 1,000. */
export function eveningOf<S, D, T>(game: Game<S, D, T>, settings: S, part: Partial<StepContext> = {}) {
  let durable = game.freshDurable(settings);
  let transient = game.freshDust();
  let seq = 0;
  const entries: Entry[] = [];
  const rows: (Kept & Readonly<{ seq: number }>)[] = [];
  const spent = new Map<string, number>();
  const balance = (id: string): number => {
    const moved = changesOf(entries).find((p) => p.account === `v:${id}`)?.amount ?? 0;
    return 1_000 + moved - (spent.get(id) ?? 0);
  };
  const run = (signal: object, atMs: number) => {
    seq += 1;
    const ctx = bareContext(emoteIndex([]), {
      gameName: () => "The game",
      ...part,
      ledgerView: { ...emptyLedgerView, ...part.ledgerView, balance },
    });
    const outcome = game.step(deepFreeze({ settings, durable, transient }), { seq, atMs, id: `s${seq}`, ...signal } as never, ctx);
    ({ durable, transient } = outcome);
    entries.push(...(outcome.booking?.entries ?? []));
    rows.push(...(outcome.kept ?? []).map((k) => ({ ...k, seq })));
    const orders = outcome.orders ?? [];
    return {
      ...outcome,
      codes: outcome.notes.map((n) => n.refusal?.code ?? n.did),
      words: outcome.notes.map(game.noteInWords),
      says: orders.flatMap((o) => (o.do === "say" ? [o.text] : [])),
      told: orders.flatMap((o) => (o.do === "emit" ? [o.what] : [])),
      commands: orders.flatMap((o) => (o.do === "command" ? [o.command] : [])),
    };
  };
  return {
    balance,
    entries,
    rows,
    /** Somebody spends points on something else. */
    spend: (id: string, amount: number): void => void spent.set(id, (spent.get(id) ?? 0) + amount),
    at: () => durable,
    /** As after a restart: what was stored, and nothing of what was not. */
    restart: (state: D): void => {
      durable = state;
      transient = game.freshDust();
    },
    signal: run,
    say: (who: string, text: string, atMs = 1_000, roles: readonly Role[] = []) =>
      run({ kind: "message", viewer: { id: who, name: who, roles }, text, marks: [] }, atMs),
    command: (command: object, atMs = 1_000) => run({ kind: "command", gameId: "game", by: "kilnkeeper", viewer: null, command }, atMs),
    /** Somebody at the desk does something, as viewers may read of them. */
    asHouse: (command: object, role: "owner" | "moderator", atMs = 1_000) =>
      run(
        { kind: "command", gameId: "game", by: "kilnkeeper", signedIn: true, house: { name: "the house", role }, viewer: null, command },
        atMs,
      ),
    /** A rule, a reward or the viewer page does something for somebody. */
    for: (who: string, command: object, atMs = 1_000, roles: readonly Role[] = []) =>
      run({ kind: "command", gameId: "game", by: who, viewer: { id: who, name: who, roles }, command }, atMs),
    timer: (atMs: number) => run({ kind: "timer", moduleId: "game" }, atMs),
    live: () => run({ kind: "live", viewer: null }, 0),
    due: () => game.dueMs?.(settings, durable) ?? null,
  };
}
