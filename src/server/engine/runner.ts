import type { Vault } from "../../core/chance/vault";
import { emoteIndex, type EmoteIndex } from "../../core/chat/emotes";
import type { ChannelId } from "../../core/kernel/ids";
import type { Result } from "../../core/kernel/refusal";
import { storedInWords } from "../../core/kernel/stored";
import type { Bus } from "../ports/bus";
import type { Clock } from "../ports/clock";
import type { ChannelRow, LedgerRows, EngineStore, Fence } from "../ports/engine-store";
import type { Face } from "../ports/profiles";
import type { Voice } from "../../core/speech/voice";
import { Alarm } from "./alarm";
import { Asked } from "./asked";
import { Committer } from "./committer";
import { ChannelContext } from "./context";
import { Deliveries, type ShownPart } from "./deliveries";
import { LedgerCache } from "./ledger-cache";
import { TransientLog } from "./transient-log";
import { Outside } from "./outside";
import { Inbox } from "./inbox";
import { Modules, storedShowId } from "./modules";
import { forgetting, forgettingId } from "./turn";
import { AlertBoard } from "./alert-board";
import { SignalQueue } from "./queue";
import { Requests } from "./requests";
import { ShopView } from "./shop-view";
import { StageView } from "./stage-view";
import { passingVault } from "./vault";

export type RunnerDeps = Readonly<{
  store: EngineStore;
  clock: Clock;
  bus: Bus;
  /** Speaks in chat; false when nobody is connected or the queue is full. */
  say?: (text: string) => boolean;
  /** What the platform tells of somebody; null when it tells nothing in time. */
  lookUp?: (name: string) => Promise<Face | null>;
  /** Has the studio go to a scene; nobody does when left out. */
  studio?: (scene: string) => Promise<Result<null>>;
  /** Has a text spoken; null when that can't be. */
  speech?: (text: string, voice: Voice) => Promise<Readonly<{ url: string; ms: number }> | null>;
  /** Seals the secrets of rounds; without it they last as long as the process. */
  vault?: Vault;
  /** Who writes here; left out where nobody else can. */
  fence?: () => Fence | undefined;
  /** Somebody else owns the channel now. */
  lost?: () => void;
  onError?: (what: string, error: unknown) => void;
}>;
/** No cooldown is longer. */
const longestRestMs = 7 * 86_400_000;
const noRows: LedgerRows = { accounts: [], sold: [], soldInShow: [], last: [], prices: [], sales: [] };
export const readLedger = (store: EngineStore, row: ChannelRow, nowMs: number): Promise<LedgerRows> =>
  store.ledgerView(row.id, { showId: storedShowId(row), sinceMs: nowMs - longestRestMs });
