import { randomUUID } from "node:crypto";
import type { WebSocket } from "ws";
import type { ChannelId } from "../../core/kernel/ids";
import { type OpenPage, type ShownPart, type ToneCame, type ToOverlay, wireVersion } from "../../core/wire/messages";
import type { Publication } from "../ports/bus";
import { hashToken } from "../secrets";
import { Feed } from "./feed";
import { freshPage, type Hello, type Page, type Report, seenOf, sendTo, takeReport } from "./overlay-pages";
import { PageSound } from "./page-sound";
import type { Runner } from "./runner";

export const goneCode = 4001;

/** The open overlay pages of all channels, and what each overlay is fed. */
export class OverlayHub {
  private readonly epoch = randomUUID();
  private readonly feeds = new Map<string, Feed>();
  private readonly pages = new Map<WebSocket, Page>();
  /** Operators who look at an overlay: fed like its pages, and none of them. */
  private readonly peeks = new Map<WebSocket, Readonly<{ shows: ChannelId; overlay: string; tokenHash: string }>>();
  /** Which rehearsal a channel's pages show instead of the channel itself. */
  private readonly lent = new Map<ChannelId, ChannelId>();
  /** Whether an operator's session holds still. */
  stillValid: (tokenHash: string) => Promise<boolean> = () => Promise.resolve(true);
  readonly sound: PageSound;
  private readonly recheckTimer: NodeJS.Timeout;
  onPages: (channel: ChannelId) => void = () => undefined;

  constructor(
    private readonly runners: ReadonlyMap<ChannelId, Runner>,
    /** Rehearsals, by their own ids. */
    private readonly rehearsed: (id: ChannelId) => Runner | undefined,
    private readonly now: () => number,
    private readonly markedUrl: (channel: ChannelId) => string,
    private readonly facesUrl: (channel: ChannelId) => string,
    /** Whether all channels are known here, so that an unknown link is surely not valid. */
    private readonly settled: () => boolean,
  ) {
    this.sound = new PageSound({
      pages: this.pages,
      sounds: (channel, overlay) => runners.get(channel)?.row.overlays.find((o) => o.id === overlay)?.sounds ?? false,
      now,
      changed: (channel) => this.onPages(channel),
    });
    this.recheckTimer = setInterval(() => void this.recheck(), 30_000);
    this.recheckTimer.unref();
  }

  /** A page says that it makes the sound. */
  voice(socket: WebSocket): void {
    const page = this.pages.get(socket);
    if (page !== undefined) this.sound.said(page);
  }
  /** How the tone came out that a page was asked to play. */
  toned(socket: WebSocket, id: string, came: ToneCame): void {
    const page = this.pages.get(socket);
    if (page !== undefined) this.sound.toned(page, id, came);
  }

  /** A page shows what was sold, or makes it heard. */
  shown(socket: WebSocket, sales: readonly string[], part: ShownPart): void {
    const page = this.pages.get(socket);
    if (page !== undefined) this.runnerOf(page.shows)?.shown(sales, part);
  }
  private runnerOf(id: ChannelId): Runner | undefined {
    return this.runners.get(id) ?? this.rehearsed(id);
  }

  private feed(shows: ChannelId, overlay: string): Feed {
    const key = `${shows} ${overlay}`;
    const known = this.feeds.get(key);
    if (known !== undefined) return known;
    const feed = new Feed((text, transient) => {
      for (const page of this.pages.values()) if (page.shows === shows && page.overlay === overlay) sendTo(page.socket, text, transient);
      for (const [socket, of] of this.peeks) if (of.shows === shows && of.overlay === overlay) sendTo(socket, text, transient);
    }, this.now);
    this.feeds.set(key, feed);
    return feed;
  }

  /** A channel's pages show a rehearsal from now on, or the channel again with null. */
  lend(channel: ChannelId, to: ChannelId | null): void {
    if (to === null) this.lent.delete(channel);
    else this.lent.set(channel, to);
    const shows = to ?? channel;
    const runner = this.runnerOf(shows);
    for (const page of this.pages.values()) {
      if (page.channel !== channel || page.shows === shows || runner === undefined) continue;
      page.shows = shows;
      this.catchUp(page.socket, runner, page.overlay, null);
    }
    this.onPages(channel);
  }
  /** A rehearsal is no more. */
  forget(rehearsal: ChannelId): void {
    for (const [channel, to] of [...this.lent]) if (to === rehearsal) this.lend(channel, null);
    for (const [key, feed] of [...this.feeds])
      if (key.startsWith(`${rehearsal} `)) {
        feed.stop();
        this.feeds.delete(key);
      }
    for (const [socket, of] of [...this.peeks])
      if (of.shows === rehearsal) {
        this.peeks.delete(socket);
        this.gone(socket);
      }
  }
  /** Pages that show a rehearsal are told its time: it stands, or runs fast. */
  beat(shows: ChannelId, nowMs: number, pace: number): void {
    const text = JSON.stringify({ v: wireVersion, type: "beat", nowMs, pace } satisfies ToOverlay);
    for (const page of this.pages.values()) if (page.shows === shows) sendTo(page.socket, text, true);
    for (const [socket, of] of this.peeks) if (of.shows === shows) sendTo(socket, text, true);
  }

