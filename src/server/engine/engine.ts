import type { ChannelId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { Note } from "../../core/module/module";
import type { Fence } from "../ports/engine-store";
import { FaultWatch } from "./fault-watch";
import { FaceDoor } from "./face-door";
import { Faces } from "./faces";
import { Rehearsals } from "../rehearsal/rehearsals";
import { StudioLines } from "./studio-lines";
import { Speeches } from "./speeches";
import { ViewerDoor } from "./viewer-door";
import { proofWord, ViewerHub } from "./viewer-hub";
import { ChatLines } from "./chat-lines";
import { Nightly } from "./nightly";
import { standingOf } from "./standing-of";
import { fireTrigger } from "./trigger";
import { Intake } from "./intake";
import { PlatformEmotes } from "./platform-emotes";
import { OperatorHub } from "./operator-hub";
import { OverlayHub } from "./overlay-hub";
import { readChannel } from "./recall";
import type { EngineParts } from "./engine-parts";
import { readLedger, Runner } from "./runner";
import { Lag } from "./lag";
import { TakenUp } from "./taken-up";

const leaseMs = 10_000;
/** A viewer page stays tied to a chat name for so long. */
const viewerSessionMs = 90 * 86_400_000;

/** All channels this process owns: their runners, chat connections and hubs. */
export class Engine {
  readonly runners = new Map<ChannelId, Runner>();
  /** Who else remembers sessions. */
  onRecheck: () => Promise<void> = () => Promise.resolve();
  readonly overlays: OverlayHub;
  readonly operators: OperatorHub;
  readonly marked: PlatformEmotes;
  readonly faces: Faces;
  readonly faceDoor: FaceDoor;
  readonly speeches: Speeches;
  readonly intake: Intake;
  readonly viewers: ViewerHub;
  readonly viewerDoor: ViewerDoor;
  readonly rehearsals: Rehearsals;
  private readonly chats: ChatLines;
  private readonly studios: StudioLines;
  private timer: NodeJS.Timeout | undefined;
  private readonly lag = new Lag();
  private readonly nightly: Nightly;
  private readonly faults: FaultWatch;
  private readonly fences = new Map<ChannelId, Fence>();
  private readonly takenUp = new TakenUp(this.runners, this.fences);
  private ticking = false;
  constructor(private readonly parts: EngineParts) {
    const { bus, clock, store, decoder } = parts;
    this.nightly = new Nightly(store, clock, parts.log, () => [...this.runners.keys()]);
    this.marked = new PlatformEmotes(decoder);
    this.faces = new Faces({ decoder, store, now: clock.now, profiles: (id) => this.chats.profiles(id) });
    const profiles = (id: ChannelId) => this.chats.profiles(id);
    this.faceDoor = new FaceDoor(this.faces, this.runners, profiles, parts.owner);
    this.speeches = new Speeches(parts.speaker ?? { speak: async () => refused("speech/none") }, decoder);
    this.chats = new ChatLines(parts.makeChat, parts.log, {
      line: (id, line) => {
        for (const mark of line.marks) this.marked.saw(id, mark.id);
        // A viewer page's code: it ties that page to who typed it, and is a word like any other besides.
        if (proofWord.test(line.text.trim()))
          void this.viewers.proof(id, line.text, { id: line.viewerId, name: line.name, roles: line.roles });
        this.runners.get(id)?.inbox.message(line);
      },
      standing: () => this.operators.tell(),
      behind: (id) => this.runners.get(id)?.behind() === true,
    });
    this.studios = new StudioLines(parts.makeStudio ?? (() => null), parts.log, (id) => {
      this.runners.get(id)?.outside.tellStudio(this.studios.facts(id));
      this.operators.tell();
    });
    this.overlays = new OverlayHub(
      this.runners,
      (id) => this.rehearsals.runner(id),
      clock.now,
      (shown) => {
        const id = this.rehearsals.channelOf(shown);
        return this.chats.emotePictures(id) === "" ? "" : `/marked/${id}/{id}`;
      },
      (shown) => this.faceDoor.url(this.rehearsals.channelOf(shown)),
      this.takenUp.isWhole,
    );
    this.intake = new Intake({
      runners: this.runners,
      absent: this.takenUp.isNotYet,
      clock,
      secrets: parts.eventSecrets ?? (() => []),
    });
    const stillValid = async (hash: string): Promise<boolean> => (await store.session(hash, clock.now())) !== null;
    this.overlays.stillValid = stillValid;
    this.operators = new OperatorHub((id) => this.standing(id), stillValid);
    this.viewerDoor = new ViewerDoor({
      runners: this.runners,
      clock,
      store,
      face: (id, name) => this.faceDoor.own(id, name),
      left: (hash) => this.viewers.left(hash),
      absent: this.absent,
    });
    this.viewers = new ViewerHub(
      this.runners,
      clock.now,
      (id, tokenHash, viewer) =>
        store.addViewerSession(id, { tokenHash, viewer, nowMs: clock.now(), untilMs: clock.now() + viewerSessionMs }),
      async (hash) => (await store.viewerSession(hash, clock.now())) !== null,
      (id, name) => this.faceDoor.own(id, name),
    );
    this.overlays.onPages = () => this.operators.tell();
    const health = (id: ChannelId) => this.standing(id)?.health ?? [];
    this.faults = new FaultWatch(this.runners, store, clock, health, (id) => this.fences.get(id));
    this.rehearsals = new Rehearsals({
      bus,
      clock,
      store,
      runners: this.runners,
      absent: this.absent,
      say: (id, text) => this.chats.say(id, text),
      speech: (text, voice) => this.speeches.of(text, voice),
      lookUp: (id, name) => this.faces.kept(id, name),
      watchers: (id) => this.operators.watchers(id),
      lend: (id, to) => this.overlays.lend(id, to),
      beat: (id, nowMs, pace) => this.overlays.beat(id, nowMs, pace),
      frames: (id) => this.overlays.openPages(id),
      gone: (id) => {
        this.overlays.forget(id);
        this.operators.forget(id);
      },
      tell: () => this.operators.tell(),
      onError: (what, error) => parts.log.warn({ err: error instanceof Error ? error.stack : String(error) }, what),
    });
    bus.subscribe((channel, publication) => {
      this.overlays.publish(channel, publication);
      this.operators.publish(channel, publication);
      this.viewers.publish(channel, publication);
    });
  }

  async start(): Promise<void> {
    await this.tick();
    this.nightly.start();
    this.lag.start();
    this.timer = setInterval(() => void this.tick(), 2_000);
  }

  /** Keeps the leases, sees whether the database answers, and takes up what changed without word of it. */
  private async tick(): Promise<void> {
    if (this.ticking) return;
    this.ticking = true;
    const { store, log } = this.parts;
    try {
      const revisions = await store.revisions();
      this.takenUp.known = new Set(revisions.keys());
      if (this.takenUp.databaseAway) log.info("the database answers again");
      this.takenUp.databaseAway = false;
      for (const [id, revision] of revisions) {
        const fence = await store.lease(id, this.parts.owner, leaseMs);
        const runner = this.runners.get(id);
        // Another epoch: somebody had the channel meanwhile, so what this process believes of it is stale.
        const stale = runner !== undefined && this.fences.get(id)?.epoch !== fence?.epoch;
        if (stale) await this.drop(id);
        if (fence === null) this.fences.delete(id);
        else this.fences.set(id, { ...this.fences.get(id), ...fence });
        if (fence === null || !(runner === undefined || stale || runner.row.revision !== revision)) continue;
        try {
          await this.reload(id);
        } catch (error) {
          if (store.isAway(error)) throw error;
          // One channel that can't be taken up is no reason to let go of the others.
          log.error({ channel: id, err: String(error) }, "a channel could not be taken up");
        }
      }
      for (const id of [...this.runners.keys()]) if (!revisions.has(id)) await this.drop(id);
      for (const [id, runner] of this.runners) runner.outside.look(this.studios.facts(id));
      this.takenUp.settled = true;
    } catch (error) {
      if (!this.takenUp.databaseAway) log.warn({ err: String(error) }, "the database does not answer");
      this.takenUp.databaseAway = true;
    } finally {
      this.ticking = false;
      this.operators.tell();
    }
  }

  /** Reads a channel anew: new channels start, others take their changes between two signals. */
  async reload(id: ChannelId): Promise<void> {
    const { store, clock, bus, log } = this.parts;
    const row = await readChannel(store, id);
    if (row === null) return;
    const runner = this.runners.get(id);
    this.chats.keep(row);
    this.studios.keep(row);
    if (runner !== undefined) {
      runner.reload(row);
      return;
    }
    const lastSeq = await store.lastSeq(id);
    const ledgerView = await readLedger(store, row, clock.now());
    if (this.runners.has(id)) return;
    const onError = (what: string, error: unknown): void => log.warn({ err: String(error) }, what);
    this.runners.set(
      id,
      new Runner(
        {
          store,
          clock,
          bus,
          onError,
          say: (text) => this.chats.say(id, text),
          lookUp: (name) => this.faces.found(id, name),
          studio: (scene) => this.studios.go(id, scene),
          speech: (text, voice) => this.speeches.of(text, voice),
          ...(this.parts.vaultOf === undefined ? {} : { vault: this.parts.vaultOf(id) }),
          fence: () => this.fences.get(id),
          lost: () => {
            log.warn({ channel: row.name }, "another engine has this channel now");
            void this.drop(id);
          },
        },
        row,
        lastSeq,
        ledgerView,
      ),
    );
    log.info({ channel: row.name }, "channel taken up");
  }

  readonly emotePictures = (id: ChannelId): string => this.chats.emotePictures(id);

  tellChanged(id: ChannelId, what: Readonly<{ what: string; id: string; revision: number; by: string }>): void {
    this.parts.bus.publish(id, { kind: "changed", ...what });
  }

  /** A trigger address was called: any button device can do that. The token is the whole secret. */
  readonly trigger = (token: string): Promise<Result<readonly Note[]>> => fireTrigger(this.runners, token, this.takenUp.isWhole());

  /** Sessions ended: whatever is open for one that is no more is closed. */
  async recheck(): Promise<void> {
    await Promise.all([this.onRecheck(), this.operators.recheck(), this.overlays.recheck(), this.viewers.recheck()]);
  }

  readonly nowMs = (): number => this.parts.clock.now();
  readonly absent = this.takenUp.absent;
  /** A channel as it runs, or a rehearsal of one. */
  readonly runnerOf = (id: ChannelId): Runner | undefined => this.runners.get(id) ?? this.rehearsals.runner(id);

  /** An operator speaks in chat. */
  speak(id: ChannelId, text: string, by: string): Result<null> {
    const runner = this.runnerOf(id);
    if (runner === undefined) return this.absent(id);
    return runner.say(text, 0, this.parts.clock.now(), by) ? ok(null) : refused("chat/cannot-say");
  }

  private standing(shown: ChannelId) {
    const runner = this.runnerOf(shown);
    if (runner === undefined) return null;
    const id = this.rehearsals.channelOf(shown);
    return standingOf(runner, {
      rehearsal: this.rehearsals.standing(shown),
      rehearsals: this.rehearsals.standings(id),
      chat: this.chats.standing(id),
      pages: this.overlays.openPages(shown),
      refusedEvents: this.intake.refused(id).reduce((sum, r) => sum + r.count, 0),
      databaseAway: this.takenUp.databaseAway,
      lagMs: this.lag.ms,
      clockAheadMs: this.parts.clock.aheadMs?.() ?? 0,
      ledgerFaults: this.nightly.faults(id),
      unspoken: this.speeches.unspoken,
      facesUrl: this.faceDoor.url(id),
      studio: this.studios.standing(id),
    });
  }

  private async drop(id: ChannelId): Promise<void> {
    await this.chats.drop(id);
    this.studios.drop(id);
    await this.runners.get(id)?.stop();
    this.runners.delete(id);
  }

  async stop(): Promise<void> {
    clearInterval(this.timer);
    this.nightly.stop();
    this.faults.stop();
    await this.rehearsals.stop();
    this.lag.stop();
    this.operators.stop();
    this.viewers.stop();
    for (const id of [...this.runners.keys()]) {
      await this.drop(id);
      await this.parts.store.release(id, this.parts.owner).catch(() => undefined);
    }
    this.overlays.stop();
  }
}
