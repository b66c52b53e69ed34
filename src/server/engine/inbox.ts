import { fold } from "../../core/kernel/fold";
import type { ChatLine } from "../../core/chat/dialect";
import { ok, type Refusal, refused, type Result } from "../../core/kernel/refusal";
import type { FromEvent } from "../../core/signals/events";
import { toHome } from "../../core/signals/money";
import type { Viewer } from "../../core/signals/names";
import type { Asked } from "./asked";
import type { ChannelContext } from "./context";
import { PerMinute } from "./per-minute";
import type { SignalQueue } from "./queue";
import { RecentIds } from "./recent-ids";
import { ToldAway } from "./told-away";

export type Arrival = Readonly<{ id: string; signal: FromEvent }>;
/** Taken, there before, or why that one alone was not kept. */
export type Taken = "taken" | "duplicate" | Refusal;
export type InboxDeps = Readonly<{
  queue: SignalQueue;
  asked: Asked;
  context: ChannelContext;
  now: () => number;
  stopped: () => boolean;
  closed: () => boolean;
  say: (text: string) => void;
  onError?: (what: string, error: unknown) => void;
}>;
const mostRoles = 50_000;

/** What comes from chat and from the platform. */
export class Inbox {
  readonly messages = new PerMinute();
  readonly arrivals = new PerMinute();
  lastEventMs: number | null = null;
  /** When somebody wrote last. */
  heardMs: number | null = null;
  /** Roles as they were last seen in chat, of those who wrote lately. */
  private readonly roles = new Map<string, Viewer["roles"]>();
  private readonly ids = new RecentIds(20_000);
  /** Names of those who wrote or gave lately, as they are compared. */
  private readonly names = new RecentIds(50_000);
  private readonly toldAway = new ToldAway();
  private unnamed = 0;

  constructor(private readonly deps: InboxDeps) {}

  /** A chat line: shown at once, logged with the next batch. Never waits for the database. */
  message(line: ChatLine): void {
    const { queue, context, onError } = this.deps;
    if (this.deps.stopped()) return;
    const atMs = this.deps.now();
    if (line.id !== null && !this.ids.add(`chat:${line.id}`)) return;
    this.messages.add(atMs);
    this.heardMs = atMs;
    if (this.roles.size > mostRoles) this.roles.clear();
    this.roles.set(line.viewerId, line.roles);
    const viewer: Viewer = { id: line.viewerId, name: context.nameFor(line.name), roles: line.roles };
    this.names.add(fold(viewer.name));
    const id = line.id ?? `s${(this.unnamed += 1)}.${atMs}`;
    const idFromOutside = line.id !== null;
    const { text, marks } = line;
    const { done, pays } = queue.take({ signal: { kind: "message", atMs, id, viewer, text, marks }, source: "chat", idFromOutside });
    void done.then((outcome) => {
      if (pays() && !outcome.ok && outcome.refusal.code !== "signal/duplicate") this.tellAway(viewer, outcome.refusal.code);
    });
    // Each is a signal of its own, after the message it stood in. Chat sends nothing twice: what can't be kept is lost, and said.
    for (const [i, { reaction, count, valueEach }] of (line.paid ?? []).entries()) {
      const value = Math.min(Number.MAX_SAFE_INTEGER, count * valueEach);
      const signal = { kind: "reaction" as const, atMs, id: `${id}#${i}`, viewer, reaction, count, value, text };
      void queue.take({ signal, source: "chat", mustKeep: true, idFromOutside }).done.then((outcome) => {
        if (!outcome.ok && outcome.refusal.code !== "signal/duplicate")
          onError?.("paid reactions in chat could not be kept", new Error(outcome.refusal.code));
      });
    }
  }

  /**
   * What a platform sent, in its order. Taken means committed: a sender who hears it may forget it. An id
   * that came before changes nothing.
   */
  async platform(arrivals: readonly Arrival[]): Promise<Result<readonly Taken[]>> {
    if (this.deps.closed()) return refused("store/away");
    const atMs = this.deps.now();
    const waits = arrivals.map(async ({ id, signal }): Promise<Result<Taken>> => {
      let first = false;
      const done = await this.deps.asked.event(id, () => {
        first = true;
        this.arrivals.add(atMs);
        this.lastEventMs = atMs;
        return this.deps.queue.take({ signal: { ...this.atHome(signal), atMs, id }, source: "event", mustKeep: true }).done;
      });
      if (done.ok) return ok(first ? "taken" : "duplicate");
      if (done.refusal.code === "signal/duplicate") return ok("duplicate");
      return done.refusal.code === "store/unfit" ? ok(done.refusal) : done;
    });
    const all = await Promise.all(waits);
    const failed = all.find((r) => !r.ok);
    if (failed !== undefined && !failed.ok) return failed;
    return ok(all.map((r) => (r.ok ? r.value : "duplicate")));
  }

  /** Somebody was named here, and may be shown. */
  heardOf(name: string): void {
    this.names.add(fold(name));
  }
  named(name: string): boolean {
    return this.names.has(fold(name));
  }

  /** With the roles of now, for who has written since the engine started. */
  withRoles(viewer: Viewer): Viewer {
    return { ...viewer, roles: this.roles.get(viewer.id) ?? viewer.roles };
  }

  /** Who bought by a word while nothing could be stored is told so. */
  private tellAway(viewer: Viewer, why: string): void {
    if (!this.toldAway.may(viewer.id, this.deps.now())) return;
    const name = this.deps.context.pointsName;
    this.deps.say(
      why === "store/unfit"
        ? `@${viewer.name} this could not be stored, and nothing was taken.`
        : `@${viewer.name} the ${name} can’t be reached at the moment; nothing was taken. Try again in a minute.`,
    );
  }

  /** With its worth in the home currency, and a name that may be shown. */
  private atHome(given: FromEvent): FromEvent {
    if (given.viewer !== null) this.names.add(fold(this.deps.context.nameFor(given.viewer.name)));
    const signal =
      given.viewer === null
        ? given
        : ({ ...given, viewer: { ...given.viewer, name: this.deps.context.nameFor(given.viewer.name) } } as FromEvent);
    if (signal.kind !== "tip") return signal;
    const home = toHome(signal.amountMinor, signal.currency, this.deps.context.money);
    return { ...signal, homeMinor: home.ok ? home.value : null };
  }
}
