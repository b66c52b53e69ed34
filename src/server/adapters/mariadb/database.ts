import knex, { type Knex } from "knex";
import type { Env } from "../../env";
import { migrationSource } from "./migrations";

export type Database = Knex;

/** A pool to MariaDB. Eight connections: more never helped (BUDGETS). Times are stored as integers. */
export function openDatabase(database: Env["database"]): Database {
  return knex({
    client: "mysql2",
    connection: {
      host: database.host,
      port: database.port,
      user: database.user,
      password: database.password,
      database: database.name,
      charset: "utf8mb4",
      timezone: "Z",
      supportBigNumbers: true,
      connectTimeout: 3_000,
    },
    // The pool would write a line for every failed try; whoever asked tells it once, in words.
    log: { warn: () => undefined, error: () => undefined },
    pool: { min: 0, max: 8, acquireTimeoutMillis: 4_000, createTimeoutMillis: 3_500, idleTimeoutMillis: 30_000 },
  });
}

export async function migrate(db: Database): Promise<readonly string[]> {
  const [, names] = (await db.migrate.latest({ migrationSource })) as [number, string[]];
  return names;
}

/** JSON columns come back as text from MariaDB. */
export const fromJson = (value: unknown): unknown => (typeof value === "string" ? (JSON.parse(value) as unknown) : value);

/** Whether an error says "cannot be reached now" rather than "this is wrong". */
export function isAway(error: unknown): boolean {
  const e = error as { code?: string; name?: string; message?: string };
  return (
    /^(ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|ENOTFOUND|PROTOCOL_|ER_CON_COUNT|ER_SERVER_SHUTDOWN|ER_CONNECTION_KILLED)/.test(
      e.code ?? "",
    ) ||
    e.name === "KnexTimeoutError" ||
    /closed state|Connection lost|acquiring a connection|server has gone away/i.test(e.message ?? "")
  );
}
