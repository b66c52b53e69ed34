import type { WebSocket } from "ws";
import type { ChannelId } from "../../core/kernel/ids";
import { refused, type Result } from "../../core/kernel/refusal";
import { type OpenPage, type ToneCame, type ToOverlay, wireVersion } from "../../core/wire/messages";
import { type Page, sendTo, speaks } from "./overlay-pages";
import { Tones } from "./tones";
import { OneVoice } from "../../core/wire/one-voice";

type Parts = Readonly<{
  pages: ReadonlyMap<WebSocket, Page>;
  /** Whether this overlay of a channel is for sound. */
  sounds: (channel: ChannelId, overlay: string) => boolean;
  now: () => number;
  /** Another page makes the sound, or is to make it, or none. */
  changed: (channel: ChannelId) => void;
}>;

/** Which of the open pages makes the sound: what each is told, what each says, and tones to try them. */
export class PageSound {
  private readonly one: OneVoice;
  private readonly tones: Tones;
  private readonly timer: NodeJS.Timeout;
  /** Which pages made the sound by their own word, when operators were told last. */
  private readonly spoke = new Map<ChannelId, string>();

  constructor(private readonly parts: Parts) {
    this.one = new OneVoice(parts.now, (page, on) => this.send(page, { v: wireVersion, type: "voice", on }));
    this.tones = new Tones((page, id) => this.send(page, { v: wireVersion, type: "tone", id }));
    this.timer = setInterval(() => {
      for (const channel of new Set([...parts.pages.values()].map((p) => p.channel))) this.settle(channel);
    }, 500);
    this.timer.unref();
  }

  private send(id: string, message: ToOverlay): void {
    for (const page of this.parts.pages.values()) if (page.id === id) sendTo(page.socket, JSON.stringify(message), false);
  }

  /** Looks who should speak; called on every change and twice a second. */
  settle(channel: ChannelId): void {
    const { pages, sounds, now, changed } = this.parts;
    const before = this.one.holder(channel);
    const ours = [...pages.values()].filter((p) => p.channel === channel);
    this.one.settle(
      channel,
      ours.map((p) => ({ ...p, sounds: sounds(channel, p.overlay), ready: p.sound === "ready" })),
    );
    const speaking = ours
      .filter((p) => speaks(p, now()))
      .map((p) => p.id)
      .join();
    if (this.one.holder(channel) === before && speaking === (this.spoke.get(channel) ?? "")) return;
    this.spoke.set(channel, speaking);
    changed(channel);
  }

  choose(channel: ChannelId, page: string): void {
    this.one.choose(channel, page);
    this.settle(channel);
  }

  /** A page says that it makes the sound. */
  said(page: Page): void {
    const silent = !speaks(page, this.parts.now());
    page.spokeMs = this.parts.now();
    this.one.heard(page.channel, page.id);
    if (silent) this.settle(page.channel);
  }

  /** What operators are told of a page's sound. */
  of(page: Page): Pick<OpenPage, "voice" | "asked"> {
    return { voice: speaks(page, this.parts.now()), asked: this.one.holder(page.channel) === page.id };
  }

  /** Has a page of this channel play a soft tone. */
  tone(channel: ChannelId, id: string): Promise<Result<ToneCame>> {
    const open = [...this.parts.pages.values()].some((p) => p.id === id && p.channel === channel);
    return open ? this.tones.play(id) : Promise.resolve(refused("page/closed"));
  }
  toned(page: Page, id: string, came: ToneCame): void {
    this.tones.came(page.id, id, came);
  }

  stop(): void {
    clearInterval(this.timer);
  }
}
