import { chanceFrom, mix32, shuffled } from "../../kernel/chance";
import type { Viewer } from "../../signals/names";
import { fillTemplate } from "../../words/template";
import { type Bag, type GreetingSettings, lists, type ListName } from "./settings";

const dayMs = 86_400_000;
export type Known = Readonly<{ shows: number; beforeMs: number | null }>;
export const daysAway = ({ beforeMs }: Known, atMs: number): number =>
  beforeMs === null ? 0 : Math.max(0, Math.floor((atMs - beforeMs) / dayMs));

/** The most special list that applies and has a line; null when none has. */
export function listFor(settings: GreetingSettings, viewer: Viewer, known: Known, atMs: number): ListName | null {
  const applies: Readonly<Record<ListName, boolean>> = {
    fresh: known.beforeMs === null && known.shows <= 1,
    away: known.beforeMs !== null && daysAway(known, atMs) >= settings.awayDays,
    moderator: viewer.roles.includes("moderator"),
    guest: viewer.roles.includes("guest"),
    member: viewer.roles.includes("member"),
    everybody: true,
  };
  return lists.find((name) => applies[name] && settings.lines[name].length > 0) ?? null;
}

/** The next line of a list: none comes again until all were said; then they are shuffled anew, and the last is not the next first. */
export function draw(lines: readonly string[], bag: Bag | undefined, seed: number): Readonly<{ line: string; bag: Bag }> {
  // A list that was changed begins anew.
  const kept = bag !== undefined && bag.of === lines.length ? bag : { of: lines.length, left: [], last: -1 };
  let { left } = kept;
  if (left.length === 0) {
    const fresh = shuffled(
      lines.map((_, i) => i),
      chanceFrom(mix32(seed, lines.length)),
    );
    left = fresh.length > 1 && fresh[0] === kept.last ? [...fresh.slice(1), kept.last] : fresh;
  }
  const [first = 0, ...rest] = left;
  return { line: lines[first] ?? "", bag: { of: lines.length, left: rest, last: first } };
}

export const filled = (line: string, viewer: Viewer, known: Known, atMs: number, channel: string): string =>
  fillTemplate(line, { viewer: viewer.name, shows: known.shows, days: daysAway(known, atMs), channel });
