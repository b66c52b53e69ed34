import { fold } from "../../core/kernel/fold";
import { whoIsMeant } from "../../core/points/who-is-meant";
import { changesOf, type Entry, isViewerAccount } from "../../core/points/ledger";
import type { PriceAt } from "../../core/points/price";
import type { Attendance, Booking, LedgerView, Sale } from "../../core/rewards/ledger-view";
import type { Booked, LedgerRows } from "../ports/engine-store";
import { Directory } from "./directory";
import { Traced, type Trail } from "./traced";

type Account = Readonly<{ name: string; balance: number; day: number; earned: number }>;
const dayMs = 86_400_000;
const remembered = 5_000;
const earning: ReadonlySet<Entry["reason"]> = new Set(["presence", "signal"]);
const nobody: Account = { name: "", balance: 0, day: 0, earned: 0 };

/** Oldest first, as they are read again after a restart: a map keeps the order in which they came into it last. */
const byAge = (a: Sale, b: Sale): number => a.atMs - b.atMs || Number(a.id.slice(1)) - Number(b.id.slice(1));

/**
 * What the single writer of a channel knows of points and sales, in memory. A booking counts at once, before
 * its commit, so that what is stepped next sees it; what was not committed after all is taken back.
 */
export class LedgerCache implements LedgerView {
  private readonly trail: Trail = [];
  private settled = 0;
  private readonly accounts = new Traced<Account>(this.trail);
  /** Who is called so, by the folded name. */
  private readonly called = new Traced<readonly string[]>(this.trail);
  /** Those who have no account. Nothing of it is taken back: who was here was here. */
  private readonly others = new Directory();
  private readonly soldAll = new Traced<number>(this.trail);
  private readonly given = new Traced<number>(this.trail);
  private inShow = new Traced<number>(this.trail);
  private readonly lastOf = new Traced<number>(this.trail);
  private readonly prices = new Traced<PriceAt>(this.trail);
  /** In the order of their making; those that wait are never forgotten. */
  private readonly sales = new Traced<Sale>(this.trail);
  private readonly waits = new Traced<Sale>(this.trail);
  /** Sold to be seen or heard, and not said to be shown yet: by when it should be. */
  private readonly due = new Traced<number>(this.trail);
  private readonly attended = new Traced<Attendance>(this.trail);
  private showId = "";
  private topKnown: Readonly<{ count: number; list: ReturnType<LedgerView["top"]> }> | null = null;
  /** Where the channel's day begins, minutes east of UTC, and what time it is for the one who asks. */
  dayOffsetMin = 0;
  nowMs = 0;

  load(rows: LedgerRows, showId: string): void {
    this.showId = showId;
    this.settled += this.trail.length;
    this.trail.length = 0;
    this.accounts.load(rows.accounts.map(({ account, ...rest }) => [account, { ...rest }]));
    const called = new Map<string, string[]>();
    for (const { account, name } of rows.accounts)
      if (isViewerAccount(account)) {
        const key = fold(name);
        const others = called.get(key);
        if (others === undefined) called.set(key, [account.slice(2)]);
        else others.push(account.slice(2));
      }
    this.called.load(called);
    this.others.load(rows.others ?? []);
    this.soldAll.load(rows.sold.map((s) => [s.rewardId, s.count]));
    this.given.load(rows.sold.map((s) => [s.rewardId, s.handed]));
    this.inShow.load([]);
    for (const { rewardId, viewer, count } of rows.soldInShow) {
      this.inShow.set(`${rewardId} ${viewer}`, count);
      this.inShow.set(rewardId, (this.inShow.get(rewardId) ?? 0) + count);
    }
    this.lastOf.load([]);
    for (const { rewardId, viewer, atMs } of rows.last) this.rested(rewardId, viewer, atMs);
    this.prices.load(rows.prices.map((p) => [p.rewardId, p.at]));
    this.sales.load(rows.sales.map((s) => [s.id, s]));
    this.waits.load(rows.sales.filter((s) => s.state === "waiting").map((s) => [s.id, s]));
    this.due.load((rows.due ?? []).map((d) => [d.sale, d.untilMs]));
    this.attended.load((rows.attended ?? []).map(({ viewer, ...rest }) => [viewer, rest]));
    this.trail.length = 0;
    this.topKnown = null;
  }

  /** How many changes there were so far; those that were settled are counted, those that were taken back are not. */
  get changes(): number {
    return this.settled + this.trail.length;
  }
  /** The changes up to there are true now: they are never taken back. */
  settle(changes: number): void {
    const more = Math.max(0, changes - this.settled);
    this.trail.splice(0, more);
    this.settled += more;
  }
  /** Takes back all that is not settled, newest first. */
  takeBack(): void {
    for (let undo = this.trail.pop(); undo !== undefined; undo = this.trail.pop()) undo();
    this.topKnown = null;
  }

