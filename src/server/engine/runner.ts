import { type ChatLine } from "../../core/chat/dialect";
import { emoteIndex, type EmoteIndex } from "../../core/chat/emotes";
import { type AnyRules, isGame, rulesOf } from "../../core/games/registry";
import { readStored, settingsVersion, storedInWords } from "../../core/kernel/stored";
import { rulesInWords, standsInWords } from "../../core/games/for-viewers";
import { fold } from "../../core/kernel/fold";
import type { CommandBook } from "../../core/commands/settings";
import type { ChannelId } from "../../core/kernel/ids";
import { ok, refusal, type Refusal, refused, type Result } from "../../core/kernel/refusal";
import type { Note, StepContext } from "../../core/kernel/step";
import type { Moment } from "../../core/moments/moment";
import type { PointsSettings } from "../../core/points/settings";
import type { RewardBook } from "../../core/rewards/settings";
import type { Sale } from "../../core/rewards/desk";
import { type Tag, tagsFor } from "../../core/rewards/tags";
import { mainLane, rulebookDefaults, type Rulebook } from "../../core/rules/settings";
import { toHome } from "../../core/signals/money";
import { markOf } from "../../core/show/marks";
import type { ShowDurable } from "../../core/show/settings";
import { type Hand, nameOf, type Signal, type Viewer } from "../../core/signals/signal";
import type { FromEvent } from "../../core/signals/events";
import { showable } from "../../core/words/template";
import type { ShopHead, Stage, WaitingSale } from "../../core/wire/messages";
import type { Bus } from "../ports/bus";
import type { Clock } from "../ports/clock";
import type { ChannelRow, DeskRows, EngineStore, Fence, GameRow } from "../ports/engine-store";
import { Committer } from "./committer";
import { Deliveries } from "./deliveries";
import { LiveDesk } from "./desk";
import { DustLog } from "./dust-log";
import { MomentBoard } from "./moment-board";
import { PerMinute } from "./per-minute";
import { RecentAnswers } from "./recent-answers";
import { RecentIds } from "./recent-ids";
import { talkText } from "./talk-text";
import { ToldAway } from "./told-away";
import { type PartNote, type Running, showOf, takeTurn, type Turn } from "./turn";

export type RunnerDeps = Readonly<{
  store: EngineStore;
  clock: Clock;
  bus: Bus;
  /** Speaks in chat; false when nobody is connected or the queue is full. */
  say?: (text: string) => boolean;
  /** Who writes here; left out where nobody else can. */
  fence?: () => Fence | undefined;
  /** Somebody else owns the channel now. */
  lost?: () => void;
  onError?: (what: string, error: unknown) => void;
}>;
export type Arrival = Readonly<{ id: string; signal: FromEvent }>;
/** Taken, there before, or why that one alone was not kept. */
export type Taken = "taken" | "duplicate" | Refusal;
const longestSleepMs = 60_000;
/** No cooldown is longer. */
const longestRestMs = 7 * 86_400_000;
const mostRoles = 50_000;
/** Without a show, what was asked for within so long waits in the booth; the rest under Review. */
const eveningMs = 12 * 3_600_000;
/** Parts of which a channel has just one, so that a hand may name them by their kind. */
const oneOfEach: ReadonlySet<string> = new Set(["show", "rewards", "points"]);
const noRows: DeskRows = { accounts: [], sold: [], soldInShow: [], last: [], prices: [], sales: [] };
/** The show that runs on air, by what is stored; empty off air and in rehearsal. */
const showIdIn = (row: ChannelRow): string => {
  const durable = row.games.find((g) => g.kind === "show")?.durable as ShowDurable | null | undefined;
  return durable?.state === "on" ? (durable.show?.id ?? "") : "";
};
export const readDesk = (store: EngineStore, row: ChannelRow, nowMs: number): Promise<DeskRows> =>
  store.desk(row.id, { showId: showIdIn(row), sinceMs: nowMs - longestRestMs });
/** So long after one operator did something, another one doing just that is taken for the same wish. */
const twinMs = 1_000;
/** Chat servers and bots read a line that begins with / or . as a command: a word joiner in front keeps it words. */
const asWords = (text: string): string => (/^\s*[/.]/.test(text) ? `\u2060${text.trimStart()}` : text);
type Job = Readonly<{
  signal: Signal;
  source: string;
  to: Running | null;
  mustKeep: boolean;
  idFromOutside: boolean;
  resolve: (result: Result<readonly PartNote[]>) => void;
  done: Promise<Result<readonly PartNote[]>>;
}> & {
  /** Whether points were to move by it. */
  pays: boolean;
};

