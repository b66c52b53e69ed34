import { fold } from "../../core/kernel/fold";
import { changesOf, type Entry, isViewerAccount } from "../../core/points/ledger";
import type { PriceAt } from "../../core/points/price";
import type { Booking, Desk, Sale } from "../../core/rewards/desk";
import type { Booked, DeskRows } from "../ports/engine-store";

type Account = { name: string; balance: number; day: number; earned: number };
const dayMs = 86_400_000;
const remembered = 5_000;
const earning: ReadonlySet<Entry["reason"]> = new Set(["presence", "signal"]);

/**
 * What the single writer of a channel knows of points and sales, in memory. A booking counts at once, before
 * its commit, so that what is stepped next sees it; when a commit fails, all of it is read again.
 */
export class LiveDesk implements Desk {
  private accounts = new Map<string, Account>();
  private ids = new Map<string, string>();
  private soldAll = new Map<string, number>();
  private given = new Map<string, number>();
  private inShow = new Map<string, number>();
  private lastOf = new Map<string, number>();
  private prices = new Map<string, PriceAt>();
  /** In the order of their making; those that wait are never forgotten. */
  private sales = new Map<string, Sale>();
  private waits = new Map<string, Sale>();
  private showId = "";
  private topKnown: Readonly<{ count: number; list: readonly Readonly<{ name: string; balance: number }>[] }> | null = null;
  /** Where the channel's day begins, minutes east of UTC, and what time it is for the one who asks. */
  dayOffsetMin = 0;
  nowMs = 0;

  load(rows: DeskRows, showId: string): void {
    this.showId = showId;
    this.accounts = new Map(rows.accounts.map(({ account, ...rest }) => [account, { ...rest }]));
    this.ids = new Map(rows.accounts.filter((a) => isViewerAccount(a.account)).map((a) => [fold(a.name), a.account.slice(2)]));
    this.soldAll = new Map(rows.sold.map((s) => [s.rewardId, s.count]));
    this.given = new Map(rows.sold.map((s) => [s.rewardId, s.handed]));
    this.inShow = new Map();
    for (const { rewardId, viewer, count } of rows.soldInShow) {
      this.inShow.set(`${rewardId} ${viewer}`, count);
      this.inShow.set(rewardId, (this.inShow.get(rewardId) ?? 0) + count);
    }
    this.lastOf = new Map();
    for (const { rewardId, viewer, atMs } of rows.last) this.rested(rewardId, viewer, atMs);
    this.prices = new Map(rows.prices.map((p) => [p.rewardId, p.at]));
    this.sales = new Map(rows.sales.map((s) => [s.id, s]));
    this.waits = new Map(rows.sales.filter((s) => s.state === "waiting").map((s) => [s.id, s]));
    this.topKnown = null;
  }

  /** Another show, or none: what counts per show begins anew. */
  show(showId: string): void {
    if (showId === this.showId) return;
    this.showId = showId;
    this.inShow.clear();
  }

  private rested(rewardId: string, viewer: string, atMs: number): void {
    for (const key of [rewardId, `${rewardId} ${viewer}`]) this.lastOf.set(key, Math.max(atMs, this.lastOf.get(key) ?? -Infinity));
  }
  private dayOf(atMs: number): number {
    return Math.floor((atMs + this.dayOffsetMin * 60_000) / dayMs);
  }

  /** Counts a booking; tells it with what has to be written beside it. */
  apply(seq: number, booking: Booking): Booked {
    const earned: Record<string, { day: number; earned: number }> = {};
    const fresh = new Set<string>();
    const opened = (account: string, name = ""): Account => {
      const before = this.accounts.get(account);
      if (before === undefined || (name !== "" && before.name !== name)) fresh.add(account);
      return this.account(account, name);
    };
    for (const [viewer, name] of Object.entries(booking.names)) opened(`v:${viewer}`, name);
    for (const { account, amount } of changesOf(booking.entries)) opened(account).balance += amount;
    for (const entry of booking.entries) {
      if (!earning.has(entry.reason)) continue;
      const day = this.dayOf(entry.atMs);
      for (const p of entry.postings) {
        if (!isViewerAccount(p.account)) continue;
        const account = this.account(p.account);
        // A clock that was set back begins no new day.
        if (day > account.day) Object.assign(account, { day, earned: 0 });
        account.earned += p.amount;
        earned[p.account.slice(2)] = { day: account.day, earned: account.earned };
      }
    }
    for (const sale of booking.sales) this.keep(sale);
    for (const { rewardId, at } of booking.prices) this.prices.set(rewardId, at);
    this.topKnown = null;
    return { seq, booking, earned, fresh: [...fresh] };
  }

