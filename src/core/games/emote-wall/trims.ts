import type { Trim, WallDurable, WallSettings } from "./settings";

const dayOf = (atMs: number): string => new Date(atMs).toISOString().slice(0, 10);
const isWorn = (trim: Trim, durable: WallDurable, atMs: number): boolean => {
  switch (trim.when) {
    case "always":
      return true;
    case "dates":
      return dayOf(atMs) >= trim.from && dayOf(atMs) <= trim.to;
    case "told":
      return durable.worn.some((w) => w.id === trim.id && (w.untilMs === 0 || w.untilMs > atMs));
  }
};

/** What emotes wear now, in their order; of what is gone from the settings nothing. */
export const wornNow = (settings: WallSettings, durable: WallDurable, atMs: number): readonly string[] =>
  settings.trims.filter((t) => t.picture !== "" && isWorn(t, durable, atMs)).map((t) => t.id);

/** The n-th of the list, from 1 on, is put on for so long (0: until it is taken off), or taken off. */
export function withWorn(
  settings: WallSettings,
  durable: WallDurable,
  n: number,
  on: boolean,
  forMs: number,
  atMs: number,
): WallDurable | null {
  const trim = settings.trims[n - 1];
  if (trim === undefined) return null;
  const others = durable.worn.filter(
    (w) => w.id !== trim.id && (w.untilMs === 0 || w.untilMs > atMs) && settings.trims.some((t) => t.id === w.id),
  );
  return { ...durable, worn: on ? [...others, { id: trim.id, untilMs: forMs === 0 ? 0 : atMs + forMs }] : others };
}
