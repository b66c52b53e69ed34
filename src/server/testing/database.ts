import { knex, type Knex } from "knex";
import type { Env } from "../env";
import { openDatabase, type Database } from "../adapters/mariadb/database";
import { migrate } from "../adapters/mariadb/migrate";

const template = "izzam_unit_template";

/**
 * The migrated database, made once a run, by whichever test file needs it first; the tables of the others are copied from
 * its. Tests of the migrations themselves migrate for themselves.
 */
async function copyTemplate(admin: Knex, at: Omit<Env["database"], "name">, database: string): Promise<void> {
  await admin.transaction(async (one) => {
    await one.raw("select get_lock('izzam_unit_template', 60)");
    try {
      const [made] = (await one.raw("select count(*) as n from information_schema.tables where table_schema = ? and table_name = 'made'", [
        template,
      ])) as [{ n: number }[]];
      if (Number(made[0]?.n) === 0) {
        await one.raw(`DROP DATABASE IF EXISTS ${template}`);
        await one.raw(`CREATE DATABASE ${template} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
        const patient = openDatabase({ ...at, name: template }, 1, true);
        await migrate(patient);
        await patient.destroy();
        await one.raw(`CREATE TABLE ${template}.made (at int)`);
      }
    } finally {
      await one.raw("select release_lock('izzam_unit_template')");
    }
    await one.raw("SET foreign_key_checks = 0");
    const [tables] = (await one.raw(
      "select table_name as name from information_schema.tables where table_schema = ? and table_name <> 'made'",
      [template],
    )) as [{ name: string }[]];
    await one.raw(`USE ${database}`);
    for (const { name } of tables) {
      const [[table]] = (await one.raw(`SHOW CREATE TABLE ${template}.${name}`)) as [[Record<string, string>]];
      await one.raw(table["Create Table"] ?? "");
      await one.raw(`INSERT INTO ${database}.${name} SELECT * FROM ${template}.${name}`);
    }
  });
}

/** A database of its own for one test file, on the private MariaDB that `npm run unit` started. */
export async function testDatabase(name: string): Promise<{ db: Database; at: Env["database"]; end: () => Promise<void> }> {
  const { IZZAM_TEST_DB_PORT: port, IZZAM_TEST_DB_PASSWORD: password } = process.env;
  if (port === undefined || password === undefined) throw new Error("run the unit tests with `npm run unit`: they need its database");
  const at = { host: "127.0.0.1", port: Number(port), user: "izzam", password };
  const database = `izzam_unit_${name}`;
  const admin = knex({ client: "mysql2", connection: at, pool: { min: 1, max: 1 } });
  await admin.raw(`DROP DATABASE IF EXISTS ${database}`);
  await admin.raw(`CREATE DATABASE ${database} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  await copyTemplate(admin, at, database);
  await admin.destroy();
  const there = { ...at, name: database };
  const db = openDatabase(there);
  return { db, at: there, end: () => db.destroy() };
}
