import { emoteIndex } from "../../../../../core/chat/emotes";
import { readCommand } from "../../../../../core/module/command";
import type { AnyGame, GivenSignal, Tried } from "../../../../../core/module/game";
import { bareContext, type Note } from "../../../../../core/module/module";
import { emptyLedgerView, type LedgerView } from "../../../../../core/rewards/ledger-view";
import type { Signal } from "../../../../../core/signals/signal";
import type { Sprite } from "../../../../../core/wire/messages";

/** In a preview everybody has plenty of points: nothing real is moved. */
const wellOff: LedgerView = { ...emptyLedgerView, balance: () => 10_000 };

/** What a try did: the same notes the engine makes, added up over all its signals. */
export type TrialReport = Readonly<{ says: string; notes: readonly Note[]; running: boolean }>;
type Show = Readonly<{ effect: (effect: unknown) => void; changed: (view: unknown) => void; report: (report: TrialReport) => void }>;

/**
 * Runs the game's real rules in this page, on the draft, for the preview: no server, no points, nobody
 * else sees it. Its memory (combos, limits) lives until it is started over.
 */
export class Trial {
  private durable: unknown = null;
  private transient: unknown = null;
  private seq = 0;
  private latest = 0;
  private timers = new Set<number>();
  /** The timer for what the game itself waits for; 0 while it waits for nothing. */
  private due = 0;
  /** Another each time, so that what is drawn by chance is not the same in every try. */
  private readonly salt = Math.floor(Math.random() * 0x7fffffff);
  settings: unknown;
  sprites: readonly Sprite[];

  constructor(
    private readonly rules: AnyGame,
    settings: unknown,
    sprites: readonly Sprite[],
    private readonly home: string,
  ) {
    this.settings = settings;
    this.sprites = sprites;
    this.startOver();
  }

  /** New settings: what was tried so far stays, unless the game would now begin otherwise. */
  take(settings: unknown): void {
    const begins = (given: unknown): string => JSON.stringify(this.rules.freshDurable(given));
    const anew = begins(settings) !== begins(this.settings);
    this.settings = settings;
    if (anew) this.startOver();
  }

  startOver(): void {
    for (const timer of this.timers) clearTimeout(timer);
    this.timers.clear();
    this.due = 0;
    this.durable = this.rules.freshDurable(this.settings);
    this.transient = this.rules.freshDust();
  }

  view(): unknown {
    return this.rules.view(this.settings, this.durable, "overlay");
  }

  /** Where the preview's game stands, for tries that depend on it. */
  state(): unknown {
    return this.durable;
  }

  run(tried: Tried, show: Show): void {
    const notes: Note[] = [];
    let left = tried.signals.length;
    this.latest += 1;
    const mine = this.latest;
    // An earlier try may still run; what is told is the last one's.
    const tell = (): void =>
      void (mine === this.latest && show.report({ says: tried.says, notes: sum(notes), running: left > 0 || this.due !== 0 }));
    const one = (partial: GivenSignal): void => {
      notes.push(...this.step(partial, show));
      left -= 1;
      this.wake(show, (more) => {
        notes.push(...more);
        tell();
      });
    };
    tell();
    for (const { afterMs, signal } of tried.signals) {
      if (afterMs === 0) one(signal);
      else {
        const timer = window.setTimeout(() => {
          this.timers.delete(timer);
          one(signal);
          if (left % 10 === 0 || tried.signals.length < 30) tell();
        }, afterMs);
        this.timers.add(timer);
      }
    }
    tell();
  }

  /** One signal through the game's rules; what the engine would refuse, this does too. */
  private step(partial: GivenSignal, { effect, changed }: Show): readonly Note[] {
    const { rules } = this;
    const emotes = emoteIndex(
      this.sprites.filter((s) => s.key.startsWith("own:")).map((s) => ({ id: s.key.replace(/^own:/, ""), word: s.word })),
    );
    this.seq += 1;
    const given: Signal = { ...partial, seq: this.seq, atMs: Date.now(), id: `try${this.seq}` };
    const read = given.kind === "command" ? readCommand(rules, given.command) : null;
    if (read?.ok === false) return [{ refusal: read.refusal, count: 1 }];
    const signal: Signal = given.kind === "command" && read?.ok === true ? { ...given, command: read.value } : given;
    const outcome = rules.step(
      { settings: this.settings, durable: this.durable, transient: this.transient },
      signal,
      bareContext(emotes, { homeCurrency: this.home, salt: this.salt, ledgerView: wellOff }),
    );
    const moved = outcome.durable !== this.durable;
    this.durable = outcome.durable;
    this.transient = outcome.transient;
    for (const shown of outcome.effects) effect(shown);
    if (moved) changed(this.view());
    return outcome.notes;
  }

  /** What the game waits for comes here too, at its time. */
  private wake(show: Show, tell: (notes: readonly Note[]) => void): void {
    window.clearTimeout(this.due);
    this.timers.delete(this.due);
    this.due = 0;
    const dueMs = this.rules.dueMs?.(this.settings, this.durable) ?? null;
    if (dueMs === null) return;
    this.due = window.setTimeout(
      () => {
        this.timers.delete(this.due);
        this.due = 0;
        const notes = this.step({ kind: "timer", moduleId: "preview" }, show);
        this.wake(show, tell);
        tell(notes);
      },
      Math.max(30, dueMs - Date.now()),
    );
    this.timers.add(this.due);
  }
}

/** One note per kind and subject: counts are added, the newest facts stand. */
function sum(notes: readonly Note[]): readonly Note[] {
  const kinds = new Map<string, Note>();
  for (const note of notes) {
    const key = `${note.refusal?.code ?? note.did ?? ""} ${note.subject ?? ""}`;
    const before = kinds.get(key);
    kinds.set(key, { ...note, count: note.count + (before?.count ?? 0) });
  }
  return [...kinds.values()];
}
