import { emoteIndex } from "../../chat/emotes";
import { readCommand } from "../../module/command";
import { bareContext } from "../../module/module";
import { changesOf, type Entry, isBalanced, isViewerAccount } from "../../points/ledger";
import { emptyLedgerView } from "../../rewards/ledger-view";
import type { Command, Signal } from "../../signals/signal";
import type { Role } from "../../signals/names";
import { clips } from "./definition";
import { freshDust } from "./outcome";
import { clipsDefaults, type ClipsDurable, type ClipsSettings, clipsSettingsSchema, freshClips } from "./settings";

export const viewer = (id: string, roles: readonly Role[] = []) => ({ id, name: id, roles });
export const factsOf = (part: Record<string, unknown> = {}) => ({
  url: `/props/${"a".repeat(64)}`,
  poster: `/props/${"b".repeat(64)}`,
  strip: null,
  ms: 12_000,
  width: 320,
  height: 180,
  audible: true,
  black: false,
  flashes: "none",
  flashesAtMs: 0,
  flashing: [],
  ...part,
});

/** An evening of clips for tests: a ledger that keeps every entry, and whoever makes films says what a test says. */
export function evening(part: Partial<ClipsSettings> = {}, startWith = 10_000) {
  const settings = clipsSettingsSchema.parse({ ...clipsDefaults, ownRestMs: 0, gapMs: 1_000, ...part });
  let durable: ClipsDurable = freshClips();
  let transient = freshDust();
  let hushed = false;
  let seq = 0;
  const balances = new Map<string, number>();
  const keys = new Set<string>();
  const answers: string[] = [];
  const ordered: number[] = [];
  const givenBack: string[] = [];
  const kept: unknown[] = [];
  const balance = (id: string): number => balances.get(`v:${id}`) ?? startWith;
  const book = (entries: readonly Entry[]): void => {
    for (const entry of entries) {
      if (keys.has(entry.key)) throw new Error(`${entry.key} stands twice`);
      keys.add(entry.key);
      if (!isBalanced(entry)) throw new Error(`${entry.key} does not balance`);
    }
    for (const { account, amount } of changesOf(entries)) {
      const now = (balances.get(account) ?? (isViewerAccount(account) ? startWith : 0)) + amount;
      if (isViewerAccount(account) && now < 0) throw new Error("below none");
      balances.set(account, now);
    }
  };
  const ctx = () =>
    bareContext(emoteIndex([]), {
      hiddenWords: ["crackpot"],
      hushed,
      homeCurrency: "EUR",
      filmOf: (id) =>
        id === "kettle"
          ? { name: "The kettle", url: factsOf().url, poster: "", ms: 4_000, width: 160, height: 90, audible: false, flashing: [] }
          : null,
      ledgerView: { ...emptyLedgerView, balance, named: (name) => (name === "nobody" ? null : { id: name, name }) },
    });
  type Outcome = ReturnType<typeof clips.step>;
  const give = (signal: object, atMs: number): Outcome => {
    seq += 1;
    const outcome = clips.step({ settings, durable, transient }, { seq, atMs, id: `s${seq}`, ...signal } as Signal, ctx());
    durable = clips.durable.parse(JSON.parse(JSON.stringify(outcome.durable)));
    transient = outcome.transient;
    book(outcome.booking?.entries ?? []);
    kept.push(...(outcome.kept ?? []).map((k) => k.body));
    for (const order of outcome.orders ?? []) {
      if (order.do === "answer") answers.push(order.note.refusal?.code ?? order.note.did ?? "");
      if (order.do === "film") ordered.push(order.n);
      if (order.do === "give-back") givenBack.push(order.sale);
      // As the engine does it: in a turn of its own.
      if (order.do === "apart" && order.command !== null) play.command(order.command, atMs, order.viewer);
    }
    return outcome;
  };
  const play = {
    says: (id: string, text: string, atMs = 0, roles: readonly Role[] = []) =>
      give({ kind: "message", viewer: viewer(id, roles), text, marks: [] }, atMs),
    tip: (id: string | null, text: string, homeMinor: number | null, atMs = 0) =>
      give({ kind: "tip", viewer: id === null ? null : viewer(id), amountMinor: homeMinor ?? 100, currency: "EUR", homeMinor, text }, atMs),
    command: (command: Command, atMs = 0, by: ReturnType<typeof viewer> | null = null, sale?: string): Outcome => {
      const read = readCommand(clips, command);
      if (!read.ok) throw new Error(JSON.stringify(read.refusal));
      const bought = sale === undefined ? {} : { sale };
      return give({ kind: "command", gameId: "c", by: by?.name ?? "maria", viewer: by, command: read.value, ...bought }, atMs);
    },
    filmed: (n: number, atMs: number, facts: Record<string, unknown> = {}) =>
      play.command({ do: "filmed", n, facts: factsOf(facts), sha: `sha-${n}` }, atMs),
    until: (atMs: number): void => {
      for (let n = 0; n < 500; n += 1) {
        const due = clips.dueMs?.(settings, durable) ?? null;
        if (due === null || due > atMs) return;
        give({ kind: "timer", moduleId: "c" }, due);
      }
    },
    hush: (on: boolean) => void (hushed = on),
    balance,
    balances,
    answers,
    ordered,
    givenBack,
    kept,
    settings,
    get now() {
      return durable;
    },
  };
  return play;
}
