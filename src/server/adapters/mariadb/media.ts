import { open, readFile } from "node:fs/promises";
import { channelId, type ChannelId } from "../../../core/kernel/ids";
import { ok, refused, type Refusal } from "../../../core/kernel/refusal";
import { mediaPurposes, type MediaJob, type MediaState, type FileOnDisk, type MediaStore, type StoredFile } from "../../ports/media-store";
import { type Database, fromJson } from "./database";
import { type Row, text } from "./rows";

/** What is larger is kept in parts, so that a page can ask for the middle of it and nobody holds all of it. */
export const partBytes = 512 * 1024;
const mostWaiting = 40;
const mostWaitingInAll = 400;
const mostTries = 3;
/** So many workers may be faster than this one before it rests and asks again. */
const mostAtOnce = 20;

const states = ["waiting", "working", "done", "failed", "dropped"] as const;
const jobOf = (r: Row): MediaJob => ({
  id: text(r["id"]),
  channel: channelId(text(r["channel_id"])),
  purpose: mediaPurposes.find((p) => p === r["purpose"]) ?? "new",
  about: text(r["about"]),
  name: text(r["name"]),
  request: fromJson(r["request"]),
  sourceSha: r["source_sha"] === null ? null : text(r["source_sha"]),
  urgent: Boolean(r["urgent"]),
  state: states.find((s): s is MediaState => s === r["state"]) ?? "failed",
  share: Number(r["share"]) / 1000,
  tries: Number(r["tries"]),
  createdMs: Number(r["created_ms"]),
  why: r["why"] === null ? null : (fromJson(r["why"]) as Refusal),
  result: r["result"] === null ? null : fromJson(r["result"]),
});

export async function putFile(db: Database, file: StoredFile | FileOnDisk, nowMs: number): Promise<void> {
  const { sha, mime } = file;
  const size = "bytes" in file ? file.bytes.length : file.size;
  const large = size > partBytes;
  const there = (await db("prop_files").where({ sha }).first("sha")) as Row | undefined;
  if (there !== undefined) return void (await db("prop_files").where({ sha }).update({ created_ms: nowMs }));
  // With all its parts, or not at all.
  await db.transaction(async (trx) => {
    await trx("prop_files")
      .insert({ sha, mime, bytes: large ? Buffer.alloc(0) : await wholeOf(file), size: large ? size : null, created_ms: nowMs })
      .onConflict("sha")
      .ignore();
    if (!large) return;
    let n = 0;
    for await (const bytes of partsOf(file)) {
      await trx("file_parts").insert({ sha, n, bytes }).onConflict(["sha", "n"]).ignore();
      n += 1;
    }
  });
}
const wholeOf = (file: StoredFile | FileOnDisk): Promise<Buffer> | Buffer => ("bytes" in file ? file.bytes : readFile(file.path));
/** Each but the last as long as a part is. */
async function* partsOf(file: StoredFile | FileOnDisk): AsyncGenerator<Buffer> {
  if ("bytes" in file) {
    for (let from = 0; from < file.bytes.length; from += partBytes) yield file.bytes.subarray(from, from + partBytes);
    return;
  }
  const handle = await open(file.path);
  try {
    for (let from = 0; from < file.size; from += partBytes) {
      const part = Buffer.alloc(Math.min(partBytes, file.size - from));
      // A read may stop short of what was asked for.
      for (let at = 0; at < part.length;) {
        const { bytesRead } = await handle.read(part, at, part.length - at, from + at);
        if (bytesRead === 0) throw new Error("the file became shorter while it was read");
        at += bytesRead;
      }
      yield part;
    }
  } finally {
    await handle.close();
  }
}

