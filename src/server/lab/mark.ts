import { createHash } from "node:crypto";

/** What an answer rests on: which version of what is published. It is out of date when any of it changed. */
export const markOf = (games: readonly Readonly<{ id: string; version: number }>[]): string =>
  createHash("sha256")
    .update(JSON.stringify(games.map((g): readonly [string, number] => [g.id, g.version]).sort(([a], [b]) => (a < b ? -1 : 1))))
    .digest("hex");