/**
 * One queue for one channel. Signals are stepped in the order of their arrival; what changes durable
 * state is committed, together with all else that waits, before anyone hears of it; what does not (dust)
 * is shown at once and logged in batches, and goes on while the database is away.
 */
export class Runner {
  private parts: Running[] = [];
  private emotes: EmoteIndex = emoteIndex([]);
  readonly desk = new LiveDesk();
  /** Roles as they were last seen in chat, of those who wrote lately. */
  private readonly roles = new Map<string, Viewer["roles"]>();
  private icons = new Map<string, Tag["icon"]>();
  /** Chat words that mean something here, folded. */
  private known = new Set<string>();
  private readonly ids = new RecentIds(20_000);
  private readonly answers = new RecentAnswers<Result<readonly PartNote[]>>(40_000);
  /** States as they are committed: where memory goes back to. */
  private readonly committed = new Map<string, unknown>();
  private readonly toldAway = new ToldAway();
  private readonly log: DustLog;
  private readonly commits: Committer;
  private readonly moments: MomentBoard;
  private readonly messages = new PerMinute();
  private readonly arrivals = new PerMinute();
  private lastEventMs: number | null = null;
  private ctx: Omit<StepContext, "emotes">;
  private names = new Map<string, string>();
  /** Parts that do not run, since what is stored of them can't be read. */
  private unreadable: { name: string; what: "settings" | "state"; why: Refusal }[] = [];
  private due: NodeJS.Timeout | null = null;
  private timing = false;
  private lastHand = { what: "", by: "", atMs: -Infinity };
  private stopped = false;
  private readonly deliveries: Deliveries;
  /** Grows with every sale that is made or decided, so that lists of them know when to look again. */
  private salesChanged = 0;
  private seq: number;
  row: ChannelRow;

  constructor(
    private readonly deps: RunnerDeps,
    row: ChannelRow,
    lastSeq: number,
    desk: DeskRows = noRows,
  ) {
    this.row = row;
    this.seq = lastSeq;
    this.desk.load(desk, showIdIn(row));
    this.ctx = this.contextOf(row);
    this.log = new DustLog((rows) => deps.store.append(row.id, rows), deps.onError);
    this.moments = new MomentBoard(deps.clock.now, {
      start: (moment) => deps.bus.publish(this.id, { kind: "moment", moment }),
      stop: (ids) => deps.bus.publish(this.id, { kind: "moment-end", ids }),
    });
    this.deliveries = new Deliveries((sales) => deps.store.delivered(row.id, sales));
    this.commits = new Committer({
      store: deps.store,
      channel: row.id,
      ...(deps.onError === undefined ? {} : { onError: deps.onError }),
      fence: () => deps.fence?.(),
      settle: (changes, states) => {
        this.desk.settle(changes);
        for (const [id, durable] of states) this.committed.set(id, durable);
      },
      takeBack: () => {
        this.desk.takeBack();
        for (const part of this.parts) if (this.committed.has(part.id)) part.durable = this.committed.get(part.id);
      },
      lost: () => deps.lost?.(),
      desk: (fresh) => readDesk(deps.store, fresh, deps.clock.now()),
      recovered: (fresh, last, rows) => {
        this.desk.load(rows, showIdIn(fresh));
        for (const sale of this.deliveries.pending) this.desk.shown(sale);
        this.recovered(fresh, last);
      },
    });
    this.reload(row);
  }

  get busy(): boolean {
    return this.commits.busy;
  }

  get id(): ChannelId {
    return this.row.id;
  }

