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

/**
 * Makes moving pictures, one after another, in a process of its own: what is to be made stands in the database, so a kill
 * at any moment loses nothing but the work on one, and that is begun again.
 */
export class MediaWorker {
  private stopping = false;
  private running: Promise<void> = Promise.resolve();
  private readonly end = new AbortController();

  constructor(private readonly deps: MediaDeps) {}

  start(): void {
    this.running = this.run();
  }
  async stop(): Promise<void> {
    this.stopping = true;
    this.end.abort();
    await this.running;
  }

  private async run(): Promise<void> {
    const { media, clock, log, owner } = this.deps;
    while (!this.stopping) {
      let waitMs = idleMs;
      try {
        const job = await media.claim(owner, clock.now(), leaseMs);
        if (job !== null) {
          await this.work(job);
          waitMs = 0;
        }
      } catch (error) {
        log.warn({ err: String(error) }, "moving pictures wait: the database does not answer");
        waitMs = awayMs;
      }
      if (waitMs > 0) await new Promise((resolve) => setTimeout(resolve, waitMs));
    }
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
    if (!(await media.end(job.id, owner, done, clock.now()))) return;
    if (job.purpose === "clip") await engine.media(job.channel);
    else if (done.ok) await engine.reload(job.channel);
  }

  private async make(job: MediaJob, folder: string, onShare: (share: number) => void, signal: AbortSignal): Promise<Result<unknown>> {
    const source = join(folder, "source");
    const request = requestOf(job);
    if (!request.ok) return request;
    const { use, address } = request.value;
    const got = address === null ? await this.stored(job.sourceSha, source) : await this.fetched(address, source);
    if (!got.ok) return got;
    const mime = (await fileTypeFromFile(source))?.mime ?? "";
    if (!isMoving(mime)) return refused("video/no-video");
    if (signal.aborted) return refused("video/broken");
    const made = await makeVideo(source, use, onShare, signal);
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
  private async fetched(address: string, to: string): Promise<Result<string>> {
    const file = await fetchFile(address, mostClipBytes, {
      inside: this.deps.inside,
      accept: "video/*, image/gif;q=0.8",
      timeoutMs: 30_000,
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
