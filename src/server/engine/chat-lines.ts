import type { Logger } from "pino";
import type { ChannelId } from "../../core/kernel/ids";
import type { Chat, ChatEvents, ChatStanding } from "../ports/chat";
import type { Profiles } from "../ports/profiles";
import type { ChannelRow, ChatRow } from "../ports/engine-store";

export type ChatMaker = (
  row: ChatRow,
  events: ChatEvents,
) => Readonly<{ chat: Chat; emotePictures: string; profiles: Profiles | null }> | null;
type Line = { chat: Chat; standing: ChatStanding; emotePictures: string; profiles: Profiles | null; key: string };
type Said = Parameters<ChatEvents["onLine"]>[0];
type Hears = Readonly<{
  line: (channel: ChannelId, line: Said) => void;
  standing: () => void;
  /** Whether buttons and events wait: then chat is read more slowly. */
  behind: (channel: ChannelId) => boolean;
}>;

/** The room that a chat connection joins, as its settings say. */
export const chatRoomOf = (row: ChatRow): string => {
  const { settings } = row;
  const room = typeof settings === "object" && settings !== null && "channel" in settings ? settings.channel : "";
  return typeof room === "string" ? room : "";
};

/** One chat connection for each channel that has one: opened, changed and closed as its row says. */
export class ChatLines {
  private readonly lines = new Map<ChannelId, Line>();

  constructor(
    private readonly make: ChatMaker,
    private readonly log: Logger,
    private readonly hears: Hears,
  ) {}

  keep(row: ChannelRow): void {
    const key = JSON.stringify(row.chat);
    const old = this.lines.get(row.id);
    if (old?.key === key) return;
    void old?.chat.stop();
    this.lines.delete(row.id);
    if (row.chat === null || !row.chat.enabled) return;
    const made = this.make(row.chat, {
      onLine: (line) => this.hears.line(row.id, line),
      behind: () => this.hears.behind(row.id),
      onStanding: (standing) => {
        const now = this.lines.get(row.id);
        if (now === undefined || now.chat !== made?.chat) return;
        if (standing.lastError !== now.standing.lastError || standing.state !== now.standing.state)
          this.log.info({ chat: standing.state, why: standing.lastError || undefined }, "chat");
        now.standing = standing;
        this.hears.standing();
      },
    });
    if (made === null) return;
    this.lines.set(row.id, {
      chat: made.chat,
      standing: made.chat.standing(),
      emotePictures: made.emotePictures,
      profiles: made.profiles,
      key,
    });
    made.chat.start();
  }

  /** Where the platform's own emotes come from; empty without. */
  emotePictures(id: ChannelId): string {
    return this.lines.get(id)?.emotePictures ?? "";
  }

  /** Who finds people on its platform; null where nobody does. */
  profiles(id: ChannelId): Profiles | null {
    return this.lines.get(id)?.profiles ?? null;
  }

  standing(id: ChannelId): ChatStanding | null {
    return this.lines.get(id)?.standing ?? null;
  }

  say(id: ChannelId, text: string): boolean {
    return this.lines.get(id)?.chat.say(text) ?? false;
  }

  async drop(id: ChannelId): Promise<void> {
    await this.lines.get(id)?.chat.stop();
    this.lines.delete(id);
  }
}
