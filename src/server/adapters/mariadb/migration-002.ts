import { type Step, id } from "./migration-step";

export const second: Step = {
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
