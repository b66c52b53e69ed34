import type { Note } from "../module/module";
import { type Entry, flowOf } from "../points/ledger";

/** So many different things are counted of each sort; a crowd that makes up more of them counts for no more. */
const mostKinds = 5_000;

/** A count with when it was first, in milliseconds of the rehearsal. */
export type Counted = Readonly<{ count: number; firstMs: number }>;
export type Noted = Counted & Readonly<{ game: string; note: Note }>;
/** How full something came: 0 to 1 and beyond, the most there was, and when. */
export type Filled = Readonly<{ most: number; atMs: number; ends: string }>;
export type Queued = Readonly<{ most: number; full: number }>;
export type Frames = Readonly<{ pages: number; late: number; least: number | null }>;

/**
 * What is noticed while a rehearsal runs. It counts and remembers the first of each, however long it goes on: names and texts
 * of viewers are no part of it.
 */
export class Watch {
  /** Signals by kind. */
  readonly signals = new Map<string, number>();
  /** What came of them, by game and code. */
  readonly notes = new Map<string, Noted>();
  /** Rules that fired, by the rule's name. */
  readonly rules = new Map<string, Counted>();
  readonly cues = new Map<string, Counted>();
  /** What games said came to pass, by game and what. */
  readonly told = new Map<string, Counted & Readonly<{ game: string; what: string }>>();
  readonly sold = new Map<string, number>();
  readonly queues = new Map<string, Queued>();
  readonly filled = new Map<string, Filled>();
  /** Games that were on at some time. */
  readonly ran = new Set<string>();
  refunds = 0;
  made = 0;
  taken = 0;
  /** The most points that anybody had. */
  richest = 0;
  frames: Frames = { pages: 0, late: 0, least: null };

  /** One signal that was stepped, with what came of it. */
  signal(kind: string, notes: readonly Readonly<{ game: string; note: Note }>[], atMs: number): void {
    add(this.signals, kind, 1);
    for (const { game, note } of notes) {
      const code = note.refusal?.code ?? note.did ?? "";
      const key = `${game} ${code}`;
      const known = this.notes.get(key);
      if (known !== undefined) this.notes.set(key, { ...known, count: known.count + 1 });
      else if (this.notes.size < mostKinds) this.notes.set(key, { game, note: unnamed(note), count: 1, firstMs: atMs });
      if (note.did === "rule/fired") once(this.rules, note.subject ?? "", atMs);
    }
  }

  cue(id: string, atMs: number): void {
    once(this.cues, id, atMs);
  }

  happened(game: string, what: string, atMs: number): void {
    const key = `${game} ${what}`;
    const known = this.told.get(key);
    if (known !== undefined) this.told.set(key, { ...known, count: known.count + 1 });
    else if (this.told.size < mostKinds) this.told.set(key, { game, what, count: 1, firstMs: atMs });
  }

  booked(entries: readonly Entry[], sales: readonly Readonly<{ rewardId: string; state: string }>[]): void {
    for (const entry of entries) {
      const { made, taken } = flowOf(entry);
      this.made += made;
      this.taken += taken;
    }
    for (const { rewardId, state } of sales)
      if (state === "refunded") this.refunds += 1;
      else add(this.sold, rewardId, 1);
  }

  queue(id: string, waiting: number, full: number): void {
    const known = this.queues.get(id);
    this.queues.set(id, { most: Math.max(known?.most ?? 0, waiting), full: Math.max(known?.full ?? 0, full) });
  }

  gauge(game: string, share: number, ends: string, atMs: number): void {
    const known = this.filled.get(game);
    if (known === undefined || share > known.most) this.filled.set(game, { most: share, atMs, ends });
  }
}

const add = (map: Map<string, number>, key: string, by: number): void => {
  if (map.has(key) || map.size < mostKinds) map.set(key, (map.get(key) ?? 0) + by);
};
const once = (map: Map<string, Counted>, key: string, atMs: number): void => {
  const known = map.get(key);
  if (known !== undefined) map.set(key, { ...known, count: known.count + 1 });
  else if (map.size < mostKinds) map.set(key, { count: 1, firstMs: atMs });
};
/** Without who it was: a refusal's own facts stay, since its words need them. */
const unnamed = ({ subject: _, ...note }: Note): Note => note;