  /** Another show, or none: what counts per show begins anew. */
  show(showId: string): void {
    if (showId === this.showId) return;
    const [before, counts] = [this.showId, this.inShow];
    this.trail.push(() => {
      this.showId = before;
      this.inShow = counts;
    });
    this.showId = showId;
    this.inShow = new Traced<number>(this.trail);
  }

  private rested(rewardId: string, viewer: string, atMs: number): void {
    for (const key of [rewardId, `${rewardId} ${viewer}`]) this.lastOf.set(key, Math.max(atMs, this.lastOf.get(key) ?? -Infinity));
  }
  private dayOf(atMs: number): number {
    return Math.floor((atMs + this.dayOffsetMin * 60_000) / dayMs);
  }

  /** Somebody is here. They are known from now on, with points or without. */
  meet(person: Readonly<{ id: string; name: string }>): void {
    if (this.accounts.get(`v:${person.id}`) === undefined) this.others.meet(person);
  }

  /** Counts a booking; tells it with what has to be written beside it. */
  apply(seq: number, booking: Booking): Booked {
    const earned = new Map<string, { viewer: string; day: number; earned: number }>();
    const fresh = new Set<string>();
    const opened = (account: string, name = ""): Account => {
      const before = this.accounts.get(account);
      if (before === undefined || (name !== "" && before.name !== name)) fresh.add(account);
      return this.account(account, name);
    };
    for (const { id, name } of booking.names) opened(`v:${id}`, name);
    for (const { account, amount } of changesOf(booking.entries)) {
      const before = opened(account);
      this.accounts.set(account, { ...before, balance: before.balance + amount });
    }
    for (const entry of booking.entries) {
      if (!earning.has(entry.reason)) continue;
      const now = this.dayOf(entry.atMs);
      for (const p of entry.postings) {
        if (!isViewerAccount(p.account)) continue;
        const before = this.account(p.account);
        // A clock that was set back begins no new day.
        const day = Math.max(now, before.day);
        const after = { ...before, day, earned: (now > before.day ? 0 : before.earned) + p.amount };
        this.accounts.set(p.account, after);
        const viewer = p.account.slice(2);
        earned.set(viewer, { viewer, day, earned: after.earned });
      }
    }
    const counted = booking.sales.flatMap((sale) => this.keep(sale));
    for (const { sale, untilMs } of booking.due ?? []) this.due.set(sale, untilMs);
    for (const { rewardId, at } of booking.prices) this.prices.set(rewardId, at);
    const met = (booking.met ?? []).map(({ id, atMs }) => {
      const before = this.attended.get(id);
      const now = { shows: (before?.shows ?? 0) + 1, firstMs: before?.firstMs ?? atMs, lastMs: atMs, showId: this.showId };
      this.attended.set(id, now);
      return { viewer: id, ...now };
    });
    this.topKnown = null;
    return { met, seq, showId: this.showId, booking, earned: [...earned.values()], fresh: [...fresh], counted };
  }

  private account(id: string, name = ""): Account {
    const known = this.accounts.get(id);
    // Most often nothing is new; then nothing is folded and compared.
    if (known !== undefined && (name === "" || name === known.name)) return known;
    const before = known ?? nobody;
    if (known === undefined) this.accounts.set(id, { ...nobody, name });
    if (name === "" || !isViewerAccount(id)) return this.accounts.get(id) ?? nobody;
    const viewer = id.slice(2);
    if (before.name !== name) {
      if (before.name !== "") this.leaveName(fold(before.name), viewer);
      this.accounts.set(id, { ...before, name });
    }
    const key = fold(name);
    const now = this.called.get(key) ?? [];
    if (!now.includes(viewer)) this.called.set(key, [...now, viewer]);
    return this.accounts.get(id) ?? nobody;
  }
  private leaveName(key: string, viewer: string): void {
    const left = (this.called.get(key) ?? []).filter((other) => other !== viewer);
    if (left.length === 0) this.called.delete(key);
    else this.called.set(key, left);
  }

  private keep(sale: Sale): Booked["counted"] {
    const before = this.sales.get(sale.id) ?? null;
    this.sales.set(sale.id, sale);
    if (sale.state === "waiting") this.waits.set(sale.id, sale);
    else this.waits.delete(sale.id);
    if (sale.state === "refunded") this.due.delete(sale.id);
    const counts = (s: Sale | null): number => (s === null || s.state === "refunded" ? 0 : 1);
    const more = counts(sale) - counts(before);
    const handed = sale.code !== "" && (before?.code ?? "") === "" ? 1 : 0;
    if (handed > 0) this.given.set(sale.rewardId, this.handed(sale.rewardId) + 1);
    const add = (map: Traced<number>, key: string): void => map.set(key, Math.max(0, (map.get(key) ?? 0) + more));
    if (more !== 0) {
      add(this.soldAll, sale.rewardId);
      if (sale.showId !== "" && sale.showId === this.showId)
        for (const key of [sale.rewardId, `${sale.rewardId} ${sale.viewer.id}`]) add(this.inShow, key);
    }
    if (before === null || sale.state !== "refunded") this.rested(sale.rewardId, sale.viewer.id, sale.atMs);
    else if (!sale.shown) this.restAgain(sale);
    if (this.sales.map.size > remembered)
      for (const [id, old] of this.sales.map) {
        if (this.sales.map.size <= remembered - 500) break;
        if (old.state !== "waiting" && !this.due.map.has(id)) this.sales.delete(id);
      }
    if (more === 0 && handed === 0) return [];
    return [{ rewardId: sale.rewardId, name: sale.rewardName, sold: more, handed, points: more * sale.price }];
  }