/** Chat servers and bots read a line that begins with / or . as a command: a word joiner in front keeps it words. */
const asWords = (text: string): string => (/^\s*[/.]/.test(text) ? `\u2060${text.trimStart()}` : text);
/** One channel as it runs: its modules, its one queue, what comes in, and what others may see. */
export class Runner {
  row: ChannelRow;
  readonly ledgerView = new LedgerCache();
  readonly modules: Modules;
  readonly view: StageView;
  readonly shop: ShopView;
  readonly inbox: Inbox;
  readonly requests: Requests;
  private readonly signals: SignalQueue;
  private emotes: EmoteIndex = emoteIndex([]);
  private readonly log: TransientLog;
  private readonly commits: Committer;
  private readonly alerts: AlertBoard;
  private readonly context: ChannelContext;
  private readonly alarm: Alarm;
  private readonly deliveries: Deliveries;
  readonly outside: Outside;
  private stopped = false;
  constructor(
    private readonly deps: RunnerDeps,
    row: ChannelRow,
    lastSeq: number,
    ledgerView: LedgerRows = noRows,
  ) {
    const { clock, bus, store } = deps;
    this.row = row;
    this.ledgerView.load(ledgerView, storedShowId(row));
    this.modules = new Modules(deps.onError);
    this.modules.load(row);
    this.context = new ChannelContext(this.modules, this.ledgerView, row, deps.vault ?? passingVault());
    this.log = new TransientLog((rows) => store.append(row.id, rows), deps.onError);
    this.alerts = new AlertBoard(clock, {
      start: (alert) => bus.publish(this.id, { kind: "alert", alert }),
      stop: (ids) => bus.publish(this.id, { kind: "alert-end", ids }),
    });
    this.view = new StageView(this.modules, () => this.row);
    this.shop = new ShopView(this.modules, this.context, this.ledgerView, this.alerts, clock.now, () => this.row);
    this.deliveries = new Deliveries((sales) => store.delivered(row.id, sales));
    this.commits = new Committer({
      store,
      channel: row.id,
      ...(deps.onError === undefined ? {} : { onError: deps.onError }),
      fence: () => deps.fence?.(),
      settle: (changes, states) => {
        this.ledgerView.settle(changes);
        this.modules.settle(states);
      },
      takeBack: () => {
        this.ledgerView.takeBack();
        this.modules.takeBack();
      },
      lost: () => deps.lost?.(),
      ledgerView: (fresh) => readLedger(store, fresh, clock.now()),
      recovered: (fresh, last, rows) => this.recovered(fresh, last, rows),
    });
    this.outside = new Outside({
      ...deps,
      channel: row.id,
      media: store.media,
      modules: this.modules,
      now: clock.now,
      heardOf: (name) => this.inbox.heardOf(name),
      take: async (signal, to) => (await this.signals.take({ signal, source: "engine", to, idFromOutside: false }).done).ok,
    });
    const { modules, context, log, alerts, commits } = this;
    this.signals = new SignalQueue(
      {
        modules,
        context,
        ledgerView: this.ledgerView,
        alerts,
        log,
        commits,
        emotes: () => this.emotes,
        hushed: () => this.row.hushed,
        publish: (publication) => bus.publish(this.id, publication),
        say: (text, seq, atMs) => void this.say(text, seq, atMs),
        hush: (on) => void this.hush(on),
        now: clock.now,
        lookUp: (name) => this.outside.lookUp(name),
        studio: (scene) => this.outside.toScene(scene),
        speech: (text, voice) => deps.speech?.(text, voice).catch(() => null) ?? Promise.resolve(null),
        films: this.outside.films,
        changed: () => this.alarm.set(),
        salesChanged: () => this.shop.salesChanged(),
      },
      lastSeq,
    );
    const asked = new Asked({
      now: clock.now,
      closed: () => this.closed,
      came: (source, ids) => store.came(this.id, source, ids).catch(() => null),
    });
    const shared = { queue: this.signals, asked, modules, context, now: clock.now, closed: () => this.closed };
    this.inbox = new Inbox({
      ...shared,
      stopped: () => this.stopped,
      say: (text) => void this.say(text),
      ...(deps.onError === undefined ? {} : { onError: deps.onError }),
    });
    this.requests = new Requests({
      ...shared,
      ledgerView: this.ledgerView,
      oldSale: (sale) => store.sale(this.id, sale).catch(() => null),
    });
    this.alarm = new Alarm(
      modules,
      clock,
      () => commits.recovering,
      (module, atMs) => {
        const signal = { kind: "timer" as const, atMs, id: `t${atMs}`, moduleId: module.id };
        return this.signals.take({ signal, source: "timer", to: module, idFromOutside: false }).done;
      },
    );
    this.begin(row);
  }

  readonly nowMs = (): number => this.deps.clock.now();
  get busy(): boolean {
    return this.commits.busy;
  }
  readonly behind = (): boolean => this.commits.behind;
  get id(): ChannelId {
    return this.row.id;
  }
  /** Nothing can be stored just now. */
  private get closed(): boolean {
    return this.stopped || this.commits.recovering;
  }

