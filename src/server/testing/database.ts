import { knex } from "knex";
import type { Env } from "../env";
import { openDatabase, type Database } from "../adapters/mariadb/database";
import { migrate } from "../adapters/mariadb/migrate";

/** A database of its own for one test file, on the private MariaDB that `npm run unit` started. */
export async function testDatabase(name: string): Promise<{ db: Database; at: Env["database"]; end: () => Promise<void> }> {
  const { IZZAM_TEST_DB_PORT: port, IZZAM_TEST_DB_PASSWORD: password } = process.env;
  if (port === undefined || password === undefined) throw new Error("run the unit tests with `npm run unit`: they need its database");
  const at = { host: "127.0.0.1", port: Number(port), user: "izzam", password };
  const database = `izzam_unit_${name}`;
  const admin = knex({ client: "mysql2", connection: at });
  await admin.raw(`DROP DATABASE IF EXISTS ${database}`);
  await admin.raw(`CREATE DATABASE ${database} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  await admin.destroy();
  const there = { ...at, name: database };
  const patient = openDatabase(there, 1, true);
  await migrate(patient);
  await patient.destroy();
  const db = openDatabase(there);
  return { db, at: there, end: () => db.destroy() };
}
