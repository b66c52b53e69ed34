import { type Step, id } from "./migration-step";

export const first: Step = {
  name: "001-first-slice",
  up: async (db) => {
    await db.schema.createTable("channels", (t) => {
      id(t).primary();
      t.string("name", 80).notNullable();
      t.integer("salt").unsigned().notNullable();
      t.bigInteger("revision").unsigned().notNullable().defaultTo(1);
      t.boolean("hushed").notNullable().defaultTo(false);
      t.bigInteger("created_ms").notNullable();
    });
    await db.schema.createTable("operators", (t) => {
      id(t).primary();
      t.string("login", 40).notNullable();
      // Folded: no two operators whose names look alike.
      t.string("login_key", 60).notNullable().unique();
      t.string("password_hash", 200).notNullable();
      t.boolean("demo").notNullable().defaultTo(false);
      t.bigInteger("created_ms").notNullable();
    });
    await db.schema.createTable("memberships", (t) => {
      id(t, "operator_id").references("operators.id").onDelete("CASCADE");
      id(t, "channel_id").references("channels.id").onDelete("CASCADE");
      t.enum("role", ["owner", "moderator"]).notNullable();
      t.primary(["operator_id", "channel_id"]);
    });
    await db.schema.createTable("sessions", (t) => {
      t.string("token_hash", 64).collate("ascii_bin").primary();
      id(t, "operator_id").references("operators.id").onDelete("CASCADE");
      id(t, "channel_id").references("channels.id").onDelete("CASCADE");
      t.bigInteger("expires_ms").notNullable().index();
    });
    await db.schema.createTable("games", (t) => {
      id(t).primary();
      id(t, "channel_id").references("channels.id").onDelete("CASCADE");
      t.string("kind", 40).notNullable();
      t.string("name", 80).notNullable();
      t.json("draft").notNullable();
      t.integer("draft_revision").unsigned().notNullable().defaultTo(1);
      t.string("draft_by", 40).notNullable().defaultTo("");
      t.integer("version").unsigned().notNullable().defaultTo(0);
      t.bigInteger("created_ms").notNullable();
    });
    await db.schema.createTable("game_versions", (t) => {
      id(t, "game_id").references("games.id").onDelete("CASCADE");
      t.integer("version").unsigned().notNullable();
      t.json("settings").notNullable();
      t.string("by", 40).notNullable();
      t.string("note", 200).notNullable().defaultTo("");
      t.bigInteger("at_ms").notNullable();
      t.primary(["game_id", "version"]);
    });
    await db.schema.createTable("game_states", (t) => {
      id(t, "game_id").primary().references("games.id").onDelete("CASCADE");
      t.bigInteger("seq").unsigned().notNullable();
      t.json("durable").notNullable();
    });
    await db.schema.createTable("overlays", (t) => {
      id(t).primary();
      id(t, "channel_id").references("channels.id").onDelete("CASCADE");
      t.string("name", 80).notNullable();
      t.integer("width").unsigned().notNullable().defaultTo(1920);
      t.integer("height").unsigned().notNullable().defaultTo(1080);
      t.string("token_hash", 64).collate("ascii_bin").nullable().unique();
      t.text("token_sealed").nullable();
      t.bigInteger("token_since_ms").nullable();
      t.bigInteger("created_ms").notNullable();
    });
    await db.schema.createTable("placements", (t) => {
      id(t, "overlay_id").references("overlays.id").onDelete("CASCADE");
      id(t, "game_id").references("games.id").onDelete("CASCADE");
      t.json("place").notNullable();
      t.integer("order").notNullable().defaultTo(0);
      t.primary(["overlay_id", "game_id"]);
    });
    await db.schema.createTable("prop_files", (t) => {
      t.string("sha", 64).collate("ascii_bin").primary();
      t.string("mime", 60).notNullable();
      t.specificType("bytes", "MEDIUMBLOB").notNullable();
      t.bigInteger("created_ms").notNullable();
    });
    await db.schema.createTable("emotes", (t) => {
      id(t).primary();
      id(t, "channel_id").references("channels.id").onDelete("CASCADE");
      t.string("word", 40).notNullable().collate("utf8mb4_bin");
      t.string("word_key", 80).notNullable().collate("utf8mb4_bin");
      t.string("source_sha", 64).notNullable().collate("ascii_bin");
      t.string("pixels_sha", 64).notNullable().collate("ascii_bin");
      t.string("source_kind", 10).notNullable();
      t.string("sheet_sha", 64).notNullable().collate("ascii_bin").references("prop_files.sha");
      t.integer("frames").unsigned().notNullable();
      t.integer("columns").unsigned().notNullable();
      t.integer("frame_width").unsigned().notNullable();
      t.integer("frame_height").unsigned().notNullable();
      t.integer("frame_ms").unsigned().notNullable();
      t.bigInteger("created_ms").notNullable();
      t.bigInteger("removed_ms").nullable();
      t.index(["channel_id", "removed_ms"]);
    });
    await db.schema.createTable("chat_connections", (t) => {
      id(t, "channel_id").primary().references("channels.id").onDelete("CASCADE");
      t.boolean("enabled").notNullable().defaultTo(true);
      t.json("settings").notNullable();
      t.text("secret_sealed").nullable();
    });
    await db.schema.createTable("signals", (t) => {
      id(t, "channel_id");
      t.bigInteger("seq").unsigned().notNullable();
      t.bigInteger("at_ms").notNullable();
      t.string("kind", 24).notNullable();
      t.string("source", 24).notNullable();
      t.string("signal_id", 100).notNullable().collate("utf8mb4_bin");
      t.string("viewer", 64).nullable();
      t.json("body").notNullable();
      t.primary(["channel_id", "seq"]);
      t.unique(["channel_id", "source", "signal_id"]);
      t.index(["channel_id", "at_ms"]);
    });
    await db.schema.createTable("leases", (t) => {
      id(t, "channel_id").primary();
      t.string("owner", 40).notNullable();
      t.bigInteger("until_ms").notNullable();
    });
    await db.schema.createTable("audit", (t) => {
      t.bigIncrements("id");
      id(t, "channel_id").index();
      id(t, "operator_id");
      t.string("action", 60).notNullable();
      t.json("detail").notNullable();
      t.bigInteger("at_ms").notNullable();
    });
  },
};
