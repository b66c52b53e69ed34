import { loginKey } from "../../../core/kernel/text";
import { channelId, operatorId } from "../../../core/kernel/ids";
import { ok, refused } from "../../../core/kernel/refusal";
import type { Account, AccountStore, OperatorRole } from "../../ports/operator-store";
import type { Database } from "./database";
import { isDuplicate, type Row, text } from "./rows";

const roleOf = (value: unknown): OperatorRole => (value === "owner" ? "owner" : "moderator");
const accountOf = (row: Row | undefined): Account | null =>
  row === undefined
    ? null
    : {
        id: operatorId(text(row["id"])),
        login: text(row["login"]),
        passwordHash: text(row["password_hash"]),
        channelId: channelId(text(row["channel_id"])),
        role: roleOf(row["role"]),
        demo: Boolean(row["demo"]),
      };

export function mariadbAccounts(db: Database): AccountStore {
  const accounts = () =>
    db("operators")
      .join("memberships", "memberships.operator_id", "operators.id")
      .select("operators.id", "operators.login", "operators.password_hash", "operators.demo", "memberships.channel_id", "memberships.role");
  return {
    anyOperator: async () => (await db("operators").first("id")) !== undefined,
    account: async (login) => accountOf((await accounts().where("operators.login_key", loginKey(login)).first()) as Row | undefined),
    demoAccount: async (role) =>
      accountOf(
        (await accounts().where({ "operators.demo": true, "memberships.role": role }).orderBy("operators.created_ms").first()) as
          Row | undefined,
      ),
    createFirst: async (first) => {
      try {
        return await db.transaction(async (trx) => {
          // Locks the gap, so that of two first owners at the same time one is refused.
          if ((await trx("operators").forUpdate().first("id")) !== undefined) return refused("setup/done");
          await trx("channels").insert({ id: first.channelId, name: first.channelName, salt: first.salt, created_ms: first.nowMs });
          await trx("operators").insert({
            id: first.operatorId,
            login: first.login,
            login_key: loginKey(first.login),
            password_hash: first.passwordHash,
            created_ms: first.nowMs,
          });
          await trx("memberships").insert({ operator_id: first.operatorId, channel_id: first.channelId, role: "owner" });
          return ok(null);
        });
      } catch (error) {
        if (isDuplicate(error)) return refused("setup/done");
        throw error;
      }
    },
    openSession: async (tokenHash, account, expiresMs) => {
      await db("sessions").insert({ token_hash: tokenHash, operator_id: account.id, channel_id: account.channelId, expires_ms: expiresMs });
    },
    offerPairing: async (codeHash, { operatorId: operator, channelId: channel, expiresMs }) => {
      await db("pairings").insert({ code_hash: codeHash, operator_id: operator, channel_id: channel, expires_ms: expiresMs });
    },
    takePairing: async (codeHash, nowMs) => {
      const row = (await db("pairings").where({ code_hash: codeHash }).first()) as Row | undefined;
      // Whoever deletes it has it: of two phones with one code, one is paired.
      if (row === undefined || (await db("pairings").where({ code_hash: codeHash }).delete()) === 0) return null;
      await db("pairings").where("expires_ms", "<=", nowMs).delete();
      if (Number(row["expires_ms"]) <= nowMs) return null;
      return accountOf(
        (await accounts().where({ "operators.id": row["operator_id"], "memberships.channel_id": row["channel_id"] }).first()) as
          Row | undefined,
      );
    },
    openRemote: async (tokenHash, account, { id, label, nowMs, expiresMs }) => {
      await db("sessions").insert({
        token_hash: tokenHash,
        operator_id: account.id,
        channel_id: account.channelId,
        expires_ms: expiresMs,
        kind: "remote",
        id,
        label,
        created_ms: nowMs,
      });
    },
    remotes: async (channel, nowMs) => {
      const rows = (await db("sessions")
        .join("operators", "operators.id", "sessions.operator_id")
        .where({ "sessions.channel_id": channel, "sessions.kind": "remote" })
        .where("sessions.expires_ms", ">", nowMs)
        .orderBy("sessions.created_ms", "desc")
        .select("sessions.id", "sessions.label", "sessions.created_ms", "operators.login")) as Row[];
      return rows.map((r) => ({ id: text(r["id"]), label: text(r["label"]), by: text(r["login"]), sinceMs: Number(r["created_ms"]) }));
    },
    revokeRemote: async (channel, id) => (await db("sessions").where({ channel_id: channel, kind: "remote", id }).delete()) > 0,
    session: async (tokenHash, nowMs) => {
      const row = (await db("sessions")
        .join("memberships", (on) =>
          on.on("memberships.operator_id", "sessions.operator_id").andOn("memberships.channel_id", "sessions.channel_id"),
        )
        .join("operators", "operators.id", "sessions.operator_id")
        .join("channels", "channels.id", "sessions.channel_id")
        .where("sessions.token_hash", tokenHash)
        .where("sessions.expires_ms", ">", nowMs)
        .first(
          "operators.id",
          "operators.login",
          "operators.demo",
          "memberships.role",
          "sessions.kind",
          "sessions.label",
          "channels.id as channel_id",
          "channels.name as channel_name",
        )) as Row | undefined;
      if (row === undefined) return null;
      const remote = row["kind"] === "remote";
      return {
        tokenHash,
        operatorId: operatorId(text(row["id"])),
        // What a phone does is told apart from what its owner does at the desk.
        login: remote ? `${text(row["login"])} (${text(row["label"])})` : text(row["login"]),
        remote,
        role: roleOf(row["role"]),
        channelId: channelId(text(row["channel_id"])),
        channelName: text(row["channel_name"]),
        demo: Boolean(row["demo"]),
      };
    },
    closeSession: async (tokenHash) => void (await db("sessions").where({ token_hash: tokenHash }).delete()),
  };
}