  private contextOf(row: ChannelRow): Omit<StepContext, "emotes"> {
    const pictures = new Map(row.sprites.filter((s) => s.key.startsWith("prop:")).map((s) => [fold(s.word), s.key]));
    const sounds = new Map(row.sounds.map((s) => [s.id, s.ms]));
    const names = new Map<string, string>(row.games.map((g) => [g.id, g.name]));
    return {
      salt: row.salt,
      channelName: row.name,
      homeCurrency: this.book().money.home,
      soundMs: (sound) => sounds.get(sound) ?? 0,
      pictureNamed: (name) => pictures.get(fold(name)) ?? null,
      gameName: (game) => names.get(game) ?? game,
      desk: this.desk,
      hushed: row.hushed,
      showId: null,
      rehearsing: false,
      hiddenWords: this.book().hiddenWords,
      pointsName: this.points()?.name ?? "points",
      gameRuns: (game) => {
        const part = this.parts.find((p) => p.id === game);
        const view = part?.rules.view(part.settings, part.durable, "operator", part.dust) ?? {};
        return part !== undefined && view["on"] !== false && view["health"] !== 0;
      },
      isWord: (word) => this.known.has(fold(word)),
    };
  }
  private settingsOf(kind: string): unknown {
    return this.parts.find((p) => p.kind === kind)?.settings;
  }
  // The parts' own schemas have accepted their settings.
  private points(): PointsSettings | undefined {
    return this.settingsOf("points") as PointsSettings | undefined;
  }
  rewards(): RewardBook | undefined {
    return this.settingsOf("rewards") as RewardBook | undefined;
  }
  /** What differs from one signal to the next. */
  private nowContext(atMs: number): Omit<StepContext, "emotes"> {
    const show = showOf(this.parts)?.durable;
    const showId = show?.state === "on" ? (show.show?.id ?? null) : null;
    this.desk.show(showId ?? "");
    this.desk.nowMs = atMs;
    return { ...this.ctx, hushed: this.row.hushed, showId, rehearsing: show?.state === "rehearsing" };
  }
  private chatWords(): Set<string> {
    const rewards = this.rewards();
    const show = this.settingsOf("show") as { commands?: readonly { word: string }[] } | undefined;
    const cues = this.settingsOf("cues") as { cues?: readonly { word: string }[] } | undefined;
    const commands = this.settingsOf("commands") as CommandBook | undefined;
    return new Set(
      [
        ...Object.values(this.points()?.words ?? {}),
        ...Object.values(rewards?.words ?? {}),
        ...(rewards?.rewards ?? []).flatMap((r) => r.words),
        ...(show?.commands ?? []).map((c) => c.word),
        ...(cues?.cues ?? []).map((c) => c.word),
        ...(commands?.commands ?? []).flatMap((c) => c.words),
        ...this.book().rules.flatMap((r) => (r.words.how === "is" ? r.words.list : [])),
      ].map(fold),
    );
  }
  private book(): Rulebook {
    // The part's own schema has accepted its settings.
    return (this.parts.find((p) => p.kind === "rules")?.settings as Rulebook | undefined) ?? rulebookDefaults;
  }

  /** Takes new settings, emotes and overlays between two signals: the next one meets the new version. */
  reload(row: ChannelRow): void {
    const before = new Map(this.parts.map((p) => [p.id, p]));
    this.row = { ...row, hushed: this.parts.length === 0 ? row.hushed : this.row.hushed };
    this.emotes = emoteIndex(row.words);
    this.unreadable = [];
    this.parts = row.games.flatMap((game): Running[] => {
      const rules = rulesOf(game.kind);
      const { id, kind, name, version } = game;
      const old = before.get(id);
      const no = (what: "settings" | "state", why: Refusal): Running[] => {
        // It does not run, and nothing of it is written over: what can't be read now may be read by the right version.
        this.unreadable.push({ name, what, why });
        this.deps.onError?.(`the ${what} of ${name} can't be read; it does not run`, new Error(storedInWords(why)));
        return [];
      };
      if (rules === null) return no("settings", refusal("stored/unreadable", { why: `there is no kind of game called ${kind}` }));
      const settings = readStored(rules.settings, rules.settingsSteps, settingsVersion(game.settings), game.settings);
      if (!settings.ok) return no("settings", settings.refusal);
      const kept = this.stateOf(game, rules, settings.value);
      if (old === undefined && !kept.ok) return no("state", kept.refusal);
      const durable: unknown = old !== undefined ? old.durable : kept.ok ? kept.value : null;
      return [{ id, kind, name, rules, version, settings: settings.value, durable, dust: old?.dust ?? rules.freshDust() }];
    });
    for (const part of this.parts) if (!this.committed.has(part.id)) this.committed.set(part.id, part.durable);
    this.ctx = this.contextOf(row);
    this.known = this.chatWords();
    this.icons = new Map(
      row.sprites.map((s) => [s.key, { url: s.url, columns: s.columns, rows: Math.max(1, Math.ceil(s.frames / s.columns)) }]),
    );
    this.desk.dayOffsetMin = this.points()?.dayOffsetMin ?? 0;
    this.names.clear();
    this.moments.rules = this.book().lanes;
    this.moments.hush(this.row.hushed);
    this.deps.bus.publish(this.id, { kind: "stage" });
    this.setDue();
  }

  /** Reads points and sales again, between two commits. */
  refresh(): Promise<void> {
    return this.commits.refresh();
  }

  /** The state of a part as it is stored; a fresh one only where none was ever stored. */
  private stateOf(game: GameRow, rules: AnyRules, settings: unknown): Result<unknown> {
    return game.durable === null || game.durable === undefined
      ? ok(rules.freshDurable(settings))
      : readStored<unknown>(rules.durable, rules.stateSteps, game.stateVersion ?? 1, game.durable);
  }