  /** Takes new settings, emotes and overlays between two signals: the next one meets the new version. */
  reload(row: ChannelRow): void {
    this.row = { ...row, hushed: this.row.hushed };
    this.modules.load(row);
    this.begin(row);
  }
  private begin(row: ChannelRow): void {
    this.emotes = emoteIndex(row.words);
    this.context.renew(row);
    this.shop.renew(row);
    this.alerts.rules = this.modules.provided().queues ?? [];
    this.alerts.hush(this.row.hushed);
    this.deps.bus.publish(this.id, { kind: "stage" });
    this.alarm.set();
  }
  private recovered(row: ChannelRow, last: number, rows: LedgerRows): void {
    this.ledgerView.load(rows, storedShowId(row));
    for (const sale of this.deliveries.pending) this.ledgerView.shown(sale);
    this.signals.goOnFrom(last);
    this.modules.readAgain(row);
    this.reload(row);
  }
  /** Reads points and sales again, between two commits. */
  refresh(): Promise<void> {
    return this.commits.refresh();
  }

  /** What a viewer wrote that waits to be logged, and what is kept of them for the talk, goes; what is written is the store's. */
  async forget(viewer: string): Promise<void> {
    await this.log.forget(viewer);
    for (const module of this.modules.list) {
      if (module.rules.forget === undefined) continue;
      const command = { do: forgetting, viewer };
      const signal = {
        kind: "command" as const,
        atMs: this.deps.clock.now(),
        id: forgettingId,
        gameId: module.id,
        by: forgetting,
        viewer: null,
        command,
      };
      await this.signals.take({ signal, source: "engine", to: module, idFromOutside: false }).done;
    }
    this.deps.bus.publish(this.id, { kind: "forgotten", viewer });
  }

  standing() {
    const now = this.deps.clock.now();
    return {
      games: this.view.forOperators(),
      held: this.alerts.held(),
      sales: this.shop.waiting(),
      perMinute: this.inbox.messages.last(now),
      heardMs: this.inbox.heardMs,
      events: { lastMs: this.inbox.lastEventMs, perMinute: this.inbox.arrivals.last(now) },
      queues: this.alerts.standing(),
      backlog: this.log.size,
      lost: this.log.lost,
      recovering: this.commits.recovering,
      unreadable: this.modules.unreadable.map((u) => `${u.name}: ${storedInWords(u.why)}`),
      unfit: this.commits.unfit + this.log.unfit,
      waitingMs: this.commits.waitingMs(now),
    };
  }

  /** Queues where something waits or waited in vain. */
  queues() {
    return this.alerts.standing().map(({ id, waiting }) => ({ id, waiting, full: this.alerts.leftOut(id) }));
  }
  /** A page shows what was sold, or it is heard. What can't be written down now is written with the next word of it. */
  shown(sales: readonly string[], part: ShownPart): void {
    this.deliveries.add(this.deliveries.halves.whole(sales, part, this.row.overlays).filter((sale) => this.ledgerView.shown(sale)));
    this.outside.seen(sales);
  }

  /** What was held under hush and waits for a decision: played now, or dropped. */
  held(what: "play" | "drop", alert: string): Result<null> {
    return this.alerts.decide(what, alert);
  }
  actOnQueue(what: "skip" | "clear" | "pause" | "go-on", queue: string): Result<null> {
    return this.alerts.act(what, queue === "" ? (this.alerts.rules[0]?.id ?? "") : queue);
  }

  /** Published first and stored after: it must work when the database does not (RULES section 11). */
  async hush(on: boolean): Promise<void> {
    this.row = { ...this.row, hushed: on };
    this.deps.bus.publish(this.id, { kind: "hush", on });
    this.alerts.hush(on);
    await this.deps.store.setHushed(this.id, on).catch((error: unknown) => this.deps.onError?.("hush could not be stored", error));
  }

  /** Whether somebody of this name was here: only they are looked for on the platform. */
  knows(name: string): boolean {
    return this.inbox.named(name) || this.ledgerView.named(name) !== null;
  }

  /** Speaks in chat, and shows in the talk what was said. */
  say(text: string, seq = 0, atMs = this.deps.clock.now(), by = "izzam"): boolean {
    const sent = this.deps.say?.(asWords(text)) ?? false;
    this.deps.bus.publish(this.id, { kind: "talk", seq, atMs, of: sent ? "said" : "unsaid", name: by, viewer: null, text, notes: [] });
    return sent;
  }

  async stop(): Promise<void> {
    this.stopped = true;
    this.alarm.stop();
    this.alerts.stop();
    this.deliveries.stop();
    await this.commits.stop();
    await this.log.stop();
  }
}
