/** Knex lets one bring a driver by its client class; the class of the MariaDB and MySQL driver has no types of its own. */
declare module "knex/lib/dialects/mysql2/index.js" {
  import type { Knex } from "knex";
  type Connection = Readonly<{ destroy: () => void; query: (sql: string, done: (error: unknown) => void) => void }>;
  export default class MySql2Client {
    constructor(config: Knex.Config);
    _query(connection: Connection, given: Readonly<{ sql?: string }>): Promise<unknown>;
  }
}