  private recovered(row: ChannelRow, last: number): void {
    this.seq = Math.max(this.seq, last);
    this.parts = this.parts.filter((part) => {
      const game = row.games.find((g) => g.id === part.id);
      const kept = game === undefined ? null : this.stateOf(game, part.rules, part.settings);
      if (kept?.ok !== true) return false;
      part.durable = kept.value;
      this.committed.set(part.id, part.durable);
      return true;
    });
    this.reload(row);
  }

  viewOf(gameId: string): Record<string, unknown> | null {
    const part = this.parts.find((p) => p.id === gameId);
    return part === undefined ? null : { ...part.rules.view(part.settings, part.durable, "overlay") };
  }

  /** What an overlay shows now: only what its places name, and of each game only what an overlay may see. */
  stage(overlayId: string, markedUrl: string): Stage {
    const overlay = this.row.overlays.find((o) => o.id === overlayId);
    const games = (overlay?.places ?? []).flatMap(({ gameId, place }) => {
      const part = this.parts.find((p) => p.id === gameId);
      return part === undefined || place.hidden
        ? []
        : [{ id: part.id, kind: part.kind, place, view: part.rules.view(part.settings, part.durable, "overlay") }];
    });
    return {
      games,
      sprites: [...this.row.sprites],
      markedUrl,
      moments: overlay?.shows === false ? [] : this.sticky(),
      sounds: [...this.row.sounds],
      shows: overlay?.shows ?? true,
      css: overlay?.css ?? "",
    };
  }
  private sticky(): Moment[] {
    const cues = this.parts.find((p) => p.kind === "cues");
    // The cues' view for overlays is just their moments.
    return cues === undefined ? [] : [...(cues.rules.view(cues.settings, cues.durable, "overlay")["moments"] as readonly Moment[])];
  }

  standing() {
    const now = this.deps.clock.now();
    return {
      games: this.parts.map((p) => ({
        id: p.id,
        kind: p.kind,
        name: p.name,
        version: p.version,
        view: { ...p.rules.view(p.settings, p.durable, "operator", p.dust) },
      })),
      held: this.moments.held(),
      sales: this.salesWaiting(),
      perMinute: this.messages.last(now),
      events: { lastMs: this.lastEventMs, perMinute: this.arrivals.last(now) },
      lanes: this.moments.standing(),
      backlog: this.log.size,
      lost: this.log.lost,
      recovering: this.commits.recovering,
      unreadable: this.unreadable.map((u) => `${u.name}: ${storedInWords(u.why)}`),
      unfit: this.commits.unfit + this.log.unfit,
      waitingMs: this.commits.waitingMs(now),
    };
  }

  /** A chat line: shown at once, logged with the next batch. Never waits for the database. */
  message(line: ChatLine): void {
    if (this.stopped) return;
    const atMs = this.deps.clock.now();
    if (line.id !== null && !this.ids.add(`chat:${line.id}`)) return;
    this.seq += 1;
    this.messages.add(atMs);
    if (this.roles.size > mostRoles) this.roles.clear();
    this.roles.set(line.viewerId, line.roles);
    const signal: Signal = {
      kind: "message",
      seq: this.seq,
      atMs,
      id: line.id ?? `s${this.seq}.${atMs}`,
      viewer: { id: line.viewerId, name: this.nameFor(line.name), roles: line.roles },
      text: line.text,
      marks: line.marks,
    };
    const job = this.jobOf(signal, "chat", null, false, line.id !== null);
    void job.done.then((done) => {
      if (job.pays && !done.ok && done.refusal.code !== "signal/duplicate") this.tellAway(signal.viewer, done.refusal.code);
    });
    this.step(job);
    // Each is a signal of its own, after the message it stood in. Chat sends nothing twice: what can't be kept is lost, and said.
    for (const [i, { reaction, count, valueEach }] of (line.paid ?? []).entries()) {
      this.seq += 1;
      const value = Math.min(Number.MAX_SAFE_INTEGER, count * valueEach);
      const paid: Signal = {
        kind: "reaction",
        seq: this.seq,
        atMs,
        id: `${signal.id}#${i}`,
        viewer: signal.viewer,
        reaction,
        count,
        value,
        text: line.text,
      };
      void this.take(paid, "chat", null, true, line.id !== null).then((done) => {
        if (!done.ok && done.refusal.code !== "signal/duplicate")
          this.deps.onError?.("paid reactions in chat could not be kept", new Error(done.refusal.code));
      });
    }
  }