  join(socket: WebSocket, hello: Hello): boolean {
    const tokenHash = hashToken(hello.token);
    for (const runner of this.runners.values()) {
      const overlay = runner.row.overlays.find((o) => o.tokenHash === tokenHash);
      if (overlay === undefined) continue;
      const page = freshPage(socket, runner.id, { overlay: overlay.id, tokenHash, sinceMs: this.now(), ...hello });
      const lentTo = this.lent.get(runner.id);
      const shown = lentTo === undefined ? undefined : this.rehearsed(lentTo);
      if (shown !== undefined) page.shows = shown.id;
      this.catchUp(socket, shown ?? runner, overlay.id, hello.resume);
      this.pages.set(socket, page);
      this.onPages(runner.id);
      return true;
    }
    if (this.settled()) this.gone(socket);
    else socket.close(4005, "not ready yet, come again");
    return false;
  }

  private catchUp(socket: WebSocket, runner: Runner, overlay: string, resume: Hello["resume"]): void {
    const feed = this.feed(runner.id, overlay);
    const epoch = this.runners.has(runner.id) ? this.epoch : `${this.epoch} ${runner.id}`;
    const missed = resume !== null && resume.epoch === epoch ? feed.since(resume.seq) : null;
    if (missed !== null) {
      for (const text of missed) socket.send(text);
      return;
    }
    const snapshot: ToOverlay = {
      v: wireVersion,
      type: "snapshot",
      epoch,
      seq: feed.seq,
      stage: runner.view.overlay(overlay, this.markedUrl(runner.id), this.facesUrl(runner.id)),
      hushed: runner.row.hushed,
      nowMs: runner.nowMs(),
    };
    socket.send(JSON.stringify(snapshot));
  }

  /** An operator of this channel looks at one of its overlays. */
  peek(socket: WebSocket, channel: ChannelId, overlay: string, resume: Hello["resume"], tokenHash: string): void {
    const runner = this.runnerOf(channel);
    if (runner === undefined) return socket.close(4005, "not ready yet, come again");
    if (!runner.row.overlays.some((o) => o.id === overlay)) return this.gone(socket);
    this.peeks.set(socket, { shows: channel, overlay, tokenHash });
    this.catchUp(socket, runner, overlay, resume);
  }

  /** Who signed out, or was unpaired, sees nothing more; while the database is away nobody is put out. */
  async recheck(): Promise<void> {
    for (const [socket, { tokenHash }] of [...this.peeks]) {
      if (await this.stillValid(tokenHash).catch(() => true)) continue;
      this.peeks.delete(socket);
      socket.close(4003, "signed out");
    }
  }

  private gone(socket: WebSocket): void {
    socket.send(JSON.stringify({ v: wireVersion, type: "gone" } satisfies ToOverlay));
    socket.close(goneCode, "this link is not valid");
  }

  report(socket: WebSocket, report: Report): void {
    const page = this.pages.get(socket);
    if (page === undefined) return;
    const resized = takeReport(page, report);
    this.sound.settle(page.channel);
    if (resized) this.onPages(page.channel);
  }

  leave(socket: WebSocket): void {
    this.peeks.delete(socket);
    const page = this.pages.get(socket);
    if (page === undefined) return;
    this.pages.delete(socket);
    this.sound.settle(page.channel);
    this.onPages(page.channel);
  }

  publish(channel: ChannelId, publication: Publication): void {
    const runner = this.runnerOf(channel);
    if (runner === undefined) return;
    switch (publication.kind) {
      case "effects":
        for (const overlay of runner.row.overlays) {
          if (overlay.places.some((p) => p.gameId === publication.game && !p.place.hidden))
            this.feed(channel, overlay.id).effects(publication.game, publication.effects);
        }
        return;
      case "stage":
        for (const page of [...this.pages.values()]) {
          if (page.channel !== channel) continue;
          const overlay = runner.row.overlays.find((o) => o.id === page.overlay);
          if (overlay?.tokenHash === page.tokenHash) continue;
          this.pages.delete(page.socket);
          this.gone(page.socket);
          this.onPages(channel);
        }
        this.stages(runner);
        return;
      case "state": {
        const view = runner.view.game(publication.game);
        if (view === null) return;
        for (const overlay of runner.row.overlays)
          if (overlay.places.some((p) => p.gameId === publication.game && !p.place.hidden))
            this.feed(channel, overlay.id).view(publication.game, view);
        return;
      }
      case "alert":
        for (const overlay of runner.row.overlays) this.feed(channel, overlay.id).alert(publication.alert);
        return;
      case "alert-end":
        for (const overlay of runner.row.overlays) this.feed(channel, overlay.id).state({ type: "alert-end", ids: publication.ids });
        return;
      case "hush":
        for (const overlay of runner.row.overlays) {
          const feed = this.feed(channel, overlay.id);
          feed.drop();
          feed.state({ type: "hush", on: publication.on });
        }
        return;
      case "talk":
      case "mark":
      case "changed":
      case "forgotten":
        return;
    }
  }

  private stages(runner: Runner): void {
    for (const overlay of runner.row.overlays) {
      this.feed(runner.id, overlay.id).state({
        type: "stage",
        stage: runner.view.overlay(overlay.id, this.markedUrl(runner.id), this.facesUrl(runner.id)),
      });
    }
  }

  openPages(channel: ChannelId): OpenPage[] {
    return [...this.pages.values()]
      .filter((p) => p.shows === channel || p.channel === channel)
      .map((page) => ({ ...seenOf(page), ...this.sound.of(page) }));
  }

  stop(): void {
    this.sound.stop();
    clearInterval(this.recheckTimer);
    for (const feed of this.feeds.values()) feed.stop();
  }
}
