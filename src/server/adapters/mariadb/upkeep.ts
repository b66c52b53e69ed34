import type { Database } from "./database";
import { partitions, readRetention } from "./data";
import { logs, monthStartMs, partitionOf } from "./lean-tables";
import { text } from "./rows";

const dayMs = 86_400_000;
/** A sender may try again for days; nobody sends an event after a month. */
const onceDays = 35;
/** So long what was removed can be brought back. */
const trashDays = 30;
/** A clip that was shown can be shown again for so long; whatever was made is told of for as long. */
const mediaDays = 30;
/** What was brought in from outside and removed goes a day after it can be brought back no more. */
const outsideDays = 8;
/** What a platform told of somebody who was not shown for so long goes. */
const faceDays = 30;
const atOnce = 5_000;

type Swept = Readonly<{
  made: number;
  droppedMonths: readonly string[];
  once: number;
  audit: number;
  hits: number;
  media: number;
  files: number;
}>;

/**
 * What keeps an installation from growing without end, once a day: months of the log are made ahead and
 * dropped when they are old enough; ids, the audit list, single blows and files that nothing uses go by
 * their own times. Points, sales, totals, shows and reigns are never touched. One process does it at a time.
 */
export async function upkeep(db: Database, nowMs: number): Promise<Swept | null> {
  return db.transaction(async (trx) => {
    const [[lock]] = (await trx.raw("select get_lock('izzam-upkeep', 0) as got")) as [[{ got: number }]];
    if (Number(lock.got) !== 1) return null;
    try {
      const keep = await readRetention(db);
      const parts = await partitions(db);
      let made = 0;
      const dropped = new Set<string>();
      for (const [table] of logs) {
        const own = parts.filter((p) => p.table === table).map((p) => p.name);
        for (let plus = 0; plus <= 2; plus += 1) {
          const start = monthStartMs(nowMs, plus);
          const newest =
            own
              .filter((name) => name !== "later")
              .sort()
              .pop() ?? "";
          if (own.includes(partitionOf(start)) || partitionOf(start) < newest) continue;
          await db.raw(
            `alter table ${table} reorganize partition later into (partition ${partitionOf(start)} values less than (${monthStartMs(start, 1)}), partition later values less than maxvalue)`,
          );
          own.push(partitionOf(start));
          made += 1;
        }
        for (const name of own) {
          if (name === "later" || own.length <= 2) continue;
          const start = Date.UTC(Number(name.slice(1, 5)), Number(name.slice(5)) - 1, 1);
          if (monthStartMs(start, 1) + keep.logDays * dayMs > nowMs) continue;
          await db.raw(`alter table ${table} drop partition ${name}`);
          dropped.add(`${name.slice(1, 5)}-${name.slice(5)}`);
        }
      }
      return {
        made,
        droppedMonths: [...dropped].sort(),
        once: await sweepOnce(db, nowMs - onceDays * dayMs),
        audit: await piecewise(() =>
          db("audit")
            .where("at_ms", "<", nowMs - keep.auditDays * dayMs)
            .limit(atOnce)
            .delete(),
        ),
        hits: await piecewise(() =>
          db("records")
            .whereIn("kind", ["hit", "heal", "undo", "entry", "stake"])
            .andWhere("to_ms", "<", nowMs - keep.hitDays * dayMs)
            .limit(atOnce)
            .delete(),
        ),
        media: await piecewise(() =>
          db("media_jobs")
            .where("ended_ms", "<", nowMs - mediaDays * dayMs)
            .limit(atOnce)
            .delete(),
        ),
        outside: (await sweepOutside(db, "chat_files", nowMs)) + (await sweepOutside(db, "outside_shows", nowMs)),
        faces: await piecewise(() =>
          db("faces")
            .where("at_ms", "<", nowMs - faceDays * dayMs)
            .limit(atOnce)
            .delete(),
        ),
        streaks: await sweepStreaks(db, nowMs - dayMs),
        files: await sweepFiles(db, nowMs),
      };
    } finally {
      await trx.raw("select release_lock('izzam-upkeep')");
    }
  });
}

const sweepOutside = (db: Database, table: "chat_files" | "outside_shows", nowMs: number): Promise<number> =>
  db(table)
    .where("removed_ms", "<", nowMs - outsideDays * dayMs)
    .delete();

/** Each result keeps the whole list: the newest of each game is all that counts. */
async function sweepStreaks(db: Database, beforeMs: number): Promise<number> {
  const newest = (await db("records").where({ kind: "streaks" }).groupBy("game_id").max("id as id")) as { id: number }[];
  if (newest.length === 0) return 0;
  return db("records")
    .where({ kind: "streaks" })
    .where("to_ms", "<", beforeMs)
    .whereNotIn(
      "id",
      newest.map((n) => n.id),
    )
    .delete();
}

async function piecewise(some: () => Promise<number>): Promise<number> {
  let all = 0;
  for (let n = await some(); n > 0; n = await some()) all += n;
  return all;
}

/** Along the key, a part at a time: an index by age would cost every event. */
async function sweepOnce(db: Database, beforeMs: number): Promise<number> {
  let all = 0;
  const channels = (await db("channels").select("num")) as { num: number }[];
  for (const { num } of channels)
    for (let first = 0; first < 256; first += 16) {
      const from = Buffer.from([first, ...Array<number>(15).fill(0)]);
      const to = Buffer.from([first + 15, ...Array<number>(15).fill(255)]);
      all += await db("once").where({ channel: num }).whereBetween("id", [from, to]).andWhere("at_ms", "<", beforeMs).delete();
    }
  return all;
}

/** Files that no prop and no emote shows, removed ones included for as long as they can be brought back. */
export async function sweepFiles(db: Database, nowMs: number): Promise<number> {
  for (const table of ["props", "emotes"])
    await db(table)
      .where("removed_ms", "<", nowMs - trashDays * dayMs)
      .delete();
  const rows = await db("prop_files as f")
    .where("f.created_ms", "<", nowMs - dayMs)
    .whereNotExists(db("props as p").select(db.raw("1")).whereRaw("p.source_sha = f.sha or p.made_sha = f.sha"))
    .whereNotExists(db("emotes as e").select(db.raw("1")).whereRaw("e.sheet_sha = f.sha"))
    // A moving picture's files are named in what is known of it.
    .whereNotExists(db("props as v").select(db.raw("1")).whereRaw("v.kind = 'video' and instr(v.facts, f.sha) > 0"))
    .whereNotExists(db("media_jobs as j").select(db.raw("1")).whereRaw("j.source_sha = f.sha or instr(j.result, f.sha) > 0"))
    // A font that an overlay wears is named in how it is dressed.
    .whereNotExists(db("overlays as o").select(db.raw("1")).whereRaw("instr(o.dress, f.sha) > 0"))
    .select("f.sha");
  let gone = 0;
  for (const r of rows)
    try {
      gone += await db("prop_files")
        .where({ sha: text(r["sha"]) })
        .delete();
    } catch {
      // Somebody has added it again just now: it is in use.
    }
  return gone;
}
