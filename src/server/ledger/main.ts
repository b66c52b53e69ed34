import { count, counted } from "../../core/words/sentence";
import { channelId } from "../../core/kernel/ids";
import type { LedgerFault } from "../../core/points/ledger";
import { openDatabase } from "../adapters/mariadb/database";
import { checkLedgerOf, rebuildBalances } from "../adapters/mariadb/ledger-check";
import { readEnv } from "../env";

/** Checks every channel's ledger and says what differs; with `--rebuild`, sets balances to what the entries say. */
const words = ({ what, about, found, meant }: LedgerFault): string =>
  what === "unbalanced"
    ? `the entry ${about} does not balance: ${count(found)} over`
    : what === "negative"
      ? `${about} is below none: ${count(found)}`
      : what === "twice"
        ? `the entry ${about} stands twice`
        : `${about} has ${count(found)}, and its entries make ${count(meant)}`;

const db = openDatabase(readEnv().database, 2, true);
let faults = 0;
try {
  // An installation has a database for the demo and one without; one of them may never have been used.
  const used = await db.schema.hasTable("transfers");
  for (const { id, name } of (used ? await db("channels").select("id", "name") : []) as { id: string; name: string }[]) {
    if (process.argv.includes("--rebuild")) {
      const rebuilt = await rebuildBalances(db, channelId(id));
      if (rebuilt > 0) console.log(`${name}: ${count(rebuilt)} balances were set to what their entries say.`);
    }
    const report = await checkLedgerOf(db, channelId(id));
    console.log(
      `${name}: ${counted(report.entries, "entry", "entries")}, ${counted(report.postings, "posting")}, ${counted(report.accounts, "account")}: ${report.faults.length === 0 ? "balances to the point" : counted(report.faults.length, "fault")}`,
    );
    for (const fault of report.faults) console.log(`  ${words(fault)}`);
    faults += report.faults.length;
  }
} finally {
  await db.destroy();
}
process.exitCode = faults === 0 ? 0 : 1;