  /**
   * What a platform sent, in its order. Taken means committed: a sender who hears it may forget it. An id
   * that came before changes nothing.
   */
  async platform(arrivals: readonly Arrival[]): Promise<Result<readonly Taken[]>> {
    if (this.stopped || this.commits.recovering) return refused("store/away");
    const atMs = this.deps.clock.now();
    const waits = arrivals.map(async ({ id, signal: given }): Promise<Result<Taken>> => {
      let first = false;
      const done = await this.answers.once(
        `event:${id}`,
        () => {
          first = true;
          this.seq += 1;
          this.arrivals.add(atMs);
          this.lastEventMs = atMs;
          return this.take({ ...this.atHome(given), seq: this.seq, atMs, id }, "event", null, true);
        },
        // What was not kept may come again.
        (answer) => answer.ok || answer.refusal.code === "signal/duplicate",
      );
      if (done.ok) return ok(first ? "taken" : "duplicate");
      if (done.refusal.code === "signal/duplicate") return ok("duplicate");
      return done.refusal.code === "store/unfit" ? ok(done.refusal) : done;
    });
    const all = await Promise.all(waits);
    const failed = all.find((r) => !r.ok);
    if (failed !== undefined && !failed.ok) return failed;
    return ok(all.map((r) => (r.ok ? r.value : "duplicate")));
  }

  /** Who bought by a word while nothing could be stored is told so. */
  private tellAway(viewer: Viewer, why: string): void {
    if (!this.toldAway.may(viewer.id, this.deps.clock.now())) return;
    const name = this.ctx.pointsName;
    this.say(
      why === "store/unfit"
        ? `@${viewer.name} this could not be stored, and nothing was taken.`
        : `@${viewer.name} the ${name} can’t be reached at the moment; nothing was taken. Try again in a minute.`,
    );
  }

  /** With its worth in the home currency, and a name that may be shown. */
  private atHome(given: FromEvent): FromEvent {
    const signal =
      given.viewer === null ? given : ({ ...given, viewer: { ...given.viewer, name: this.nameFor(given.viewer.name) } } as FromEvent);
    if (signal.kind !== "tip") return signal;
    const home = toHome(signal.amountMinor, signal.currency, this.book().money);
    return { ...signal, homeMinor: home.ok ? home.value : null };
  }

  /** Names come onto the picture in many places, so they are made fit for it where they come in. */
  private nameFor(name: string): string {
    let clean = this.names.get(name);
    if (clean === undefined) {
      if (this.names.size > 5_000) this.names.clear();
      clean = showable(name, this.book().hiddenWords, 40) || "someone";
      this.names.set(name, clean);
    }
    return clean;
  }

  /** A hand on a game. Resolves when it is committed, or with the reason why not. */
  async hand(gameId: string, by: string, id: string, hand: Hand): Promise<Result<readonly Note[]>> {
    const part = this.parts.find((p) => p.id === gameId || (p.kind === gameId && oneOfEach.has(gameId)));
    if (part === undefined) return refused("game/unknown");
    if (hand.do === "sale" || hand.do === "sale-again") {
      // One of long ago is fetched first; what is in memory is newer.
      if (this.desk.sale(hand.sale) === null) {
        const sale = await this.deps.store.sale(this.id, hand.sale).catch(() => null);
        if (sale !== null) this.desk.remember(sale);
      }
    }
    gameId = part.id;
    const done = await this.asked("operator", id, `${part.id} ${JSON.stringify(hand)}`, by, () => {
      const signal: Signal = { kind: "hand", seq: (this.seq += 1), atMs: this.deps.clock.now(), id, gameId, by, viewer: null, hand };
      return this.take(signal, "operator", part, false);
    });
    // What rules made of it in other parts stands in the talk; the one who asked hears of what was asked.
    return done.ok ? ok(done.value.filter((n) => n.game === part.id).map((n) => n.note)) : done;
  }

  async cue(cueId: string, by: string, id: string, via: "key" | "click" | "address"): Promise<Result<readonly Note[]>> {
    const part = this.parts.find((p) => p.kind === "cues");
    if (part === undefined) return refused("cue/unknown");
    const done = await this.asked("operator", id, via === "address" ? "" : `cue ${cueId}`, by, () => {
      const signal: Signal = { kind: "cue", seq: (this.seq += 1), atMs: this.deps.clock.now(), id, cueId, by, via, viewer: null };
      return this.take(signal, "operator", part, false);
    });
    if (!done.ok) return done;
    const no = done.value.find((n) => n.game === part.id && n.note.refusal !== undefined)?.note.refusal;
    return no === undefined ? ok(done.value.map((n) => n.note)) : { ok: false, refusal: no };
  }

