import { fold } from "../../core/kernel/fold";

type Person = Readonly<{ id: string; name: string }>;
const mostPeople = 200_000;

/**
 * Everybody who was ever heard of in a channel and has no account: those who wrote, followed, were greeted. With the accounts it
 * is the one place that answers who exists. The oldest go first where there are too many.
 */
export class Directory {
  private names = new Map<string, string>();
  private called = new Map<string, string[]>();

  load(people: readonly Person[]): void {
    this.names = new Map();
    this.called = new Map();
    for (const person of people) this.meet(person);
  }
  /** Somebody is here, under the name of now. */
  meet({ id, name }: Person): void {
    const before = this.names.get(id);
    if (before === name) return;
    if (before !== undefined) this.leave(fold(before), id);
    this.names.delete(id);
    this.names.set(id, name);
    const key = fold(name);
    this.called.set(key, [...(this.called.get(key) ?? []), id]);
    if (this.names.size <= mostPeople) return;
    const [oldest] = this.names;
    if (oldest === undefined) return;
    this.names.delete(oldest[0]);
    this.leave(fold(oldest[1]), oldest[0]);
  }
  has = (id: string): boolean => this.names.has(id);
  nameOf = (id: string): string | undefined => this.names.get(id);
  /** The ids of all who are called so, by the folded name. */
  idsOf = (key: string): readonly string[] => this.called.get(key) ?? [];

  private leave(key: string, id: string): void {
    const left = (this.called.get(key) ?? []).filter((other) => other !== id);
    if (left.length === 0) this.called.delete(key);
    else this.called.set(key, left);
  }
}
