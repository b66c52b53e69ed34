import { type Step, id } from "./migration-step";

export const fourth: Step = {
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