export function mariadbMedia(db: Database): MediaStore {
  return {
    putFile: (file, nowMs) => putFile(db, file, nowMs),
    file: async (sha) => {
      const row = (await db("prop_files").where({ sha }).first("mime", "size", db.raw("length(bytes) as here"))) as Row | undefined;
      if (row === undefined) return null;
      const large = row["size"] !== null;
      const size = Number(large ? row["size"] : row["here"]);
      async function* read(from: number, to: number): AsyncGenerator<Buffer> {
        if (!large) {
          const whole = (await db("prop_files").where({ sha }).first("bytes")) as { bytes: Buffer } | undefined;
          if (whole !== undefined) yield whole.bytes.subarray(from, to);
          return;
        }
        for (let n = Math.floor(from / partBytes); n * partBytes < to; n += 1) {
          const part = (await db("file_parts").where({ sha, n }).first("bytes")) as { bytes: Buffer } | undefined;
          if (part === undefined) return;
          yield part.bytes.subarray(Math.max(0, from - n * partBytes), Math.min(part.bytes.length, to - n * partBytes));
        }
      }
      return { mime: text(row["mime"]), size, read };
    },
    add: (job, nowMs) =>
      db.transaction(async (trx) => {
        await trx("channels").where({ id: job.channel }).forUpdate().first("id");
        if ((await trx("media_jobs").where({ id: job.id }).first("id")) !== undefined) return ok(null);
        const [own, all] = await Promise.all(
          [{ channel_id: job.channel }, {}].map((of) =>
            trx("media_jobs").where(of).whereIn("state", ["waiting", "working"]).count({ n: "*" }).first(),
          ),
        );
        if (Number(own?.["n"]) >= mostWaiting || Number(all?.["n"]) >= mostWaitingInAll) return refused("file/too-many");
        await trx("media_jobs").insert({
          id: job.id,
          channel_id: job.channel,
          purpose: job.purpose,
          about: job.about,
          name: job.name,
          request: JSON.stringify(job.request),
          source_sha: job.sourceSha,
          urgent: job.urgent,
          created_ms: nowMs,
        });
        return ok(null);
      }),
    jobs: async (channel, sinceMs) => {
      const rows = await db("media_jobs")
        .where({ channel_id: channel })
        .where((q) => void q.whereIn("state", ["waiting", "working"]).orWhere("ended_ms", ">=", sinceMs))
        .orderBy("created_ms")
        .limit(100);
      return rows.map(jobOf);
    },
    stalled: async (channel, beforeMs) => {
      // By state: those that wait and work are few, however long the history is.
      const rows = await db("media_jobs")
        .whereIn("state", ["waiting", "working"])
        .where({ channel_id: channel })
        .select("state", "created_ms");
      if (rows.some((r) => r.state === "working")) return 0;
      return rows.filter((r) => r.created_ms < beforeMs).length;
    },
    claim: async (owner, nowMs, leaseMs) => {
      for (let n = 0; n < mostAtOnce; n += 1) {
        const row = (await db("media_jobs")
          .where((q) => void q.where({ state: "waiting" }).orWhere((w) => void w.where({ state: "working" }).where("lease_ms", "<", nowMs)))
          .orderBy([{ column: "urgent", order: "desc" }, { column: "created_ms" }, { column: "id" }])
          .first()) as Row | undefined;
        if (row === undefined) return null;
        // A lock on the search would lock every row that it passes, and hide them from the next worker. This takes the job
        // only if it is as it was found; otherwise another worker has it, and the next job is looked for.
        const asFound = { id: text(row["id"]), state: text(row["state"]), tries: Number(row["tries"]) };
        const tries = asFound.tries + 1;
        // A job that silenced its worker too often is too heavy. It must not come round for ever.
        const next =
          tries > mostTries
            ? { state: "failed", why: JSON.stringify({ code: "file/too-heavy", facts: {} }), ended_ms: nowMs }
            : { state: "working", owner, tries, lease_ms: nowMs + leaseMs, share: 0 };
        const taken = await db("media_jobs")
          .where(asFound)
          .where((q) => void q.where({ state: "waiting" }).orWhere("lease_ms", "<", nowMs))
          .update(next);
        if (taken > 0 && tries <= mostTries) return { ...jobOf(row), state: "working" as const, tries };
      }
      return null;
    },
    beat: async (id, owner, share, nowMs, leaseMs) =>
      (await db("media_jobs")
        .where({ id, owner, state: "working" })
        .update({ share: Math.round(share * 1000), lease_ms: nowMs + leaseMs })) > 0,
    end: async (id, owner, done, nowMs) =>
      (await db("media_jobs")
        .where({ id, owner, state: "working" })
        .update({
          state: done.ok ? "done" : "failed",
          share: 1000,
          ended_ms: nowMs,
          why: done.ok ? null : JSON.stringify(done.refusal),
          result: done.ok ? JSON.stringify(done.value) : null,
        })) > 0,
    drop: async (channel, id, nowMs) =>
      (await db("media_jobs")
        .where({ channel_id: channel })
        .where((q) => void q.where({ id }).orWhere({ about: id }))
        .whereIn("state", ["waiting", "working"])
        .update({ state: "dropped", ended_ms: nowMs })) > 0,
    untold: async (channel: ChannelId) => {
      const rows = await db("media_jobs")
        .where({ channel_id: channel, purpose: "clip", told: 0 })
        .whereIn("state", ["done", "failed"])
        .orderBy("ended_ms")
        .limit(100);
      return rows.map(jobOf);
    },
    told: async (id) => void (await db("media_jobs").where({ id }).update({ told: true })),
  };
}
