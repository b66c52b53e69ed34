import { alone } from "../../../core/kernel/text";
import { type Database, fromJson } from "./database";
import { chunks } from "./chunks";

export const nobody = "somebody";

/**
 * The same without somebody's name: wherever their id stands beside it, and where the name stands alone. Ids stay, since
 * the proofs of rounds are made of them; so does what somebody wrote to shake a drum.
 */
export function withoutName(value: unknown, id: string, name: string): unknown {
  if (Array.isArray(value)) return value.map((v) => withoutName(v, id, name));
  if (typeof value === "string") return value === name ? nobody : value;
  if (typeof value !== "object" || value === null) return value;
  const entries = Object.entries(value);
  const theirs = entries.some(([k, v]) => k === "id" && v === id);
  return Object.fromEntries(
    entries.map(([k, v]) => [
      k,
      k === "id"
        ? v
        : theirs && k === "name"
          ? nobody
          : k === "messages" || k === "record" || k === "settings"
            ? v
            : withoutName(v, id, name),
    ]),
  );
}

/** Moments of past shows are called by what happened in them, and so by whom. */
export async function forgetInMoments(db: Database, channel: number, name: string): Promise<void> {
  if (name === "" || name === nobody) return;
  const rows = (await db("show_moments as m")
    .join("records as r", "r.id", "m.record")
    .where("r.channel", channel)
    .whereRaw("instr(m.name, ?) > 0", [name])
    .select("m.record", "m.id", "m.name")) as readonly Readonly<{ record: number; id: string; name: string }>[];
  for (const { record, id, name: called } of rows)
    await db("show_moments")
      .where({ record, id })
      .update({ name: called.replace(alone(name), nobody) });
}

/** What games keep names nobody any more who wants to be forgotten. */
export async function forgetInRecords(db: Database, channel: number, key: number, id: string, name: string): Promise<void> {
  if (name === "" || name === nobody) return;
  const rows = await db("records")
    .where({ channel })
    .andWhere((q) => void q.where({ viewer: key }).orWhereRaw("instr(body, ?) > 0", [JSON.stringify(name)]))
    .select("id");
  for (const some of chunks(
    rows.map((r) => Number(r.id)),
    200,
  )) {
    const bodies = await db("records")
      .whereIn("id", [...some])
      .select("id", "body");
    for (const { id: row, body } of bodies) {
      const before = fromJson(body);
      const after = JSON.stringify(withoutName(before, id, name));
      if (after !== JSON.stringify(before)) await db("records").where({ id: row }).update({ body: after });
    }
  }
}
