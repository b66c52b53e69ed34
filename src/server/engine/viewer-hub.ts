import { LRUCache } from "lru-cache";
import type { WebSocket } from "ws";
import type { ChannelId } from "../../core/kernel/ids";
import type { Viewer } from "../../core/signals/names";
import type { Tag } from "../../core/rewards/tags";
import { wireVersion } from "../../core/wire/messages";
import type { ToViewer } from "../../core/wire/to-viewer";
import type { Publication } from "../ports/bus";
import type { Runner } from "./runner";
import { ViewerCodes } from "./viewer-codes";

/** A reader that is so far behind gets no more until it has caught up: the next frame holds all anyway. */
const mostBehind = 256 * 1024;
const everyMs = 250;
const hereMs = 60_000;
/** The page is nobody's any more; it may come again as such. */
export const leftCode = 4006;
export const proofWord = /^me-[a-z2-9]{5}$/i;

/** `games`: what it was told last of what is the viewer's own in games. */
type Page = { channel: ChannelId; viewer: Viewer | null; tokenHash: string; behind: boolean; games: string };
type Shop = { tags: Map<string, string>; head: string; dirty: boolean; mine: Set<string>; moved: boolean };

/**
 * The open viewer pages. What holds for everyone is made into text once and sent to all, at most four
 * times a second and only the price tags that changed; what is one viewer's own goes to that viewer's pages.
 */
export class ViewerHub {
  private readonly pages = new Map<WebSocket, Page>();
  private readonly shops = new Map<ChannelId, Shop>();
  readonly codes: ViewerCodes;
  /** Names proven within the last minute, by token: a page that connects meanwhile was looked up too early. */
  private readonly proven = new LRUCache<string, Readonly<{ channel: ChannelId; viewer: Viewer }>>({ max: 2_000, ttl: 60_000 });
  private readonly timers: NodeJS.Timeout[];

  constructor(
    private readonly runners: ReadonlyMap<ChannelId, Runner>,
    private readonly now: () => number,
    private readonly keep: (channel: ChannelId, tokenHash: string, viewer: Viewer) => Promise<void>,
    private readonly stillValid: (tokenHash: string) => Promise<boolean> = () => Promise.resolve(true),
    /** Where somebody finds their own picture; empty for nowhere. */
    private readonly faceOf: (channel: ChannelId, name: string) => string = () => "",
  ) {
    this.codes = new ViewerCodes(now);
    this.timers = [
      setInterval(() => this.flush(), everyMs),
      setInterval(() => this.tellHere(), hereMs),
      setInterval(() => void this.recheck(), hereMs),
    ];
    for (const timer of this.timers) timer.unref();
  }

  get open(): number {
    return this.pages.size;
  }

  /** Somebody typed what may be a code. Valid once; a foreign channel's is none here. */
  async proof(channel: ChannelId, text: string, viewer: Viewer): Promise<boolean> {
    const found = this.codes.take(channel, text);
    if (found === null) return false;
    try {
      await this.keep(channel, found.tokenHash, viewer);
    } catch {
      // The database is away: the code stays good, and typing it again works.
      found.putBack();
      return false;
    }
    this.proven.set(found.tokenHash, { channel, viewer });
    for (const [ws, page] of this.pages)
      if (page.tokenHash === found.tokenHash && page.channel === channel) {
        page.viewer = viewer;
        this.send(ws, page, this.mineText(page));
        this.tellGames(ws, page);
      }
    return true;
  }

  /** `known`: whose page it is, looked up a moment ago; a name that was proven since then counts as well. */
  join(ws: WebSocket, channel: ChannelId, tokenHash: string, known: Viewer | null): void {
    const proven = this.proven.get(tokenHash);
    const viewer = known ?? (proven?.channel === channel ? proven.viewer : null);
    const page: Page = { channel, viewer, tokenHash, behind: false, games: "[]" };
    this.pages.set(ws, page);
    const shop = this.shopOf(channel);
    this.send(ws, page, this.shopText(channel, [...shop.tags.values()], shop.head));
    if (viewer !== null) {
      this.send(ws, page, this.mineText(page));
      this.tellGames(ws, page);
      this.runners.get(channel)?.requests.here(viewer);
    }
  }
  /** Who left is nobody here from this moment on: nothing more of theirs is sent, and they count as there no longer. */
  left(tokenHash: string): void {
    this.proven.delete(tokenHash);
    for (const [ws, page] of this.pages)
      if (page.tokenHash === tokenHash) {
        page.viewer = null;
        ws.close(leftCode, "left");
      }
  }
  /** Sessions that ended elsewhere (somebody was forgotten) end here too; while the database is away nobody is put out. */
  async recheck(): Promise<void> {
    for (const hash of new Set([...this.pages.values()].filter((p) => p.viewer !== null).map((p) => p.tokenHash)))
      if (!(await this.stillValid(hash).catch(() => true))) this.left(hash);
  }

  leave(ws: WebSocket): void {
    const page = this.pages.get(ws);
    if (page === undefined) return;
    this.pages.delete(ws);
    if (![...this.pages.values()].some((p) => p.channel === page.channel)) this.shops.delete(page.channel);
  }

