/** How a fight goes: what the booth shows of a boss, from its blows. */
export type Fight = Readonly<{
  /** Health after each of the last hits and heals, oldest first. */
  points: readonly Readonly<{ atMs: number; health: number }>[];
  leader: Readonly<{ name: string; damage: number }> | null;
  /** Damage within the last ten minutes, and how many of those minutes count. */
  recent: Readonly<{ damage: number; minutes: number }>;
}>;
/** So far back damage counts for the pace of a fight. */
export const paceMinutes = 10;
/** Of so many blows the line is drawn. */
export const mostBlows = 240;

type Blow = Readonly<{ kind: string; viewer: Readonly<{ id: string; name: string }> | null; toMs: number; body: unknown }>;
type Kept = {
  points: { atMs: number; health: number }[];
  damage: Map<string, { name: string; damage: number }>;
  lately: { atMs: number; amount: number }[];
};
const number = (value: unknown): number => (typeof value === "number" && Number.isFinite(value) ? value : 0);

/** The blows of a rehearsal, which nothing stores: as much of them as the booth tells. */
export class Fights {
  private readonly games = new Map<string, Kept>();

  add(game: string, { kind, viewer, toMs, body }: Blow): void {
    if (kind !== "hit" && kind !== "heal" && kind !== "undo") return;
    const at: Kept = this.games.get(game) ?? { points: [], damage: new Map(), lately: [] };
    this.games.set(game, at);
    const told = (body ?? {}) as Readonly<{ after?: unknown; amount?: unknown }>;
    at.points.push({ atMs: toMs, health: number(told.after) });
    if (at.points.length > mostBlows * 2) at.points.splice(0, mostBlows);
    if (kind !== "hit") return;
    const amount = number(told.amount);
    at.lately.push({ atMs: toMs, amount });
    const from = at.lately.findIndex((b) => b.atMs > toMs - paceMinutes * 60_000);
    if (from > 1_000) at.lately.splice(0, from);
    if (viewer === null) return;
    const theirs = at.damage.get(viewer.id) ?? { name: viewer.name, damage: 0 };
    theirs.damage += amount;
    at.damage.set(viewer.id, theirs);
  }

  of(game: string, sinceMs: number, nowMs: number): Fight {
    const at = this.games.get(game);
    const fromMs = Math.max(sinceMs, nowMs - paceMinutes * 60_000);
    const minutes = Math.max(1, (nowMs - fromMs) / 60_000);
    if (at === undefined) return { points: [], leader: null, recent: { damage: 0, minutes } };
    let leader: Fight["leader"] = null;
    for (const one of at.damage.values()) if (leader === null || one.damage > leader.damage) leader = { ...one };
    const damage = at.lately.reduce((sum, b) => (b.atMs >= fromMs ? sum + b.amount : sum), 0);
    return { points: at.points.slice(-mostBlows), leader, recent: { damage, minutes } };
  }
}
