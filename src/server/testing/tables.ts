import type { Database } from "../adapters/mariadb/database";

type Column = Readonly<{ t: string; c: string; type: string; nullable: string; preset: string | null; extra: string; json: number }>;

const typeOf = ({ type, json }: Column): string => {
  if (json === 1) return "unknown";
  if (/int$/.test(type)) return "number";
  if (/binary$|blob$/.test(type)) return "Buffer";
  if (/char$|text$|^enum$/.test(type)) return "string";
  throw new Error(`a column of type ${type}: say what it is in TypeScript`);
};

const union = (names: readonly string[]): string => (names.length === 0 ? "never" : names.join(" | "));

/** The tables of a database as types for Knex: what a row holds, and what may be left out when one is written. */
export async function tablesInTypes(db: Database): Promise<string> {
  const [columns] = (await db.raw(
    `select c.table_name as t, c.column_name as c, c.data_type as type, c.is_nullable as nullable, c.column_default as preset, c.extra as extra,
       exists(select 1 from information_schema.check_constraints k where k.constraint_schema = database() and k.table_name = c.table_name
         and k.check_clause = concat('json_valid(\`', c.column_name, '\`)')) as json
     from information_schema.columns c where c.table_schema = database() and c.table_name not like 'knex%'
     order by c.table_name, c.ordinal_position`,
  )) as unknown as [readonly Column[]];
  const tables = new Map<string, Column[]>();
  for (const c of columns) tables.set(c.t, [...(tables.get(c.t) ?? []), c]);
  const lines = [
    "// Written from the migrated database by `IZZAM_WRITE_TABLES=1 npm run unit -- tables.test`; a test compares it.",
    'import type { Knex } from "knex";',
    "",
    'declare module "knex/types/tables.js" {',
    "  interface Tables {",
  ];
  for (const [table, cols] of tables) {
    const free = cols.filter((c) => c.nullable === "YES" || c.preset !== null || c.extra.includes("auto_increment")).map((c) => `"${c.c}"`);
    lines.push(`    ${table}: Written<`);
    lines.push("      {");
    for (const c of cols) lines.push(`        ${c.c}: ${typeOf(c)}${c.nullable === "YES" && typeOf(c) !== "unknown" ? " | null" : ""};`);
    lines.push("      },");
    const flags = cols.filter((c) => c.type === "tinyint").map((c) => `"${c.c}"`);
    lines.push(`${union(free)}, ${union(flags)}`, "    >;");
  }
  lines.push("  }", "}", "");
  lines.push(
    "/** A row as it is read; written without what the database fills in, a flag as yes or no, and by an expression too. */",
    "type Written<Row, Free extends keyof Row, Flags extends keyof Row> = Knex.CompositeTableType<Row, Omit<Put<Row, Flags>, Free> & Partial<Pick<Put<Row, Flags>, Free>>, Partial<Put<Row, Flags>>>;",
    "type Put<Row, Flags extends keyof Row> = { [K in keyof Row]: Row[K] | Knex.Raw | (K extends Flags ? boolean : never) };",
    "",
  );
  return lines.join("\n");
}