  /**
   * Something asked for with an id: once, however often it is asked for. Who asks again hears what came of it
   * the first time, after a restart too. Two operators who press the same at once want it once: the second
   * hears who was first. One who presses twice, with two ids, wants it twice; what must not be, rules refuse.
   */
  private asked(
    source: string,
    id: string,
    what: string,
    by: string,
    work: () => Promise<Result<readonly PartNote[]>>,
  ): Promise<Result<readonly PartNote[]>> {
    if (this.stopped || this.commits.recovering) return Promise.resolve(refused("store/away"));
    return this.answers.once(
      `${source}:${id}`,
      async () => {
        const atMs = this.deps.clock.now();
        const { lastHand } = this;
        if (what !== "" && lastHand.what === what && lastHand.by !== by && atMs - lastHand.atMs < twinMs)
          return refused("hand/twin", { by: lastHand.by });
        if (what !== "") this.lastHand = { what, by, atMs };
        const done = await work();
        if (done.ok || done.refusal.code !== "signal/duplicate") return done;
        const came = await this.deps.store.came(this.id, source, [id]).catch(() => null);
        if (came === null) return refused("store/away");
        return ok(came.get(id)?.notes ?? []);
      },
      (answer) => answer.ok || (answer.refusal.code !== "store/away" && answer.refusal.code !== "hand/twin"),
    );
  }

  /** A page shows what was sold, or it is heard. What can't be written down now is written with the next word of it. */
  shown(sales: readonly string[]): void {
    this.deliveries.add(sales.filter((sale) => this.desk.shown(sale)));
  }

  /** What was held under hush and waits for a decision: played now, or dropped. */
  held(what: "play" | "drop", moment: string): Result<null> {
    return this.moments.decide(what, moment);
  }

  lane(what: "skip" | "clear" | "pause" | "go-on", lane: string): Result<null> {
    return this.moments.act(what, lane === "" ? mainLane : lane);
  }

  /** Published first and stored after: it must work when the database does not (RULES section 11). */
  async hush(on: boolean): Promise<void> {
    this.row = { ...this.row, hushed: on };
    this.deps.bus.publish(this.id, { kind: "hush", on });
    this.moments.hush(on);
    await this.deps.store.setHushed(this.id, on).catch((error: unknown) => this.deps.onError?.("hush could not be stored", error));
  }

  /** Somebody wants a reward on the viewer page. Resolves when it is paid, or with the reason why not. */
  async wish(viewer: Viewer, wish: Readonly<{ id: string; reward: string; text: string; price: number }>): Promise<Result<Note>> {
    const part = this.parts.find((p) => p.kind === "rewards");
    if (part === undefined) return refused("reward/gone");
    if (this.stopped || this.commits.recovering) return refused("store/away");
    if (showOf(this.parts)?.durable.muted.some((m) => m.id === viewer.id) === true) return refused("viewer/muted");
    const id = `${viewer.id}:${wish.id}`;
    const done = await this.asked("page", id, "", "", () => {
      const signal: Signal = {
        kind: "wish",
        seq: (this.seq += 1),
        atMs: this.deps.clock.now(),
        id,
        viewer: { ...viewer, name: this.nameFor(viewer.name) },
        rewardId: wish.reward,
        text: wish.text,
        shownPrice: wish.price,
      };
      return this.take(signal, "page", null, false);
    });
    if (!done.ok) return done;
    const note = done.value.find((n) => n.game === part.id)?.note;
    if (note === undefined) return refused("reward/gone");
    return note.refusal === undefined ? ok(note) : { ok: false, refusal: note.refusal };
  }

  /** With the roles of now, for who has written since the engine started. */
  withRoles(viewer: Viewer): Viewer {
    return { ...viewer, roles: this.roles.get(viewer.id) ?? viewer.roles };
  }

  /** They have the viewer page open: as good as a word for being there. */
  here(viewer: Viewer): void {
    if (this.stopped || this.commits.recovering) return;
    const part = this.parts.find((p) => p.kind === "points");
    if (part === undefined) return;
    const signal: Signal = { kind: "here", seq: this.seq, atMs: this.deps.clock.now(), id: "", viewer };
    void this.take(signal, "page", part, false);
  }

  /** The price tags as one viewer may see them; null for one who is not known. */
  tags(viewer: Viewer | null): readonly Tag[] {
    const book = this.rewards();
    if (book === undefined) return [];
    const nowMs = this.deps.clock.now();
    return tagsFor(book, this.nowContext(nowMs), { nowMs, viewer, icon: (key) => this.icons.get(key) ?? null });
  }

