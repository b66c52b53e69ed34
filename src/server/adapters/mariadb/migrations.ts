import type { Knex } from "knex";
import { toLeanTables } from "./migration-005";
import { type Step } from "./migration-step";
import { first } from "./migration-001";
import { second } from "./migration-002";
import { third } from "./migration-003";
import { fourth } from "./migration-004";

const fifth: Step = { name: "005-lean-rows-and-keys", up: toLeanTables };

/** What is removed can be brought back: it stays, and nothing shows or runs of it. */
const sixth: Step = {
  name: "006-removed-and-brought-back",
  up: async (db) => {
    for (const table of ["games", "overlays"])
      await db.schema.alterTable(table, (t) => {
        t.bigInteger("removed_ms").nullable();
      });
  },
};

const steps: readonly Step[] = [first, second, third, fourth, fifth, sixth];

export const migrationSource: Knex.MigrationSource<Step> = {
  getMigrations: async () => [...steps],
  getMigrationName: (step) => step.name,
  getMigration: async (step) => ({ up: step.up, down: async () => undefined }),
};
