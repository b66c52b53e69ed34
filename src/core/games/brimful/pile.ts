import type { Batch, BrimfulSettings, Look, Pile } from "./settings";
import { outlineOf } from "./outline";

/** More batches than these are not told apart any more: the oldest are counted by look. */
export const mostBatches = 200;
export const emptyPile: Pile = { looks: [], older: [], batches: [] };
/** Fullness is counted in millionths of what the vessel holds. */
export const wholeVessel = 1_000_000;

/** How densely bodies of each form lie (RULES section 4). */
const packing = { circle: 0.84, capsule: 0.87, box: 0.9 } as const;
/** The least a body measures, in heights of the vessel: thinner ones would slip through the engine's fingers. */
const leastBody = 0.015;

/** Width and height of the solid part of a piece, in heights of the vessel. */
export function bodyOf(look: Pick<Look, "size" | "solid" | "wide" | "body">): Readonly<{ width: number; height: number }> {
  const high = Math.max(leastBody, (look.size / 1000) * (look.solid / 100));
  if (look.body === "circle" || look.wide === 100) return { width: high, height: high };
  return look.wide < 100
    ? { width: Math.max(leastBody, (high * look.wide) / 100), height: high }
    : { width: high, height: Math.max(leastBody, (high * 100) / look.wide) };
}
export function areaOf(look: Pick<Look, "size" | "solid" | "wide" | "body">): number {
  const { width, height } = bodyOf(look);
  if (look.body === "box") return width * height;
  const [thin, long] = [Math.min(width, height), Math.max(width, height)];
  return (Math.PI / 4) * thin * thin + (long - thin) * thin;
}
/**
 * What one piece takes of the vessel, in millionths. The one place where fullness is rounded: from here on it is whole
 * numbers.
 */
export const shareOf = (look: Pick<Look, "size" | "solid" | "wide" | "body">, innerArea: number): number =>
  Math.max(1, Math.round((areaOf(look) / packing[look.body] / innerArea) * wholeVessel));

export const piecesIn = (pile: Pile): number =>
  pile.batches.reduce((n, b) => n + b.count, 0) + pile.older.reduce((n, [, count]) => n + count, 0);

/** How full the vessel is of what lies in it, in millionths. */
export function fullness(pile: Pile, settings: Pick<BrimfulSettings, "vessel">): number {
  const { area } = outlineOf(settings.vessel);
  const shares = new Map(pile.looks.map((l) => [l.n, shareOf(l, area)]));
  return (
    pile.batches.reduce((sum, b) => sum + b.count * (shares.get(b.look) ?? 0), 0) +
    pile.older.reduce((sum, [look, count]) => sum + count * (shares.get(look) ?? 0), 0)
  );
}

/** Only looks that something in it has. */
function tidy(pile: Pile): Pile {
  const used = new Set([...pile.batches.map((b) => b.look), ...pile.older.map(([look]) => look)]);
  return pile.looks.every((l) => used.has(l.n)) ? pile : { ...pile, looks: pile.looks.filter((l) => used.has(l.n)) };
}

const likeness = ({ n: _, ...look }: Look): string => JSON.stringify(look);
/** The look as the pile knows it already, or under the number it is given. */
export function withLook(pile: Pile, look: Omit<Look, "n">, next: number): Readonly<{ pile: Pile; n: number; next: number }> {
  const wanted = likeness({ ...look, n: 0 });
  const known = pile.looks.find((l) => likeness(l) === wanted);
  if (known !== undefined) return { pile, n: known.n, next };
  return { pile: { ...pile, looks: [...pile.looks, { ...look, n: next }] }, n: next, next: next + 1 };
}

export function withBatch(pile: Pile, batch: Batch): Pile {
  if (batch.count <= 0) return pile;
  const last = pile.batches[pile.batches.length - 1];
  const joined = last !== undefined && last.key === batch.key && last.look === batch.look && last.by === batch.by;
  const batches = joined ? [...pile.batches.slice(0, -1), { ...last, count: last.count + batch.count }] : [...pile.batches, batch];
  if (batches.length <= mostBatches) return { ...pile, batches };
  const [oldest, ...rest] = batches;
  if (oldest === undefined) return pile;
  const before = pile.older.find(([look]) => look === oldest.look)?.[1] ?? 0;
  const older = [...pile.older.filter(([look]) => look !== oldest.look), [oldest.look, before + oldest.count] as [number, number]].sort(
    (a, b) => a[0] - b[0],
  );
  return { ...pile, older, batches: rest };
}

/** Without so many of the newest. */
export function without(pile: Pile, count: number): Pile {
  let left = count;
  const batches = [...pile.batches];
  while (left > 0) {
    const last = batches.pop();
    if (last === undefined) break;
    if (last.count > left) batches.push({ ...last, count: last.count - left });
    left -= Math.min(left, last.count);
  }
  const older = [...pile.older];
  while (left > 0) {
    const last = older.pop();
    if (last === undefined) break;
    if (last[1] > left) older.push([last[0], last[1] - left]);
    left -= Math.min(left, last[1]);
  }
  return tidy({ ...pile, batches, older });
}

/** Without what one signal brought; null where nothing of it can be told apart. */
export function withoutSignal(pile: Pile, seq: number): Readonly<{ pile: Pile; count: number }> | null {
  const of = (b: Batch): boolean => Math.floor(b.key / 2) === seq;
  const gone = pile.batches.filter(of);
  if (gone.length === 0) return null;
  return { pile: tidy({ ...pile, batches: pile.batches.filter((b) => !of(b)) }), count: gone.reduce((n, b) => n + b.count, 0) };
}

/** What lies in it by picture, the most first: for the results. */
export function contents(pile: Pile): readonly Readonly<{ picture: string; count: number }>[] {
  const looks = new Map(pile.looks.map((l) => [l.n, l]));
  const counts = new Map<string, number>();
  const put = (n: number, count: number): void => {
    const look = looks.get(n);
    const picture = look?.face === true ? "faces" : (look?.pictures.join(" ") ?? "");
    counts.set(picture, (counts.get(picture) ?? 0) + count);
  };
  for (const [look, count] of pile.older) put(look, count);
  for (const b of pile.batches) put(b.look, b.count);
  return [...counts]
    .map(([picture, count]) => ({ picture, count }))
    .sort((a, b) => b.count - a.count || (a.picture < b.picture ? -1 : 1))
    .slice(0, 40);
}
