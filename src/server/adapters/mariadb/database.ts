import knex, { type Knex } from "knex";
import type { Env } from "../../env";
import { longestMs, steadyClient } from "./client";

export type Database = Knex;

type Timed = Readonly<{ query: (sql: string, done: (error: unknown) => void) => void }>;

/**
 * A pool to MariaDB. Eight connections: more never helped (BUDGETS). Times are stored as integers. Long
 * work that nobody waits for (an upgrade, a check of the ledger) asks for `patient`.
 */
export function openDatabase(database: Env["database"], most = 8, patient = false): Database {
  return knex({
    // Knex types its clients by a class it does not export.
    client: steadyClient(!patient) as unknown as typeof Knex.Client,
    connection: {
      host: database.host,
      port: database.port,
      user: database.user,
      password: database.password,
      database: database.name,
      charset: "utf8mb4",
      timezone: "Z",
      supportBigNumbers: true,
      connectTimeout: 2_500,
    },
    // An error names the statement at most, never what was in it.
    compileSqlOnError: false,
    // The pool would write a line for every failed try; whoever asked tells it once, in words.
    log: { warn: () => undefined, error: () => undefined },
    pool: {
      min: most === 1 ? 1 : 0,
      max: most,
      acquireTimeoutMillis: 3_500,
      createTimeoutMillis: 3_000,
      idleTimeoutMillis: 30_000,
      // The server ends what takes too long by itself; the client is for a server that says nothing at all.
      afterCreate: (connection: Timed, done: (error: unknown, connection: Timed) => void) =>
        connection.query(
          `SET SESSION max_statement_time = ${patient ? 0 : longestMs / 1000}, SESSION innodb_lock_wait_timeout = 3`,
          (error) => done(error, connection),
        ),
    },
  });
}

/** JSON columns come back as text or as what it means, as the driver finds it described; a text within JSON is no JSON again. */
export function fromJson(value: unknown): unknown {
  if (typeof value !== "string") return value;
  try {
    return JSON.parse(value) as unknown;
  } catch {
    return value;
  }
}

/** Whether an error says "cannot be reached now" rather than "this is wrong". */
export function isAway(error: unknown): boolean {
  const e = error as { code?: string; name?: string; message?: string };
  return (
    /^(ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|ENOTFOUND|PROTOCOL_|ER_CON_COUNT|ER_SERVER_SHUTDOWN|ER_CONNECTION_KILLED|ER_NORMAL_SHUTDOWN|ER_LOCK_DEADLOCK|ER_LOCK_WAIT_TIMEOUT|ER_STATEMENT_TIMEOUT|ER_QUERY_INTERRUPTED|ER_RECORD_FILE_FULL|ER_DISK_FULL|ER_ERROR_ON_WRITE|ER_OUT_OF_RESOURCES|ER_OUTOFMEMORY|ER_OPTION_PREVENTS_STATEMENT)/.test(
      e.code ?? "",
    ) ||
    e.name === "KnexTimeoutError" ||
    /closed state|Connection lost|max_statement_time|acquiring a connection|server has gone away/i.test(e.message ?? "")
  );
}

/** Whether others were in the way of a statement, on a database that is there: the same may be tried again. */
export const isInTheWay = (error: unknown): boolean =>
  /^ER_(LOCK_DEADLOCK|LOCK_WAIT_TIMEOUT|CHECKREAD|QUERY_INTERRUPTED|STATEMENT_TIMEOUT)$/.test((error as { code?: string }).code ?? "");