  publish(channel: ChannelId, publication: Publication): void {
    const shop = this.shops.get(channel);
    if (shop === undefined) return;
    if (publication.kind === "booked") {
      shop.dirty = true;
      for (const { id } of publication.booking.names) shop.mine.add(id);
      for (const sale of publication.booking.sales) shop.mine.add(sale.viewer.id);
      for (const e of publication.booking.entries)
        for (const p of e.postings) if (p.account.startsWith("v:")) shop.mine.add(p.account.slice(2));
    } else if (["state", "stage", "hush"].includes(publication.kind)) {
      shop.dirty = true;
      shop.moved ||= publication.kind === "state";
    }
  }

  private shopOf(channel: ChannelId): Shop {
    let shop = this.shops.get(channel);
    if (shop === undefined) {
      this.shops.set(channel, (shop = { tags: new Map(), head: "", dirty: true, mine: new Set(), moved: false }));
      this.look(channel, shop);
    }
    return shop;
  }

  /** What changed since it was last looked at: the tags as text, and whether the rest did. */
  private look(channel: ChannelId, shop: Shop): Readonly<{ changed: readonly string[]; head: boolean }> {
    const runner = this.runners.get(channel);
    if (runner === undefined) return { changed: [], head: false };
    shop.dirty = false;
    const tags = runner.shop.tags(null);
    const changed: string[] = [];
    for (const tag of tags) {
      const text = JSON.stringify(tag);
      if (shop.tags.get(tag.id) === text) continue;
      shop.tags.set(tag.id, text);
      changed.push(text);
    }
    for (const id of [...shop.tags.keys()]) if (!tags.some((t) => t.id === id)) shop.tags.delete(id);
    const head = JSON.stringify(runner.shop.head(tags.map((t) => t.id)));
    const other = head !== shop.head;
    shop.head = head;
    return { changed, head: other };
  }

  private shopText(channel: ChannelId, tags: readonly string[], head: string): string {
    return `{"v":${wireVersion},"type":"shop","nowMs":${this.runners.has(channel) ? this.now() : 0},"head":${head === "" ? "null" : head},"tags":[${tags.join(",")}]}`;
  }

  private mineText({ channel, viewer }: Page): string {
    const runner = this.runners.get(channel);
    if (runner === undefined || viewer === null) return "";
    // Only what stands in this one's own way; all else is on the tags that everyone has.
    const own = runner.shop
      .tags(viewer)
      .filter((t) => ownWays.has(t.code) || t.kept)
      .map((t: Tag) => (t.kept ? t : { id: t.id, why: t.why, code: t.code, freeAtMs: t.freeAtMs }));
    const mine: ToViewer = {
      v: wireVersion,
      type: "mine",
      name: viewer.name,
      balance: runner.ledgerView.balance(viewer.id),
      face: this.faceOf(channel, viewer.name),
      own: own.map((t) => ("name" in t ? { id: t.id, why: t.why, code: t.code, freeAtMs: t.freeAtMs, tag: t } : { ...t, tag: null })),
    };
    return JSON.stringify(mine);
  }

  /** What is the viewer's own in games, when that is another than before. */
  private tellGames(ws: WebSocket, page: Page): void {
    const { viewer } = page;
    if (viewer === null) return;
    const games = JSON.stringify(this.runners.get(page.channel)?.shop.mine(viewer.id) ?? []);
    if (games === page.games || page.behind) return;
    page.games = games;
    this.send(ws, page, `{"v":${wireVersion},"type":"games","games":${games}}`);
  }

  private flush(): void {
    for (const [channel, shop] of this.shops) {
      // Cooldowns end and prices fall by time alone.
      const { changed, head } = this.look(channel, shop);
      const text = changed.length > 0 || head ? this.shopText(channel, changed, shop.head) : "";
      const { mine, moved } = shop;
      shop.mine = new Set();
      shop.moved = false;
      if (text === "" && mine.size === 0 && !moved) continue;
      for (const [ws, page] of this.pages) {
        if (page.channel !== channel) continue;
        if (page.behind && ws.bufferedAmount === 0) {
          page.behind = false;
          this.send(ws, page, this.shopText(channel, [...shop.tags.values()], shop.head));
          this.send(ws, page, this.mineText(page));
          page.games = "";
          this.tellGames(ws, page);
          continue;
        }
        this.send(ws, page, text);
        if (page.viewer !== null && mine.has(page.viewer.id)) this.send(ws, page, this.mineText(page));
        if (moved) this.tellGames(ws, page);
      }
    }
  }

  private send(ws: WebSocket, page: Page, text: string): void {
    if (text === "" || page.behind) return;
    if (ws.bufferedAmount > mostBehind) page.behind = true;
    else ws.send(text);
  }

  /** Who has the page open is there, as if they had written. */
  private tellHere(): void {
    const told = new Set<string>();
    for (const { channel, viewer } of this.pages.values()) {
      if (viewer === null || told.has(`${channel} ${viewer.id}`)) continue;
      told.add(`${channel} ${viewer.id}`);
      this.runners.get(channel)?.requests.here(viewer);
    }
  }

  stop(): void {
    for (const timer of this.timers) clearInterval(timer);
  }
}

/** What only this viewer is refused for; what they lack in points their own page sees. */
const ownWays: ReadonlySet<string> = new Set(["reward/role", "reward/own-limit", "reward/own-rest"]);
