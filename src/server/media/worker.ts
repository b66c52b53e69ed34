import { mkdtemp, open, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileTypeFromFile } from "file-type";
import type { Logger } from "pino";
import { filmRequestSchema } from "../../core/props/film";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { videoDefaults, type VideoSettings, videoSettingsSchema } from "../../core/props/video";
import type { Clock } from "../ports/clock";
import type { EngineLink } from "../ports/engine-link";
import type { MediaJob, MediaStore } from "../ports/media-store";
import type { PropStore } from "../ports/prop-store";
import { fetchFile } from "../props/address";
import { makeVideo, type MadeVideo, videoPropUse } from "../video/make";
import type { VideoUse } from "../video/work";
import { sha256 } from "../hash";

const leaseMs = 20_000;
const beatMs = 1_000;
const idleMs = 400;
/** What nobody has is asked after less often while the database is away. */
const awayMs = 2_000;
const mostClipBytes = 100 * 1024 * 1024;

export type MediaDeps = Readonly<{
  media: MediaStore;
  props: PropStore;
  engine: Pick<EngineLink, "reload" | "media">;
  clock: Clock;
  log: Logger;
  owner: string;
  /** Origins inside that may be fetched from after all: the practice rig's shelf. */
  inside: readonly string[];
}>;

/** So many films come from addresses at once: one that drips holds none of the others up. */
const mostFetched = 4;

/**
 * Makes moving pictures, one after another, in a process of its own: what is to be made stands in the database, so a kill
 * at any moment loses nothing but the work on one, and that is begun again. Films that come from an address come beside each other.
 */
export class MediaWorker {
  private stopping = false;
  private running: Promise<void> = Promise.resolve();
  private readonly end = new AbortController();
  private readonly open = new Set<Promise<void>>();
  /** Those that have their source, each after the one before it. */
  private turn: Promise<unknown> = Promise.resolve();
  private making = 0;

  constructor(private readonly deps: MediaDeps) {}

  start(): void {
    this.running = this.run();
  }
  async stop(): Promise<void> {
    this.stopping = true;
    this.end.abort();
    await this.running;
    await Promise.all(this.open);
  }

  private async run(): Promise<void> {
    const { media, clock, log, owner } = this.deps;
    while (!this.stopping) {
      let waitMs = idleMs;
      try {
        // While one is made no other is taken: what is urgent comes first as soon as there is room.
        const job = this.making > 0 || this.open.size >= mostFetched ? null : await media.claim(owner, clock.now(), leaseMs);
        if (job !== null) {
          const work: Promise<void> = this.work(job).finally(() => this.open.delete(work));
          this.open.add(work);
          const request = requestOf(job);
          if (!request.ok || request.value.address === null) await work;
          waitMs = 0;
        }
      } catch (error) {
        log.warn({ err: String(error) }, "moving pictures wait: the database does not answer");
        waitMs = awayMs;
      }
      if (waitMs > 0) await Promise.race([...this.open, new Promise((resolve) => setTimeout(resolve, waitMs))]);
    }
  }