  /** Nothing of it was shown, so its cooldown is given back too: the last sale before it counts. */
  private restAgain({ rewardId, viewer, atMs }: Sale): void {
    for (const key of [rewardId, `${rewardId} ${viewer.id}`]) {
      if (this.lastOf.get(key) !== atMs) continue;
      this.lastOf.delete(key);
      for (const s of this.sales.map.values())
        if (s.rewardId === rewardId && (key === rewardId || s.viewer.id === viewer.id) && (s.state !== "refunded" || s.shown))
          this.lastOf.set(key, Math.max(s.atMs, this.lastOf.get(key) ?? -Infinity));
    }
  }

  /** Shown or heard: it is owed no longer. False when it was not owed. */
  shown(sale: string): boolean {
    return this.due.map.delete(sale);
  }
  /** Paid for, and not shown within its time, oldest first. */
  unshown(nowMs: number): readonly Sale[] {
    const list: Sale[] = [];
    for (const [id, untilMs] of this.due.map) {
      const sale = untilMs <= nowMs ? this.sales.get(id) : undefined;
      if (sale?.state === "done") list.push(sale);
    }
    return list.sort(byAge);
  }

  /** One that was found in the database, so that a hand can be laid on it; what is known is newer. */
  remember(sale: Sale): void {
    if (!this.sales.map.has(sale.id)) this.sales.map.set(sale.id, sale);
  }

  readonly attendance = (viewerId: string): Attendance | null => this.attended.get(viewerId) ?? null;
  readonly balance = (viewerId: string): number => this.accounts.get(`v:${viewerId}`)?.balance ?? 0;
  readonly earnedToday = (viewerId: string): number => {
    const account = this.accounts.get(`v:${viewerId}`);
    return account !== undefined && account.day >= this.dayOf(this.nowMs) ? account.earned : 0;
  };
  readonly sold = (rewardId: string): number => this.soldAll.get(rewardId) ?? 0;
  readonly handed = (rewardId: string): number => this.given.get(rewardId) ?? 0;
  readonly soldInShow = (rewardId: string): number => this.inShow.get(rewardId) ?? 0;
  readonly soldInShowTo = (rewardId: string, viewerId: string): number => this.inShow.get(`${rewardId} ${viewerId}`) ?? 0;
  readonly lastMs = (rewardId: string): number | null => this.lastOf.get(rewardId) ?? null;
  readonly lastToMs = (rewardId: string, viewerId: string): number | null => this.lastOf.get(`${rewardId} ${viewerId}`) ?? null;
  readonly priceAt = (rewardId: string): PriceAt | null => this.prices.get(rewardId) ?? null;
  readonly sale = (id: string): Sale | null => this.sales.get(id) ?? null;
  readonly waiting = (): readonly Sale[] => [...this.waits.map.values()].sort(byAge);
  readonly top = (count: number): ReturnType<LedgerView["top"]> => {
    if (this.topKnown === null || this.topKnown.count < count) {
      // Tens of thousands are looked through once, not sorted.
      const list: { id: string; name: string; balance: number }[] = [];
      for (const [id, { name, balance }] of this.accounts.map) {
        const last = list[list.length - 1];
        if (balance <= 0 || !isViewerAccount(id) || (list.length >= count && last !== undefined && balance < last.balance)) continue;
        list.push({ id: id.slice(2), name, balance });
        list.sort((a, b) => b.balance - a.balance || (a.name < b.name ? -1 : 1));
        if (list.length > count) list.pop();
      }
      this.topKnown = { count, list };
    }
    return this.topKnown.list.slice(0, count);
  };
  /** The ids of all who are called so. */
  private calledSo(name: string): readonly string[] {
    const key = fold(name);
    return [...new Set([...(this.called.get(key) ?? []), ...this.others.idsOf(key)])];
  }
  readonly named = (name: string): Readonly<{ id: string; name: string }> | null => {
    const exists = (own: string): boolean => this.accounts.get(`v:${own}`) !== undefined || this.others.has(own);
    const id = whoIsMeant(name, exists, this.calledSo(name));
    return id === null ? null : { id, name: this.accounts.get(`v:${id}`)?.name ?? this.others.nameOf(id) ?? name };
  };
  readonly areSeveral = (name: string): boolean => this.named(name) === null && this.calledSo(name).length > 1;
  /** All accounts as they stand, for the check of the ledger. */
  balances(): ReadonlyMap<string, number> {
    return new Map([...this.accounts.map].map(([id, a]) => [id, a.balance]));
  }
}
