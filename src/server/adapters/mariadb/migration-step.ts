import type { Knex } from "knex";

/** Steps that build the database, in order. A step that has run anywhere is never changed. */
export type Step = Readonly<{ name: string; up: (db: Knex) => Promise<void> }>;

export const id = (t: Knex.CreateTableBuilder, name = "id") => t.string(name, 26).notNullable().collate("ascii_bin");
