import { type Step, id } from "./migration-step";

export const third: Step = {
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
