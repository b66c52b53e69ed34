import { emoteIndex } from "../../chat/emotes";
import { deepFreeze } from "../../kernel/freeze";
import { bareContext, type Kept, type StepContext } from "../../module/module";
import { changesOf, type Entry } from "../../points/ledger";
import { emptyLedgerView } from "../../rewards/ledger-view";
import type { Role } from "../../signals/signal";
import { raffleNoteInWords } from "./notes";
import { freshTransient, raffleDue, raffleStep } from "./rules";
import { freshRaffle, raffleDefaults, type RaffleDurable, type RaffleSettings, raffleSettingsSchema } from "./settings";

/** For tests: draws without shaking and claims, but where they are asked for. */
export const settingsOf = (part: Partial<RaffleSettings> = {}): RaffleSettings =>
  raffleSettingsSchema.parse({ ...raffleDefaults, shake: false, claimMs: 0, ...part });

/** An evening with a draw, and the ledger it moves points in; everybody begins with 1,000. */
export function evening(settings: RaffleSettings, part: Partial<StepContext> = {}) {
  let durable: RaffleDurable = freshRaffle();
  let transient = freshTransient();
  let seq = 0;
  const entries: Entry[] = [];
  const rows: Kept[] = [];
  const balance = (id: string): number => {
    const moved = changesOf(entries).find((p) => p.account === `v:${id}`)?.amount ?? 0;
    return 1_000 + moved;
  };
  const run = (signal: object, atMs: number) => {
    seq += 1;
    const ctx = bareContext(emoteIndex([]), {
      ledgerView: { ...emptyLedgerView, ...part.ledgerView, balance },
      gameName: () => "The draw",
      ...part,
    });
    const outcome = raffleStep(deepFreeze({ settings, durable, transient }), { seq, atMs, id: `s${seq}`, ...signal } as never, ctx);
    ({ durable, transient } = outcome);
    entries.push(...(outcome.booking?.entries ?? []));
    rows.push(...(outcome.kept ?? []));
    return {
      ...outcome,
      codes: outcome.notes.map((n) => n.refusal?.code ?? n.did),
      words: outcome.notes.map(raffleNoteInWords),
      says: (outcome.orders ?? []).flatMap((o) => (o.do === "say" ? [o.text] : [])),
      told: (outcome.orders ?? []).flatMap((o) => (o.do === "emit" ? [o.what] : [])),
    };
  };
  return {
    balance,
    entries,
    rows,
    at: () => durable,
    say: (who: string, text: string, atMs = 1_000, roles: readonly Role[] = []) =>
      run({ kind: "message", viewer: { id: who, name: who, roles }, text, marks: [] }, atMs),
    command: (command: object, atMs = 1_000) => run({ kind: "command", gameId: "mug", by: "kilnkeeper", viewer: null, command }, atMs),
    for: (who: string, command: object, atMs = 1_000, roles: readonly Role[] = []) =>
      run({ kind: "command", gameId: "mug", by: who, viewer: { id: who, name: who, roles }, command }, atMs),
    timer: (atMs: number) => run({ kind: "timer", moduleId: "mug" }, atMs),
    live: () => run({ kind: "live", viewer: null }, 0),
    due: () => raffleDue(settings, durable),
  };
}
export const proofIn = (rows: readonly Kept[]): unknown => (rows.at(-1)?.body as { proof: unknown }).proof;