  private account(id: string, name = ""): Account {
    let account = this.accounts.get(id);
    if (account === undefined) this.accounts.set(id, (account = { name, balance: 0, day: 0, earned: 0 }));
    if (name !== "" && isViewerAccount(id)) {
      if (account.name !== name && this.ids.get(fold(account.name)) === id.slice(2)) this.ids.delete(fold(account.name));
      account.name = name;
      this.ids.set(fold(name), id.slice(2));
    }
    return account;
  }

  private keep(sale: Sale): void {
    const before = this.sales.get(sale.id) ?? null;
    this.sales.set(sale.id, sale);
    if (sale.state === "waiting") this.waits.set(sale.id, sale);
    else this.waits.delete(sale.id);
    const counts = (s: Sale | null): number => (s === null || s.state === "refunded" ? 0 : 1);
    const more = counts(sale) - counts(before);
    if (sale.code !== "" && (before?.code ?? "") === "") this.given.set(sale.rewardId, this.handed(sale.rewardId) + 1);
    const add = (map: Map<string, number>, key: string): void => void map.set(key, Math.max(0, (map.get(key) ?? 0) + more));
    if (more !== 0) {
      add(this.soldAll, sale.rewardId);
      if (sale.showId !== "" && sale.showId === this.showId)
        for (const key of [sale.rewardId, `${sale.rewardId} ${sale.viewer.id}`]) add(this.inShow, key);
    }
    if (before === null || sale.state !== "refunded") this.rested(sale.rewardId, sale.viewer.id, sale.atMs);
    else if (!sale.shown) this.restAgain(sale);
    if (this.sales.size > remembered)
      for (const [id, old] of this.sales) {
        if (this.sales.size <= remembered - 500) break;
        if (old.state !== "waiting") this.sales.delete(id);
      }
  }

  /** Nothing of it was shown, so its cooldown is given back too: the last sale before it counts. */
  private restAgain({ rewardId, viewer, atMs }: Sale): void {
    for (const key of [rewardId, `${rewardId} ${viewer.id}`]) {
      if (this.lastOf.get(key) !== atMs) continue;
      this.lastOf.delete(key);
      for (const s of this.sales.values())
        if (s.rewardId === rewardId && (key === rewardId || s.viewer.id === viewer.id) && (s.state !== "refunded" || s.shown))
          this.lastOf.set(key, Math.max(s.atMs, this.lastOf.get(key) ?? -Infinity));
    }
  }

  /** One that was found in the database, so that a hand can be laid on it; what is known is newer. */
  remember(sale: Sale): void {
    if (!this.sales.has(sale.id)) this.sales.set(sale.id, sale);
  }

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
  readonly waiting = (): readonly Sale[] => [...this.waits.values()];
  readonly top = (count: number): readonly Readonly<{ name: string; balance: number }>[] => {
    if (this.topKnown === null || this.topKnown.count < count) {
      // Tens of thousands are looked through once, not sorted.
      const list: { name: string; balance: number }[] = [];
      for (const [id, { name, balance }] of this.accounts) {
        const last = list[list.length - 1];
        if (balance <= 0 || !isViewerAccount(id) || (list.length >= count && last !== undefined && balance < last.balance)) continue;
        list.push({ name, balance });
        list.sort((a, b) => b.balance - a.balance || (a.name < b.name ? -1 : 1));
        if (list.length > count) list.pop();
      }
      this.topKnown = { count, list };
    }
    return this.topKnown.list.slice(0, count);
  };
  readonly named = (name: string): Readonly<{ id: string; name: string }> | null => {
    const id = this.ids.get(fold(name));
    return id === undefined ? null : { id, name: this.accounts.get(`v:${id}`)?.name ?? name };
  };
  /** All accounts as they stand, for the check of the ledger. */
  balances(): ReadonlyMap<string, number> {
    return new Map([...this.accounts].map(([id, a]) => [id, a.balance]));
  }
}
