import MySql2Client from "knex/lib/dialects/mysql2/index.js";

/** No statement runs longer, so that a database that hangs is one that is away. */
export const longestMs = 3_000;
/** After one that said nothing, so long nothing is asked: a page that asks five things waits for one of them. */
const silentMs = 2_500;

type Connection = Parameters<MySql2Client["_query"]>[0];
/** What is known of a connection that is within a transaction. */
type Within = { failed: Error | null; last: Promise<unknown> };

const silent = (): Error => Object.assign(new Error("the database says nothing"), { code: "ETIMEDOUT", fatal: true });

/**
 * The driver's client, by which a transaction is whole or not at all, and every wait has an end. A class, since Knex makes
 * another of it for each transaction.
 *
 * *Whole*: the server takes a whole transaction back when it has to (a deadlock's victim, for one). Whatever is said behind
 * that would run by itself and stay. So the statements of a transaction go out one after another, each when the one before
 * has succeeded; after one that failed nothing is sent but ROLLBACK, whoever asks. And where COMMIT or ROLLBACK itself fails the
 * connection is closed, or the next transaction on it would commit what is left of this one.
 *
 * *An end* (`timely`): a connection on which nothing comes back is closed, and whoever waited hears that the database is away.
 */
export function steadyClient(timely: boolean): typeof MySql2Client {
  let silentUntil = 0;
  const within = new WeakMap<Connection, Within>();

  return class SteadyClient extends MySql2Client {
    override async _query(...[connection, given]: Parameters<MySql2Client["_query"]>): Promise<unknown> {
      const sql = given.sql ?? "";
      const ends = /^(COMMIT|ROLLBACK);?$/i.test(sql);
      if (/^(BEGIN|START TRANSACTION)/i.test(sql)) within.set(connection, { failed: null, last: Promise.resolve() });
      const inside = within.get(connection);
      if (inside === undefined) return this.ask(connection, given);
      const mine = inside.last.then(() => {
        if (inside.failed !== null && !/^ROLLBACK/i.test(sql)) throw inside.failed;
        return this.ask(connection, given);
      });
      inside.last = mine.catch((error: Error) => {
        inside.failed ??= error;
        if (ends) connection.destroy();
      });
      if (ends) within.delete(connection);
      return mine;
    }

    private ask(...[connection, given]: Parameters<MySql2Client["_query"]>): Promise<unknown> {
      if (!timely) return super._query(connection, given);
      if (performance.now() < silentUntil) return Promise.reject(silent());
      return new Promise((resolve, reject) => {
        const late = setTimeout(() => {
          silentUntil = performance.now() + silentMs;
          connection.destroy();
          reject(silent());
        }, longestMs + 300);
        super
          ._query(connection, given)
          .then(resolve, reject)
          .finally(() => clearTimeout(late));
      });
    }
  };
}
