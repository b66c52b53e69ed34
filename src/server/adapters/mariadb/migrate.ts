import type { Database } from "./database";
import { migrationSource } from "./migrations";

/** Brings the database to its newest form; tells the steps that were taken. */
export async function migrate(db: Database): Promise<readonly string[]> {
  const [, names] = (await db.migrate.latest({ migrationSource })) as [number, string[]];
  return names;
}
