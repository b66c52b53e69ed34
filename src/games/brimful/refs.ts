import type { BrimfulView, Look } from "../../core/games/brimful/settings";
import { bodyOf } from "../../core/games/brimful/pile";
import type { Piece } from "../../overlay/physics/engine";
import type { Wanted } from "../../overlay/physics/pile-parts";
import { mix32 } from "../../core/kernel/chance";
import { beads, faceKey } from "../../overlay/drawn-sprites";

/** Pieces of one batch as the page knows them: by a number of its own, which the physics gives back with each. */
export type Ref = { ref: number; id: string; look: Look; by: string; count: number; piece: Piece; seed: number; keys: readonly string[] };
type Batch = Readonly<{ key: number; look: Look; count: number; by: string }>;

export const pieceOf = (look: Look, bounce: number): Piece => {
  const { width, height } = bodyOf(look);
  return {
    width: width * 10,
    height: height * 10,
    form: look.body,
    mass: look.mass,
    bounce: Math.min(0.95, ((look.bounce / 100) * bounce) / 100),
  };
};
/** What its pieces look like, made once: nothing is made anew for each of them in each frame. */
const keysOf = (look: Look, by: string): readonly string[] =>
  look.face ? [faceKey(by.slice(0, 60))] : look.pictures.length > 0 ? look.pictures : beads;
const mostKnown = 4_000;
const idOf = (key: number, look: number, by: string): string => `${key} ${look} ${by}`;

/**
 * Which pieces there are, by what the engine says: each batch once, however often it is told of it, by an effect or by a
 * view. What is too old to be told apart stays what it was.
 */
export class Refs {
  private byId = new Map<string, Ref>();
  private readonly byRef = new Map<number, Ref>();
  private last = 0;

  of(ref: number): Ref | undefined {
    return this.byRef.get(ref);
  }
  get all(): readonly Ref[] {
    return [...this.byId.values()];
  }
  /** More of a batch have fallen: its ref, and from which on. */
  add({ key, look, count, by }: Batch, bounce: number): Readonly<{ ref: Ref; from: number }> {
    const id = idOf(key, look.n, by);
    const known = this.byId.get(id);
    if (known !== undefined) {
      const from = known.count;
      known.count += count;
      return { ref: known, from };
    }
    this.last += 1;
    const made: Ref = {
      ref: this.last,
      id,
      look,
      by,
      count,
      piece: pieceOf(look, bounce),
      seed: mix32(key, look.n),
      keys: keysOf(look, by),
    };
    this.byId.set(id, made);
    this.byRef.set(made.ref, made);
    return { ref: made, from: 0 };
  }
  /** All that is there goes, by its own way; what comes is another filling. */
  newFilling(): void {
    this.byId = new Map();
    this.forget();
  }
  /** Numbers are kept until their pieces are surely gone: of very many, the oldest of which nothing is to lie there go. */
  private forget(): void {
    if (this.byRef.size <= mostKnown) return;
    const there = new Set([...this.byId.values()].map((r) => r.ref));
    for (const ref of [...this.byRef.keys()].slice(0, mostKnown / 2)) if (!there.has(ref)) this.byRef.delete(ref);
  }
  /** What is to lie there in the end, by a view. */
  wanted(pile: BrimfulView["pile"], bounce: number): readonly Wanted[] {
    const looks = new Map(pile.looks.map((l) => [l.n, l]));
    const next = new Map<string, Ref>();
    for (const b of pile.batches) {
      const look = looks.get(b.look);
      if (look === undefined) continue;
      const id = idOf(b.key, b.look, b.by);
      const known = this.byId.get(id) ?? this.add({ ...b, look, count: 0 }, bounce).ref;
      known.count = b.count;
      next.set(id, known);
    }
    for (const [n, count] of pile.older) {
      const look = looks.get(n);
      if (look === undefined) continue;
      // Batches that were told apart until now, the oldest first.
      let left = count;
      for (const ref of [...this.byId.values()].filter((r) => r.look.n === n && !next.has(r.id)).sort((a, b) => a.ref - b.ref)) {
        if (left <= 0) break;
        ref.count = Math.min(ref.count, left);
        left -= ref.count;
        next.set(ref.id, ref);
      }
      if (left > 0) {
        const { ref } = this.add({ key: -1 - n, look, count: 0, by: "" }, bounce);
        ref.count += left;
        next.set(ref.id, ref);
      }
    }
    this.byId = next;
    this.forget();
    return [...next.values()].map(({ ref, count, seed, piece }) => ({ ref, count, seed, piece }));
  }
}
