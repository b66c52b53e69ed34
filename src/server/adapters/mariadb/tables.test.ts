import { expect, test } from "@jest/globals";
import { readFileSync, writeFileSync } from "node:fs";
import { format, resolveConfig } from "prettier";
import { testDatabase } from "../../testing/database";
import { tablesInTypes } from "../../testing/tables";

test("the types of the tables are those of the migrated database", async () => {
  const { db, end } = await testDatabase("tables");
  const file = new URL("./tables.d.ts", import.meta.url).pathname;
  const written = await format(await tablesInTypes(db), { ...(await resolveConfig(file)), parser: "typescript" });
  await end();
  if (process.env["IZZAM_WRITE_TABLES"] !== undefined) writeFileSync(file, written);
  expect(readFileSync(file, "utf8")).toBe(written);
});
