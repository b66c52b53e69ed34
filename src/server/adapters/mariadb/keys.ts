import { createHash } from "node:crypto";
import type { ChannelId } from "../../../core/kernel/ids";
import { cut } from "../../../core/kernel/text";
import { roles as allRoles, type Role } from "../../../core/signals/names";
import type { Database } from "./database";
import { chunks } from "./chunks";
import { text } from "./rows";

/** A person as the tables know them. Names and roles are those seen last; null where only the id is known. */
export type Named = Readonly<{ id: string; name: string | null; roles: readonly Role[] | null }>;
type Known = { key: number; name: string; roles: number };

const mostKnown = 300_000;
const atOnce = 1_000;

export const rolesBits = (roles: readonly Role[]): number => roles.reduce((bits, role) => bits | (1 << allRoles.indexOf(role)), 0);
export const rolesOf = (bits: number): readonly Role[] => allRoles.filter((_, i) => (bits & (1 << i)) !== 0);

/** What stands for an id that may come only once: the first half of SHA-256 of source and id. */
export const onceOf = (source: string, id: string): Buffer => createHash("sha256").update(`${source}\0${id}`).digest().subarray(0, 16);

/**
 * The integer keys of channels and viewers. Ids from outside stand in one table only, compared byte by
 * byte; all other tables hold keys. What was looked up once is remembered.
 */
export class Keys {
  private readonly channels = new Map<ChannelId, number>();
  private readonly viewers = new Map<number, Map<string, Known>>();

  constructor(private readonly db: Database) {}

  async channel(id: ChannelId): Promise<number | null> {
    const known = this.channels.get(id);
    if (known !== undefined) return known;
    const row = await this.db("channels").where({ id }).first("num");
    if (row === undefined) return null;
    this.channels.set(id, Number(row["num"]));
    return Number(row["num"]);
  }

  /** Fills what is remembered from rows that were read anyway. */
  remember(channel: number, rows: Iterable<Readonly<{ key: number; id: string; name: string; roles: number }>>): void {
    const map = new Map<string, Known>();
    for (const { key, id, name, roles } of rows) map.set(id, { key, name, roles });
    this.viewers.set(channel, map);
  }

  forgetAll(channel: number): void {
    this.viewers.delete(channel);
  }

  /**
   * Keys for all of them; who is new is written down, and so are new names and roles. By statements of its
   * own: a viewer who was met stays met, whatever becomes of the commit that met them.
   */
  async of(channel: number, people: Iterable<Named>): Promise<(id: string) => number> {
    let map = this.viewers.get(channel);
    if (map === undefined || map.size > mostKnown) this.viewers.set(channel, (map = new Map()));
    const all = [...people];
    const unmet = [...new Set(all.map((p) => p.id))].filter((id) => map?.has(id) !== true);
    await this.read(channel, unmet, map);
    const fresh = new Map<string, { name: string; roles: number }>();
    for (const { id, name, roles } of all) {
      const known = map.get(id);
      const now = fresh.get(id) ?? { name: known?.name ?? "", roles: known?.roles ?? 0 };
      const next = { name: name === null || name === "" ? now.name : cut(name, 80), roles: roles === null ? now.roles : rolesBits(roles) };
      if (known === undefined || next.name !== known.name || next.roles !== known.roles) fresh.set(id, next);
    }
    for (const some of chunks([...fresh], atOnce))
      await this.db.raw(
        `insert into viewers (channel, ext, name, roles) values ${some.map(() => "(?, ?, ?, ?)").join(", ")}
         on duplicate key update name = values(name), roles = values(roles)`,
        some.flatMap(([id, v]) => [channel, id, v.name, v.roles]),
      );
    await this.read(channel, [...fresh.keys()], map);
    const known = map;
    return (id) => {
      const key = known.get(id)?.key;
      if (key === undefined) throw new Error("a viewer has no key");
      return key;
    };
  }

  private async read(channel: number, ids: readonly string[], into: Map<string, Known>): Promise<void> {
    for (const some of chunks(ids, atOnce)) {
      const rows = await this.db("viewers")
        .where({ channel })
        .whereIn("ext", [...some])
        .select("id", "ext", "name", "roles");
      for (const r of rows) into.set(text(r["ext"]), { key: Number(r["id"]), name: text(r["name"]), roles: Number(r["roles"]) });
    }
  }
}
