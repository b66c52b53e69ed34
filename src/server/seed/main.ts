import { openDatabase } from "../adapters/mariadb/database";
import { migrate } from "../adapters/mariadb/migrate";
import { mariadbOperatorStore } from "../adapters/mariadb/operator-store";
import { readEnv } from "../env";
import { followPractice } from "../web/practice";
import { seedDemo } from "./demo";

/** Run once at every start: brings the database to its newest form and, in demo mode, fills it once. */
const env = readEnv();
const db = openDatabase(env.database, 8, true);
try {
  await migrate(db);
  await followPractice(mariadbOperatorStore(db).chat, env);
  if (env.demo)
    await seedDemo({ db, store: mariadbOperatorStore(db), env, folder: new URL("./demo/", import.meta.url).pathname, nowMs: Date.now() });
  // Read by who starts it: with an owner there is no set-up any more.
  console.log((await mariadbOperatorStore(db).accounts.anyOperator()) ? "owned" : "free");
} finally {
  await db.destroy();
}
