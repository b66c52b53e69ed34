import { cut, loginKey } from "../../../core/kernel/text";
import { channelId, operatorId } from "../../../core/kernel/ids";
import { ok, refused } from "../../../core/kernel/refusal";
import type { Account, AccountStore, OperatorRole } from "../../ports/operator-store";
import type { Database } from "./database";
import { bump, isDuplicate, type Row, text } from "./rows";

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
    account: async (login) => accountOf(await accounts().where("operators.login_key", loginKey(login)).first()),
    demoAccount: async (role) =>
      accountOf(await accounts().where("operators.demo", true).where("memberships.role", role).orderBy("operators.created_ms").first()),
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
    openSession: async (tokenHash, account, { kind, id, label, nowMs, expiresMs }) => {
      await db("sessions").insert({
        token_hash: tokenHash,
        operator_id: account.id,
        channel_id: account.channelId,
        expires_ms: expiresMs,
        kind,
        id,
        label: cut(label, 60),
        created_ms: nowMs,
      });
    },
    sessions: async (operator, nowMs) => {
      const rows = await db("sessions")
        .where({ operator_id: operator })
        .andWhere("expires_ms", ">", nowMs)
        .orderBy("created_ms", "desc")
        .limit(200);
      return rows.map((r) => ({
        // Sessions of before this was kept go by the beginning of their hash: it says nothing of the token.
        id: r["id"] === null ? text(r["token_hash"]).slice(0, 24) : text(r["id"]),
        label: text(r["label"]),
        kind: r["kind"] === "remote" ? "phone" : "desk",
        sinceMs: Number(r["created_ms"]),
        tokenHash: text(r["token_hash"]),
      }));
    },
    endSessions: (operator, id, butTokenHash) => {
      const those = db("sessions").where({ operator_id: operator }).whereNot({ token_hash: butTokenHash });
      if (id !== null) void those.andWhere((q) => q.where({ id }).orWhereRaw("id is null and left(token_hash, 24) = ?", [id]));
      return those.delete();
    },
    passwordHash: async (operator) => {
      const row = await db("operators").where({ id: operator }).first("password_hash");
      return row === undefined ? null : text(row["password_hash"]);
    },
    setPassword: async (operator, hash) =>
      void (await db("operators").where({ id: operator }).update({ password_hash: hash, demo: false })),
    setPublicName: async (operator, channel, name) =>
      void (await db("memberships").where({ operator_id: operator, channel_id: channel }).update({ public_name: name })),
    logins: async (channel) =>
      (await db("memberships as m").join("operators as o", "o.id", "m.operator_id").where("m.channel_id", channel).select("o.login")).map(
        (r) => text(r["login"]),
      ),
    operators: async (channel, nowMs) => {
      const rows = await db("memberships as m")
        .join("operators as o", "o.id", "m.operator_id")
        .leftJoin("sessions as s", (on) =>
          on
            .on("s.operator_id", "o.id")
            .andOn("s.channel_id", "m.channel_id")
            .andOn("s.expires_ms", ">", db.raw("?", [nowMs])),
        )
        .where("m.channel_id", channel)
        .groupBy("o.id", "o.login", "m.role", "o.demo", "o.created_ms")
        .orderBy("m.role")
        .orderBy("o.created_ms")
        .select("o.id", "o.login", "m.role", "o.demo", "o.created_ms")
        .count("s.token_hash as sessions");
      return rows.map((r) => ({
        id: operatorId(text(r["id"])),
        login: text(r["login"]),
        role: roleOf(r["role"]),
        demo: Boolean(r["demo"]),
        sessions: Number(r["sessions"]),
        sinceMs: Number(r["created_ms"]),
      }));
    },
    removeOperator: (channel, operator) =>
      db.transaction(async (trx) => {
        // All members are locked: of two owners who remove each other at once, one stays.
        const members = await trx("memberships as m")
          .join("operators as o", "o.id", "m.operator_id")
          .where("m.channel_id", channel)
          .forUpdate()
          .select("o.id", "o.login", "m.role");
        const one = members.find((m) => m["id"] === operator);
        if (one === undefined) return refused("operator/unknown");
        if (one["role"] === "owner" && members.filter((m) => m["role"] === "owner").length === 1) return refused("operator/last-owner");
        await trx("sessions").where({ channel_id: channel, operator_id: operator }).delete();
        await trx("pairings").where({ channel_id: channel, operator_id: operator }).delete();
        await trx("memberships").where({ channel_id: channel, operator_id: operator }).delete();
        const left = await trx("memberships").where({ operator_id: operator }).first("channel_id");
        // The account itself goes with its last channel.
        if (left === undefined) await trx("operators").where({ id: operator }).delete();
        return ok({ login: text(one["login"]) });
      }),
    renameChannel: async (channel, name) => {
      await db("channels").where({ id: channel }).update({ name });
      await bump(db, channel);
    },
    invite: async (channel, { tokenHash, by, nowMs, expiresMs }) => {
      await db("invites").where("expires_ms", "<=", nowMs).delete();
      await db("invites").insert({
        token_hash: tokenHash,
        channel_id: channel,
        made_by: cut(by, 40),
        created_ms: nowMs,
        expires_ms: expiresMs,
      });
    },
    invites: async (channel, nowMs) =>
      (await db("invites").where({ channel_id: channel }).andWhere("expires_ms", ">", nowMs).orderBy("created_ms", "desc")).map((r) => ({
        by: text(r["made_by"]),
        sinceMs: Number(r["created_ms"]),
        untilMs: Number(r["expires_ms"]),
      })),
    endInvites: (channel) => db("invites").where({ channel_id: channel }).delete(),
    invited: async (tokenHash, nowMs) => {
      const row = await db("invites as i")
        .join("channels as c", "c.id", "i.channel_id")
        .where("i.token_hash", tokenHash)
        .andWhere("i.expires_ms", ">", nowMs)
        .first("c.id", "c.name");
      return row === undefined ? null : { channelId: channelId(text(row["id"])), channelName: text(row["name"]) };
    },
    join: async (tokenHash, { id, login, passwordHash, nowMs }) => {
      try {
        return await db.transaction(async (trx) => {
          const row = await trx("invites").where({ token_hash: tokenHash }).andWhere("expires_ms", ">", nowMs).forUpdate().first();
          if (row === undefined) return refused("invite/unknown");
          const channel = channelId(text(row["channel_id"]));
          await trx("operators").insert({ id, login, login_key: loginKey(login), password_hash: passwordHash, created_ms: nowMs });
          await trx("memberships").insert({ operator_id: id, channel_id: channel, role: "moderator" });
          await trx("invites").where({ token_hash: tokenHash }).delete();
          return ok({ id, login, passwordHash, channelId: channel, role: "moderator" as const, demo: false });
        });
      } catch (error) {
        if (isDuplicate(error)) return refused("operator/name-taken");
        throw error;
      }
    },
    offerPairing: async (codeHash, { operatorId: operator, channelId: channel, expiresMs }) => {
      await db("pairings").insert({ code_hash: codeHash, operator_id: operator, channel_id: channel, expires_ms: expiresMs });
    },
    takePairing: async (codeHash, nowMs) => {
      const row = await db("pairings").where({ code_hash: codeHash }).first();
      // Whoever deletes it has it: of two phones with one code, one is paired.
      if (row === undefined || (await db("pairings").where({ code_hash: codeHash }).delete()) === 0) return null;
      await db("pairings").where("expires_ms", "<=", nowMs).delete();
      if (Number(row["expires_ms"]) <= nowMs) return null;
      return accountOf(
        await accounts().where("operators.id", text(row["operator_id"])).where("memberships.channel_id", text(row["channel_id"])).first(),
      );
    },
    remotes: async (channel, nowMs) => {
      const rows = await db("sessions")
        .join("operators", "operators.id", "sessions.operator_id")
        .where("sessions.channel_id", channel)
        .where("sessions.kind", "remote")
        .where("sessions.expires_ms", ">", nowMs)
        .orderBy("sessions.created_ms", "desc")
        .select("sessions.id", "sessions.label", "sessions.created_ms", "operators.login");
      return rows.map((r) => ({ id: text(r["id"]), label: text(r["label"]), by: text(r["login"]), sinceMs: Number(r["created_ms"]) }));
    },
    revokeRemote: async (channel, id) => (await db("sessions").where({ channel_id: channel, kind: "remote", id }).delete()) > 0,
    session: async (tokenHash, nowMs) => {
      const row = await db("sessions")
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
          "memberships.public_name",
          "sessions.kind",
          "sessions.label",
          "channels.id as channel_id",
          "channels.name as channel_name",
        );
      if (row === undefined) return null;
      const remote = row["kind"] === "remote";
      return {
        tokenHash,
        operatorId: operatorId(text(row["id"])),
        // What a phone does is told apart from what its owner does at the desk.
        login: remote ? `${text(row["login"])} (${text(row["label"])})` : text(row["login"]),
        remote,
        publicName: text(row["public_name"]),
        role: roleOf(row["role"]),
        channelId: channelId(text(row["channel_id"])),
        channelName: text(row["channel_name"]),
        demo: Boolean(row["demo"]),
      };
    },
    closeSession: async (tokenHash) => void (await db("sessions").where({ token_hash: tokenHash }).delete()),
  };
}
