import type { Knex } from "knex";
import { toLeanTables } from "./migration-005";

/** Steps that build the database, in order. A step that has run anywhere is never changed. */
type Step = Readonly<{ name: string; up: (db: Knex) => Promise<void> }>;

const id = (t: Knex.CreateTableBuilder, name = "id") => t.string(name, 26).notNullable().collate("ascii_bin");

const first: Step = {
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

const second: Step = {
  name: "002-signals-rules-stage-props-cues",
  up: async (db) => {
    await db.schema.createTable("game_records", (t) => {
      t.bigIncrements("id");
      id(t, "channel_id");
      id(t, "game_id").references("games.id").onDelete("CASCADE");
      t.bigInteger("seq").unsigned().notNullable();
      t.string("kind", 24).notNullable();
      t.string("viewer", 64).nullable();
      t.string("viewer_name", 80).nullable();
      t.bigInteger("from_ms").notNullable();
      t.bigInteger("to_ms").notNullable();
      t.json("body").notNullable();
      t.index(["game_id", "kind", "to_ms"]);
      t.index(["channel_id", "viewer"]);
    });
    await db.schema.createTable("event_sources", (t) => {
      id(t, "channel_id").primary().references("channels.id").onDelete("CASCADE");
      t.text("secret_sealed").notNullable();
      t.text("old_secret_sealed").nullable();
      t.bigInteger("old_until_ms").notNullable().defaultTo(0);
      t.bigInteger("since_ms").notNullable();
    });
    await db.schema.createTable("triggers", (t) => {
      id(t, "channel_id").references("channels.id").onDelete("CASCADE");
      id(t, "cue_id");
      t.string("token_hash", 64).collate("ascii_bin").notNullable().unique();
      t.text("token_sealed").notNullable();
      t.bigInteger("since_ms").notNullable();
      t.primary(["channel_id", "cue_id"]);
    });
    await db.schema.createTable("props", (t) => {
      id(t).primary();
      id(t, "channel_id").references("channels.id").onDelete("CASCADE");
      t.string("name", 80).notNullable();
      t.enum("kind", ["picture", "sound"]).notNullable();
      t.string("source_sha", 64).notNullable().collate("ascii_bin").references("prop_files.sha");
      t.string("source_kind", 10).notNullable();
      t.string("made_sha", 64).notNullable().collate("ascii_bin").references("prop_files.sha");
      // How it is cut, framed or trimmed; the source is never touched.
      t.json("settings").notNullable();
      // What the made file is: frames and sizes, or length, loudness and waveform.
      t.json("facts").notNullable();
      t.bigInteger("created_ms").notNullable();
      t.bigInteger("removed_ms").nullable();
      t.index(["channel_id", "removed_ms"]);
    });
    await db.schema.alterTable("overlays", (t) => {
      t.boolean("shows").notNullable().defaultTo(true);
      t.boolean("sounds").notNullable().defaultTo(true);
      t.text("css").nullable();
      t.string("backdrop", 40).notNullable().defaultTo("studio");
      t.string("note", 120).notNullable().defaultTo("");
      // Null: what is on air is what is being arranged.
      t.json("layout_draft").nullable();
      t.boolean("at_once").notNullable().defaultTo(true);
    });
  },
};

const third: Step = {
  name: "003-booth-and-remotes",
  up: async (db) => {
    await db.schema.alterTable("sessions", (t) => {
      // A phone that was paired is a session too, with fewer rights.
      t.enum("kind", ["full", "remote"]).notNullable().defaultTo("full");
      t.string("id", 26).nullable().collate("ascii_bin").unique();
      t.string("label", 60).notNullable().defaultTo("");
      t.bigInteger("created_ms").notNullable().defaultTo(0);
    });
    // A channel has a show from its first day on; those that were made before get theirs here.
    const settings = JSON.stringify({ schema: 1, begins: "platform", silenceMin: 60, commands: [] });
    for (const channel of (await db("channels").select("id")) as { id: string }[]) {
      const part = `show-${channel.id}`.slice(0, 26);
      await db("games").insert({
        id: part,
        channel_id: channel.id,
        kind: "show",
        name: "Show",
        draft: settings,
        version: 1,
        created_ms: 1,
      });
      await db("game_versions").insert({ game_id: part, version: 1, settings, by: "izzam", at_ms: 1 });
    }
    await db.schema.createTable("pairings", (t) => {
      t.string("code_hash", 64).collate("ascii_bin").primary();
      id(t, "operator_id").references("operators.id").onDelete("CASCADE");
      id(t, "channel_id").references("channels.id").onDelete("CASCADE");
      t.bigInteger("expires_ms").notNullable();
    });
    await db.schema.alterTable("signals", (t) => {
      // A viewer's card reads what one viewer did, newest first.
      t.index(["channel_id", "viewer", "seq"], "signals_of_viewer");
      // The tape reads what is no message: a few hundred rows among the millions of an evening.
      t.index(["channel_id", "kind", "at_ms"], "signals_by_kind");
    });
    await db.schema.alterTable("game_records", (t) => {
      t.index(["channel_id", "kind", "to_ms"], "records_by_kind");
    });
  },
};

const fourth: Step = {
  name: "004-points-and-rewards",
  up: async (db) => {
    // Kept by the account, so that a balance is one row; rebuilt from the postings whenever it is doubted.
    await db.schema.createTable("point_balances", (t) => {
      id(t, "channel_id").references("channels.id").onDelete("CASCADE");
      t.string("account", 66).collate("utf8mb4_bin").notNullable();
      t.string("name", 80).notNullable().defaultTo("");
      t.bigInteger("balance").notNullable().defaultTo(0);
      // What the last statement moved: it travels here, because a value below none may not be inserted as a balance.
      t.bigInteger("moved").notNullable().defaultTo(0);
      // What was earned on which day of the channel's: days since 1970.
      t.integer("day").notNullable().defaultTo(0);
      t.bigInteger("earned").notNullable().defaultTo(0);
      // No index by balance: it would move with every sale, and who has most is known in memory.
      t.primary(["channel_id", "account"]);
    });
    // No viewer's account falls below none, whatever the program believes; the channel's own may.
    await db.raw("alter table point_balances add constraint viewers_not_below_none check (balance >= 0 or account not like 'v:%')");
    await db.schema.createTable("point_entries", (t) => {
      id(t, "channel_id").references("channels.id").onDelete("CASCADE");
      t.bigInteger("seq").notNullable();
      t.integer("n").notNullable();
      t.string("entry_key", 150).collate("utf8mb4_bin").notNullable();
      t.bigInteger("at_ms").notNullable();
      t.string("reason", 12).collate("ascii_bin").notNullable();
      t.string("about", 120).notNullable();
      t.string("by", 60).notNullable();
      t.primary(["channel_id", "seq", "n"]);
      t.unique(["channel_id", "entry_key"]);
      t.index(["channel_id", "at_ms"]);
    });
    await db.schema.createTable("point_postings", (t) => {
      id(t, "channel_id").notNullable();
      t.bigInteger("seq").notNullable();
      t.integer("n").notNullable();
      t.string("account", 66).collate("utf8mb4_bin").notNullable();
      t.bigInteger("amount").notNullable();
      t.primary(["channel_id", "seq", "n", "account"]);
      t.index(["channel_id", "account", "seq"], "postings_of_account");
      // No foreign key: both are written in one transaction, and a check for every row costs a third of a sale.
    });
    await db.schema.createTable("sales", (t) => {
      id(t, "channel_id").references("channels.id").onDelete("CASCADE");
      t.string("id", 40).collate("ascii_bin").notNullable();
      t.bigInteger("at_ms").notNullable();
      t.string("reward_id", 26).collate("ascii_bin").notNullable();
      t.string("reward_name", 60).notNullable();
      t.string("viewer", 64).collate("utf8mb4_bin").notNullable();
      t.string("viewer_name", 80).notNullable();
      t.bigInteger("price").notNullable();
      t.string("text", 300).notNullable();
      t.enum("state", ["waiting", "done", "refunded"]).notNullable();
      t.string("show_id", 40).collate("ascii_bin").notNullable();
      t.string("decided_by", 60).notNullable();
      t.bigInteger("decided_ms").nullable();
      t.integer("times").notNullable().defaultTo(0);
      t.boolean("shown").notNullable();
      // A code that was handed out with it: the buyer's alone.
      t.string("code", 120).collate("utf8mb4_bin").notNullable().defaultTo("");
      // A private detail, sealed; gone as soon as it is done or given back.
      t.text("detail_sealed").nullable();
      t.primary(["channel_id", "id"]);
      t.index(["channel_id", "at_ms"]);
      t.index(["channel_id", "state", "at_ms"]);
      t.index(["channel_id", "reward_id", "at_ms"]);
      t.index(["channel_id", "viewer", "at_ms"]);
    });
    await db.schema.createTable("moving_prices", (t) => {
      id(t, "channel_id").references("channels.id").onDelete("CASCADE");
      t.string("reward_id", 26).collate("ascii_bin").notNullable();
      t.bigInteger("thousandths").notNullable();
      t.bigInteger("at_ms").notNullable();
      t.primary(["channel_id", "reward_id"]);
    });
    // A viewer who proved a chat name on the viewer page.
    await db.schema.createTable("viewer_sessions", (t) => {
      t.string("token_hash", 64).collate("ascii_bin").primary();
      id(t, "channel_id").references("channels.id").onDelete("CASCADE");
      t.string("viewer", 64).collate("utf8mb4_bin").notNullable();
      t.string("viewer_name", 80).notNullable();
      t.json("roles").notNullable();
      t.bigInteger("since_ms").notNullable();
      t.bigInteger("expires_ms").notNullable();
      t.index(["channel_id", "viewer"]);
    });
  },
};

const fifth: Step = { name: "005-lean-rows-and-keys", up: toLeanTables };

const steps: readonly Step[] = [first, second, third, fourth, fifth];

export const migrationSource: Knex.MigrationSource<Step> = {
  getMigrations: async () => [...steps],
  getMigrationName: (step) => step.name,
  getMigration: async (step) => ({ up: step.up, down: async () => undefined }),
};
