import { mariadbMedia } from "./media";
import { channelId, type ChannelId } from "../../../core/kernel/ids";
import { z } from "zod";
import { roleSchema } from "../../../core/signals/signal";
import type { Came, EngineStore } from "../../ports/engine-store";
import { type Database, fromJson, isAway } from "./database";
import { beginOf, bothLogs } from "./both-logs";
import { Keys, onceOf, rolesOf } from "./keys";
import { checkLedgerOf } from "./ledger-check";
import { chunks } from "./chunks";
import { sweepDetails } from "./points";
import { saleOf, saleSeq, salesOf } from "./sales";
import { ledgerRows } from "./ledger-rows";
import { upkeep } from "./upkeep";
import { channelRow } from "./channel-row";
import type { Face } from "../../ports/profiles";
import { type Alive, leases } from "./leases";
import { writing } from "./commit";
import { type Row, text } from "./rows";

/** `patient`: a pool whose statements may take as long as they need, for what nobody waits for. */
export function mariadbEngineStore(
  db: Database,
  { alive, patient = db }: Readonly<{ alive?: Alive; patient?: Database }> = {},
): EngineStore {
  const keys = new Keys(db);
  const numOf = async (id: ChannelId): Promise<number> => {
    const num = await keys.channel(id);
    if (num === null) throw new Error(`there is no channel ${id}`);
    return num;
  };
  return {
    channel: (id) => channelRow(db, id),
    channels: async () => (await db("channels").select("id").orderBy("created_ms")).map((r) => channelId(text(r["id"]))),
    revisions: async () =>
      new Map((await db("channels").select("id", "revision")).map((r) => [channelId(text(r["id"])), Number(r["revision"])])),
    isAway,
    lastSeq: async (id) => {
      const num = await keys.channel(id);
      const row = num === null ? undefined : await db("leases").where({ channel: num }).first("last_seq");
      return Number(row?.["last_seq"] ?? 0);
    },
    came: async (id, source, ids) => {
      const found = new Map<string, Came>();
      const num = await keys.channel(id);
      if (num === null) return found;
      for (const some of chunks(ids)) {
        const hashes = new Map(some.map((one) => [onceOf(source, one).toString("hex"), one]));
        const rows = (await db("once as o")
          .leftJoin("log as l", (on) => on.on("l.channel", "o.channel").andOn("l.at_ms", "o.at_ms").andOn("l.seq", "o.seq"))
          .where("o.channel", num)
          .whereIn(
            "o.id",
            [...hashes.keys()].map((h) => Buffer.from(h, "hex")),
          )
          .select("o.id", "o.seq", "l.body")) as { id: Buffer; seq: number; body: string | null }[];
        for (const r of rows) {
          const notes = r.body === null ? undefined : (fromJson(r.body) as Came | null)?.notes;
          // What the engine wrote there itself.
          found.set(hashes.get(r.id.toString("hex")) ?? "", {
            seq: Number(r.seq),
            notes: Array.isArray(notes) ? (notes as Came["notes"]) : [],
          });
        }
      }
      return found;
    },
    face: async (id, key) => {
      const row = (await db("faces")
        .where({ channel: await numOf(id), name_key: Buffer.from(key).subarray(0, 330) })
        .first()) as Row | undefined;
      if (row === undefined) return null;
      // What this store wrote there itself.
      const profile = row["profile"] === null ? null : (fromJson(row["profile"]) as Face["profile"]);
      return { profile, picture: (row["picture"] as Buffer | null) ?? null, atMs: Number(row["at_ms"]) };
    },
    saveFace: async (id, key, face) => {
      await db.raw(
        `insert into faces (channel, name_key, profile, picture, at_ms) values (?, ?, ?, ?, ?)
         on duplicate key update profile = values(profile), picture = values(picture), at_ms = values(at_ms)`,
        [
          await numOf(id),
          Buffer.from(key).subarray(0, 330),
          face.profile === null ? null : JSON.stringify(face.profile),
          face.picture,
          face.atMs,
        ] as never,
      );
    },
    ...writing(db, keys, numOf),
    ledgerView: async (id, at) => {
      const num = await numOf(id);
      return ledgerRows(db, num, id, at, (people) =>
        keys.remember(
          num,
          people.map((r) => ({ key: Number(r["id"]), id: text(r["ext"]), name: text(r["name"]), roles: Number(r["roles"]) })),
        ),
      );
    },
    logged: async (id, { fromMs, toMs, after, limit }) => {
      const num = await numOf(id);
      const rows = await bothLogs(db, num, { behind: after ?? beginOf(fromMs), toMs, limit });
      return rows.map((r) => ({
        seq: Number(r["seq"]),
        atMs: Number(r["at_ms"]),
        kind: r["kind"] === undefined ? "message" : text(r["kind"]),
        source: r["source"] === undefined ? "chat" : text(r["source"]),
        id: null,
        viewer:
          r["ext"] === null ? null : { id: text(r["ext"]), name: text(r["name"]), roles: rolesOf(Number(r["roles"] ?? r["known"] ?? 0)) },
        body: r["kind"] === undefined ? { text: text(r["body"]) } : fromJson(r["body"]),
      }));
    },
    kept: async (id, game, kinds, { seq, atMs }) => {
      const rows = await db("records as r")
        .leftJoin("viewers as v", "v.id", "r.viewer")
        .where("r.game_id", game)
        .whereIn("r.kind", [...kinds])
        .where("r.to_ms", ">=", atMs)
        .where("r.seq", ">=", seq)
        .where("r.channel", await numOf(id))
        .orderBy("r.id")
        .select("r.seq", "r.kind", "r.from_ms", "r.body", "v.ext", "v.name");
      return rows.map((r) => ({
        seq: Number(r.seq),
        kind: text(r.kind),
        fromMs: Number(r.from_ms),
        body: fromJson(r.body),
        viewer: r.ext === null ? null : { id: text(r.ext), name: text(r.name) },
      }));
    },
    delivered: async (id, sales) => {
      const seqs = sales.map(saleSeq).filter((seq) => seq !== null);
      if (seqs.length > 0)
        await db("deliveries")
          .where({ channel: await numOf(id) })
          .whereIn("seq", seqs)
          .delete();
    },
    sale: async (id, sale) => {
      const seq = saleSeq(sale);
      if (seq === null) return null;
      const row = await salesOf(db, await numOf(id))
        .andWhere("s.seq", seq)
        .first();
      return row === undefined ? null : saleOf(row);
    },
    ledgerFaults: async (id) => (await checkLedgerOf(patient, id)).faults.map((f) => `${f.what} ${f.about}: ${f.found}, meant ${f.meant}`),
    sweepDetails: async () => void (await sweepDetails(patient)),
    addViewerSession: async (id, { tokenHash, viewer, nowMs, untilMs }) => {
      const keyOf = await keys.of(await numOf(id), [viewer]);
      await db("viewer_sessions").where("expires_ms", "<", nowMs).delete();
      await db("viewer_sessions")
        .insert({
          token_hash: tokenHash,
          channel_id: id,
          viewer_key: keyOf(viewer.id),
          roles: JSON.stringify(viewer.roles),
          since_ms: nowMs,
          expires_ms: untilMs,
        })
        .onConflict("token_hash")
        .merge();
    },
    viewerSession: async (tokenHash, nowMs) => {
      const row = await db("viewer_sessions as s")
        .join("viewers as v", "v.id", "s.viewer_key")
        .where("s.token_hash", tokenHash)
        .andWhere("s.expires_ms", ">", nowMs)
        .first("s.channel_id", "s.roles", "v.ext", "v.name");
      if (row === undefined) return null;
      const roles = z.array(roleSchema).safeParse(fromJson(row["roles"]));
      return {
        channelId: channelId(text(row["channel_id"])),
        viewer: { id: text(row["ext"]), name: text(row["name"]), roles: roles.success ? roles.data : [] },
      };
    },
    endViewerSession: async (tokenHash) => void (await db("viewer_sessions").where({ token_hash: tokenHash }).delete()),
    renewViewerSession: async (channel, before, after) =>
      (await db("viewer_sessions").where({ token_hash: before, channel_id: channel }).update({ token_hash: after })) > 0,
    audit: async (id, operator, action, detail, nowMs) =>
      void (await db("audit").insert({ channel_id: id, operator_id: operator, action, detail: JSON.stringify(detail), at_ms: nowMs })),
    setHushed: async (id, on) => void (await db("channels").where({ id }).update({ hushed: on })),
    ...leases(db, keys, numOf, alive),
    media: mariadbMedia(db),
    session: async (tokenHash, nowMs) => {
      const row = await db("sessions")
        .join("memberships", (on) =>
          on.on("memberships.operator_id", "sessions.operator_id").andOn("memberships.channel_id", "sessions.channel_id"),
        )
        .join("operators", "operators.id", "sessions.operator_id")
        .where("sessions.token_hash", tokenHash)
        .where("sessions.expires_ms", ">", nowMs)
        .first("sessions.channel_id", "operators.id", "operators.login", "memberships.role");
      if (row === undefined) return null;
      return {
        channelId: channelId(text(row["channel_id"])),
        operator: text(row["login"]),
        operatorId: text(row["id"]),
        role: row["role"] === "owner" ? "owner" : "moderator",
      };
    },
    upkeep: (nowMs) => upkeep(patient, nowMs),
    ping: async () => void (await db.raw("select 1")),
  };
}
