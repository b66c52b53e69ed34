import { randomUUID } from "node:crypto";
import type { WebSocket } from "ws";
import type { ChannelId } from "../../core/kernel/ids";
import type { TimelineEvent } from "../../core/show/timeline";
import { type TalkItem, type ToOperator, wireVersion } from "../../core/wire/messages";
import type { Publication } from "../ports/bus";

type Seat = { socket: WebSocket; channel: ChannelId; tokenHash: string; lastStanding: string };
/** What one channel's operators are yet to be sent, and the last that was said, for pages that come later. */
type Line = { n: number; left: number; items: TalkItem[]; marks: TimelineEvent[]; last: TalkItem[] };
const mostTalkPerSend = 150;
const talkKept = 300;

/** The operator pages that are open: how everything stands, what others changed, and the talk. */
export class OperatorHub {
  private readonly seats = new Map<WebSocket, Seat>();
  private readonly lines = new Map<ChannelId, Line>();
  private readonly epoch = randomUUID();
  private readonly timers: NodeJS.Timeout[];
  private lastTellMs = 0;

  constructor(
    private readonly standing: (channel: ChannelId) => Omit<Extract<ToOperator, { type: "standing" }>, "v" | "type"> | null,
    private readonly stillValid: (tokenHash: string) => Promise<boolean>,
    private readonly now: () => number = () => Date.now(),
  ) {
    this.timers = [
      setInterval(() => this.tell(), 1_000),
      setInterval(() => this.sendTalk(), 250),
      setInterval(() => void this.recheck(), 30_000),
    ];
  }

  join(socket: WebSocket, channel: ChannelId, tokenHash: string): void {
    this.seats.set(socket, { socket, channel, tokenHash, lastStanding: "" });
    this.tell();
    const { last } = this.line(channel);
    this.sendOne(socket, { v: wireVersion, type: "talk", epoch: this.epoch, left: 0, items: last });
  }

  /** How many look at it. */
  watchers(channel: ChannelId): number {
    return [...this.seats.values()].filter((s) => s.channel === channel).length;
  }
  /** A rehearsal is no more: who still looks at it is told by their socket's end. */
  forget(channel: ChannelId): void {
    this.lines.delete(channel);
    for (const { socket, channel: seen } of [...this.seats.values()]) if (seen === channel) socket.close(4006, "this rehearsal is over");
  }

  private line(channel: ChannelId): Line {
    let line = this.lines.get(channel);
    if (line === undefined) this.lines.set(channel, (line = { n: 0, left: 0, items: [], marks: [], last: [] }));
    return line;
  }

  leave(socket: WebSocket): void {
    this.seats.delete(socket);
  }

  publish(channel: ChannelId, publication: Publication): void {
    if (publication.kind === "talk") {
      const line = this.line(channel);
      const { seq, atMs, of: kind, name, viewer, text, notes } = publication;
      const who = viewer === null ? null : { id: viewer.id, roles: [...viewer.roles] };
      const item: TalkItem = { n: (line.n += 1), seq, atMs, kind, name, viewer: who, text: text.slice(0, 500), notes: [...notes] };
      line.last.push(item);
      if (line.last.length > talkKept * 2) line.last.splice(0, talkKept);
      line.items.push(item);
      if (line.items.length > mostTalkPerSend) {
        line.items.shift();
        line.left += 1;
      }
      // A cue's rest is no state of its own, but its key must show it.
      if (kind === "cue") this.tell();
    } else if (publication.kind === "forgotten") {
      const line = this.line(channel);
      const others = (items: readonly TalkItem[]): TalkItem[] => items.filter((item) => item.viewer?.id !== publication.viewer);
      line.last = others(line.last);
      line.items = others(line.items);
    } else if (publication.kind === "mark") {
      this.line(channel).marks.push(publication.mark);
    } else if (publication.kind === "changed") {
      const { what, id, revision, by } = publication;
      this.send(channel, { v: wireVersion, type: "changed", what, id, revision, by });
    } else if (publication.kind === "stage" || publication.kind === "hush") {
      this.tell();
    } else if (publication.kind === "state" && this.now() - this.lastTellMs > 200) {
      // A storm of blows is told five times a second, and the last of them by the clock.
      this.tell();
    }
  }

  /** Sends how things stand to those for whom it changed. */
  tell(): void {
    this.lastTellMs = this.now();
    const texts = new Map<ChannelId, string>();
    for (const seat of this.seats.values()) {
      let text = texts.get(seat.channel);
      if (text === undefined) {
        const standing = this.standing(seat.channel);
        if (standing === null) continue;
        text = JSON.stringify({ v: wireVersion, type: "standing", ...standing } satisfies ToOperator);
        texts.set(seat.channel, text);
      }
      if (seat.lastStanding === text || seat.socket.readyState !== seat.socket.OPEN) continue;
      seat.lastStanding = text;
      seat.socket.send(text);
    }
  }

  private sendTalk(): void {
    for (const [channel, line] of this.lines) {
      const { items, marks, left } = line;
      if (items.length > 0) this.send(channel, { v: wireVersion, type: "talk", epoch: this.epoch, left, items });
      if (marks.length > 0) this.send(channel, { v: wireVersion, type: "marks", items: marks });
      Object.assign(line, { items: [], marks: [], left: 0 });
    }
  }

  private sendOne(socket: WebSocket, message: ToOperator): void {
    if (socket.readyState === socket.OPEN) socket.send(JSON.stringify(message));
  }

  private send(channel: ChannelId, message: ToOperator): void {
    const text = JSON.stringify(message);
    for (const seat of this.seats.values())
      if (seat.channel === channel && seat.socket.bufferedAmount < 1024 * 1024) seat.socket.send(text);
  }

  /** A session that ended elsewhere loses its page too; while the database is away nobody is put out. */
  async recheck(): Promise<void> {
    for (const seat of [...this.seats.values()]) {
      const valid = await this.stillValid(seat.tokenHash).catch(() => true);
      if (!valid) seat.socket.close(4003, "signed out");
    }
  }

  stop(): void {
    for (const timer of this.timers) clearInterval(timer);
  }
}