  /** What everyone on the viewer page sees beside the price tags. */
  shopHead(order: readonly string[]): ShopHead {
    const show = showOf(this.parts)?.durable;
    return {
      channel: this.row.name,
      points: this.ctx.pointsName,
      onAir: show?.state === "on",
      sinceMs: show?.state === "on" ? (show.show?.sinceMs ?? null) : null,
      hushed: this.row.hushed,
      order: [...order],
      games: this.parts
        .filter((p) => isGame(p.kind))
        .map((p) => {
          const view = p.rules.view(p.settings, p.durable, "viewer", p.dust);
          return { id: p.id, kind: p.kind, name: String(view["name"] ?? p.name), on: view["on"] !== false, stands: standsInWords(view) };
        }),
      top: [...this.desk.top(10)],
    };
  }

  /** The rules of each game as viewers read them, and the words they can write in chat. */
  house(): Readonly<{ games: readonly { id: string; lines: readonly string[] }[]; commands: readonly { word: string; what: string }[] }> {
    const points = this.points();
    const rewards = this.rewards();
    const name = this.ctx.pointsName;
    const commands = [
      { word: points?.words.balance ?? "", what: `how much ${name} you have` },
      { word: rewards?.words.shop ?? "", what: `what you can have for your ${name}` },
      { word: rewards?.words.price ?? "", what: "what something costs: the word and its name" },
      { word: points?.words.top ?? "", what: `who has most ${name}` },
      ...(points?.give.on === true ? [{ word: points.words.give, what: `give ${name} to somebody: the word, a name and an amount` }] : []),
      ...this.book()
        .rules.filter((r) => r.on && r.when === "message" && r.words.how === "is" && r.roles.includes("viewer"))
        .map((r) => ({ word: r.words.list[0] ?? "", what: r.name })),
      ...((this.settingsOf("commands") as CommandBook | undefined)?.commands ?? [])
        .filter((c) => c.on && c.about !== "" && c.roles.includes("viewer"))
        .map((c) => ({ word: c.words.join(" "), what: c.about })),
    ].filter((c) => c.word !== "");
    return {
      games: this.parts
        .filter((p) => isGame(p.kind))
        .map((p) => ({ id: p.id, lines: rulesInWords(p.kind, p.settings, this.ctx.homeCurrency) })),
      commands,
    };
  }

  /** Sales that wait for a yes: one by one those of this evening, of the others how many. */
  private salesWaiting(): { count: number; first: WaitingSale[]; older: number; points: string; changes: number; unshown: WaitingSale[] } {
    const all = this.desk.waiting();
    const show = showOf(this.parts)?.durable;
    const sinceMs = show !== undefined && show.state !== "off" ? (show.show?.sinceMs ?? 0) : this.deps.clock.now() - eveningMs;
    const now = all.filter((s) => s.atMs >= sinceMs);
    const line = (s: Sale): WaitingSale => ({
      id: s.id,
      atMs: s.atMs,
      rewardId: s.rewardId,
      reward: s.rewardName,
      viewer: s.viewer.name,
      price: s.price,
      text: s.text,
    });
    // What waits its turn in a lane, or was held under hush, is on its way still.
    const unshown = this.desk.unshown(this.deps.clock.now()).filter((s) => !this.moments.has(s.id));
    return {
      count: all.length,
      older: all.length - now.length,
      first: now.slice(0, 50).map(line),
      unshown: unshown.slice(0, 50).map(line),
      points: this.ctx.pointsName,
      changes: this.salesChanged,
    };
  }

  /** Steps a signal now; what it comes to is told when it is committed, or at once when it is dust. */
  private take(
    signal: Signal,
    source: string,
    to: Running | null,
    mustKeep: boolean,
    idFromOutside = signal.kind !== "timer",
  ): Promise<Result<readonly PartNote[]>> {
    const job = this.jobOf(signal, source, to, mustKeep, idFromOutside);
    this.step(job);
    return job.done;
  }

  private jobOf(signal: Signal, source: string, to: Running | null, mustKeep: boolean, idFromOutside: boolean): Job {
    let resolve: Job["resolve"] = () => undefined;
    const done = new Promise<Result<readonly PartNote[]>>((r) => (resolve = r));
    return { signal, source, to, mustKeep, idFromOutside, resolve, done, pays: false };
  }