  /** Made when it is its turn. */
  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    this.making += 1;
    const mine = this.turn.then(work).finally(() => (this.making -= 1));
    this.turn = mine.catch(() => undefined);
    return mine;
  }

  private async work(job: MediaJob): Promise<void> {
    const { media, clock, engine, log, owner } = this.deps;
    const dropped = new AbortController();
    const stop = (): void => dropped.abort();
    this.end.signal.addEventListener("abort", stop);
    let share = 0;
    const beat = setInterval(() => {
      void media.beat(job.id, owner, share, clock.now(), leaseMs).then(
        (mine) => !mine && dropped.abort(),
        () => undefined,
      );
    }, beatMs);
    const folder = await mkdtemp(join(tmpdir(), "izzam-media-"));
    let done: Result<unknown>;
    try {
      done = await this.make(job, folder, (at) => (share = at), dropped.signal);
    } catch (error) {
      if (this.stopping) return;
      log.warn({ err: String(error), job: job.id }, "a moving picture could not be made");
      done = refused("video/broken");
    } finally {
      clearInterval(beat);
      this.end.signal.removeEventListener("abort", stop);
      await rm(folder, { recursive: true, force: true });
    }
    // Ended by us in the middle: it stands as it was, and is begun again by whoever comes next.
    if (this.stopping) return;
    try {
      if (!(await media.end(job.id, owner, done, clock.now()))) return;
      if (job.purpose === "clip") await engine.media(job.channel);
      else if (done.ok) await engine.reload(job.channel);
    } catch (error) {
      // Its lease runs out, and it is begun again.
      log.warn({ err: String(error), job: job.id }, "a moving picture could not be told");
    }
  }

  private async make(job: MediaJob, folder: string, onShare: (share: number) => void, signal: AbortSignal): Promise<Result<unknown>> {
    const source = join(folder, "source");
    const request = requestOf(job);
    if (!request.ok) return request;
    const { use, address } = request.value;
    const got = address === null ? await this.stored(job.sourceSha, source) : await this.fetched(address, source, signal);
    if (!got.ok) return got;
    const mime = (await fileTypeFromFile(source))?.mime ?? "";
    if (!isMoving(mime)) return refused("video/no-video");
    if (signal.aborted) return refused("video/broken");
    const made = await this.inTurn(() => makeVideo(source, use, onShare, signal));
    if (!made.ok) return made;
    for (const file of made.value.files) await this.deps.media.putFile(file, this.deps.clock.now());
    if (job.purpose === "clip") return ok({ facts: made.value.facts, sha: got.value });
    return this.kept(job, made.value, use.settings, got.value);
  }

  /** The source as it was sent, written out for those programs that read files alone. */
  private async stored(sha: string | null, to: string): Promise<Result<string>> {
    const file = sha === null ? null : await this.deps.media.file(sha);
    if (file === null || sha === null) return refused("prop/unknown");
    const out = await open(to, "w", 0o600);
    try {
      for await (const part of file.read(0, file.size)) await out.write(part);
    } finally {
      await out.close();
    }
    return ok(sha);
  }
  private async fetched(address: string, to: string, signal: AbortSignal): Promise<Result<string>> {
    const file = await fetchFile(address, mostClipBytes, {
      inside: this.deps.inside,
      accept: "video/*, image/gif;q=0.8",
      timeoutMs: 30_000,
      signal,
    });
    if (!file.ok) return file;
    const out = await open(to, "w", 0o600);
    try {
      await out.write(file.value.bytes);
    } finally {
      await out.close();
    }
    return ok(sha256(file.value.bytes));
  }

  private async kept(job: MediaJob, made: MadeVideo, settings: VideoSettings, sourceSha: string): Promise<Result<unknown>> {
    const { props, clock } = this.deps;
    const { facts, sourceKind } = made;
    const poster = made.files.find((f) => facts.poster.endsWith(f.sha));
    if (poster === undefined) return refused("video/broken");
    const of = { made: poster, sourceKind: sourceKind.slice(0, 10), settings, facts };
    const source = { sha: sourceSha };
    if (job.purpose === "new") {
      const added = await props.add(job.channel, { ...of, id: job.about, name: job.name, kind: "video", source }, clock.now());
      return added.ok ? ok({ prop: job.about }) : added;
    }
    const again = await props.remake(job.channel, job.about, { ...of, source: job.purpose === "replace" ? source : null }, clock.now());
    return again.ok ? ok({ prop: job.about }) : again;
  }
}

const isMoving = (mime: string): boolean => mime.startsWith("video/") || mime === "image/gif" || mime === "application/mp4";

function requestOf(job: MediaJob): Result<Readonly<{ use: VideoUse; address: string | null }>> {
  if (job.purpose !== "clip") {
    const settings = videoSettingsSchema.safeParse(job.request ?? videoDefaults);
    return settings.success
      ? ok({ use: videoPropUse(settings.data), address: null })
      : refused("input/invalid", { why: "It can’t be cut so." });
  }
  const given = filmRequestSchema.safeParse(job.request);
  if (!given.success) return refused("video/broken");
  const { address, startMs, ms, width, height, mostSourceMs } = given.data;
  const use = {
    settings: { ...videoDefaults, volume: 100 },
    most: { width, height },
    mostMs: ms,
    mostSourceMs,
    only: { fromMs: startMs, ms },
  };
  return ok({ use, address });
}