  private step(job: Job): void {
    const { signal, source, mustKeep, idFromOutside, resolve } = job;
    // Settings may have been taken up since: the part of now is meant.
    const to = job.to === null ? null : (this.parts.find((p) => p.id === job.to?.id) ?? job.to);
    const turn = takeTurn(signal, source, to, {
      parts: this.parts,
      emotes: this.emotes,
      ctx: this.nowContext(signal.atMs),
      nextSeq: () => (this.seq += 1),
      idFromOutside,
      apply: (seq, booking) => this.desk.apply(seq, booking),
    });
    job.pays = turn.booked.length > 0;
    const publish = (): void => this.publish(turn, signal);
    if (!mustKeep && turn.changed.size === 0 && turn.kept.length === 0 && turn.booked.length === 0) {
      publish();
      for (const row of turn.rows) this.log.add(row);
      return resolve(ok(turn.notes));
    }
    this.commits.add({
      turn,
      changes: this.desk.changes,
      publish,
      done: (result) => resolve(result.ok ? ok(turn.notes) : result),
      again: () => this.step(job),
    });
  }

  private publish(turn: Turn, signal: Signal): void {
    const { bus } = this.deps;
    for (const part of turn.changed) bus.publish(this.id, part.kind === "cues" ? { kind: "stage" } : { kind: "state", game: part.id });
    // Under hush, dust is simply not shown; games go on counting.
    if (!this.row.hushed) for (const { game, effects } of turn.effects) bus.publish(this.id, { kind: "effects", game, effects });
    for (const { lane, moment } of turn.shows) this.moments.show(lane, moment);
    for (const { booking } of turn.booked) {
      if (booking.sales.length > 0) this.salesChanged += 1;
      bus.publish(this.id, { kind: "booked", booking });
    }
    if (turn.hush !== null) void this.hush(turn.hush);
    for (const row of turn.rows) {
      if (row.kind === "message") continue;
      const mark = markOf(row);
      if (mark !== null) bus.publish(this.id, { kind: "mark", mark });
    }
    if (signal.kind !== "timer" || turn.notes.length > 0)
      bus.publish(this.id, {
        kind: "talk",
        seq: signal.seq,
        atMs: signal.atMs,
        of: signal.kind,
        name: signal.kind === "timer" ? "" : signal.kind === "hand" || signal.kind === "cue" ? signal.by : nameOf(signal.viewer),
        viewer: signal.kind === "timer" || signal.viewer === null ? null : { id: signal.viewer.id, roles: signal.viewer.roles },
        text: talkText(signal),
        notes: turn.notes,
      });
    for (const text of turn.says) if (text !== "") this.say(text, signal.seq, signal.atMs);
    if (turn.changed.size > 0) this.setDue();
  }

  /** Speaks in chat, and shows in the talk what was said. */
  say(text: string, seq = 0, atMs = this.deps.clock.now(), by = "izzam"): boolean {
    const sent = this.deps.say?.(asWords(text)) ?? false;
    this.deps.bus.publish(this.id, { kind: "talk", seq, atMs, of: sent ? "said" : "unsaid", name: by, viewer: null, text, notes: [] });
    return sent;
  }

  /** Wakes when a wait or a timer of some part is due. */
  private setDue(): void {
    if (this.due !== null) clearTimeout(this.due);
    this.due = null;
    if (this.stopped) return;
    let next: number | null = null;
    for (const part of this.parts) {
      const at = part.rules.dueMs?.(part.settings, part.durable) ?? null;
      if (at !== null && (next === null || at < next)) next = at;
    }
    // Timers of rules that were just set begin with the first signal; this is it when nobody sends one.
    const unwound =
      this.parts.some((p) => p.kind === "rules" && this.book().rules.some((r) => r.when === "timer" && r.on)) && next === null;
    if (next === null && !unwound) return;
    // While the database is away what is due stays due: looking twice a second is enough.
    const leastMs = this.commits.recovering || next === null ? 500 : 5;
    const sleepMs = Math.min(longestSleepMs, Math.max(leastMs, (next ?? 0) - this.deps.clock.now()));
    this.due = setTimeout(() => void this.timer(), sleepMs);
    this.due.unref();
  }

  private async timer(): Promise<void> {
    this.due = null;
    if (this.timing || this.stopped) return;
    this.timing = true;
    try {
      const nowMs = this.deps.clock.now();
      for (const part of this.parts) {
        const book = part.kind === "rules";
        const at = part.rules.dueMs?.(part.settings, part.durable) ?? null;
        if (this.commits.recovering || (at === null ? !book : at > nowMs)) continue;
        this.seq += 1;
        await this.take({ kind: "timer", seq: this.seq, atMs: nowMs, id: `t${this.seq}`, partId: part.id }, "timer", part, false);
      }
    } finally {
      this.timing = false;
      this.setDue();
    }
  }

  async stop(): Promise<void> {
    this.stopped = true;
    if (this.due !== null) clearTimeout(this.due);
    this.moments.stop();
    this.deliveries.stop();
    await this.commits.stop();
    await this.log.stop();
  }
}
