import { chanceFrom, pick } from "../kernel/chance";

/**
 * A simulated crowd: what it says, second by second, reproducible from a seed. Used by the practice rig
 * and by the storm of the try-it strip.
 */
export type CrowdSettings = Readonly<{
  seed: number;
  /** Messages a second on average, 0.05–1,000. */
  perSecond: number;
  /** Share of messages that carry emotes, 0–1. */
  emoteShare: number;
  /** Share of messages that copy one said just before, 0–1. */
  copyShare: number;
  /** How often a sudden rush comes, per minute; a rush lasts 4–8 s at five times the rate. */
  rushesPerMinute: number;
  /** Follows, tips and the like a minute on average, 0–600. */
  givesPerMinute: number;
}>;
export type CrowdGift = Readonly<{ kind: "follow" | "membership" | "gift" | "tip" | "reaction" | "raid"; amount: number }>;
export type CrowdParts = Readonly<{ viewers: readonly string[]; emotes: readonly string[]; lines: readonly string[] }>;
export type CrowdLine = Readonly<{ atMs: number; viewer: string; text: string; copy: boolean; gives: CrowdGift | null }>;

/** Ready-made rooms, quiet to storm. */
export const roomNames = ["quiet", "usual", "busy", "storm"] as const;
export const roomsInWords = {
  quiet: "a quiet evening",
  usual: "a usual evening",
  busy: "a busy evening",
  storm: "a stormy evening",
} as const;
export type Room = (typeof roomNames)[number];
export const rooms: Readonly<Record<Room, Omit<CrowdSettings, "seed">>> = {
  quiet: { perSecond: 0.2, emoteShare: 0.3, copyShare: 0.05, rushesPerMinute: 0, givesPerMinute: 0.5 },
  usual: { perSecond: 2, emoteShare: 0.4, copyShare: 0.15, rushesPerMinute: 0.5, givesPerMinute: 4 },
  busy: { perSecond: 15, emoteShare: 0.55, copyShare: 0.3, rushesPerMinute: 1, givesPerMinute: 15 },
  storm: { perSecond: 150, emoteShare: 0.8, copyShare: 0.5, rushesPerMinute: 2, givesPerMinute: 60 },
};

/** Endless: take what is needed. Times count from 0 and never go back. */
export function* crowd(settings: CrowdSettings, parts: CrowdParts): Generator<CrowdLine, never> {
  const chance = chanceFrom(settings.seed);
  const said: string[] = [];
  // Gifts have a chance of their own, so that the talk of a seed stays the same with and without them.
  const gifts = chanceFrom(settings.seed ^ 0x51ab);
  let nextGiveMs = settings.givesPerMinute > 0 ? (-Math.log(1 - gifts()) * 60_000) / settings.givesPerMinute : Infinity;
  let atMs = 0;
  let rushUntilMs = -1;
  let nextRushMs = settings.rushesPerMinute > 0 ? (60_000 / settings.rushesPerMinute) * (0.5 + chance()) : Infinity;
  for (;;) {
    if (atMs >= nextRushMs) {
      rushUntilMs = atMs + 4_000 + chance() * 4_000;
      nextRushMs = atMs + (60_000 / settings.rushesPerMinute) * (0.5 + chance());
    }
    const rush = atMs < rushUntilMs;
    const rate = settings.perSecond * (rush ? 5 : 1);
    // Waiting times of independent talkers are exponential.
    atMs += (-Math.log(1 - chance()) * 1000) / rate;
    const viewer = parts.viewers[pick(chance, parts.viewers.length)] ?? "someone";
    const copy = said.length > 0 && chance() < (rush ? Math.max(0.7, settings.copyShare) : settings.copyShare);
    const text = copy ? (said[said.length - 1 - pick(chance, Math.min(3, said.length))] ?? "") : fresh(chance, settings, parts);
    if (!copy) {
      said.push(text);
      if (said.length > 8) said.shift();
    }
    while (nextGiveMs <= atMs) {
      yield {
        atMs: nextGiveMs,
        viewer: parts.viewers[pick(gifts, parts.viewers.length)] ?? "someone",
        text: "",
        copy: false,
        gives: gift(gifts),
      };
      nextGiveMs += (-Math.log(1 - gifts()) * 60_000) / settings.givesPerMinute;
    }
    yield { atMs, viewer, text, copy, gives: null };
  }
}

/** Mostly follows and small things; now and then something large. */
function gift(chance: () => number): CrowdGift {
  const r = chance();
  if (r < 0.4) return { kind: "follow", amount: 1 };
  if (r < 0.58) return { kind: "reaction", amount: 1 + pick(chance, 40) * 5 };
  if (r < 0.78) return { kind: "tip", amount: 100 + pick(chance, 30) * 50 };
  if (r < 0.92) return { kind: "membership", amount: 1 + pick(chance, 24) };
  if (r < 0.98) return { kind: "gift", amount: 1 + pick(chance, 10) };
  return { kind: "raid", amount: 5 + pick(chance, 80) };
}

function fresh(chance: () => number, settings: CrowdSettings, parts: CrowdParts): string {
  const line = parts.lines[pick(chance, parts.lines.length)] ?? "";
  if (parts.emotes.length === 0 || chance() >= settings.emoteShare) return line;
  const emote = (): string => parts.emotes[pick(chance, parts.emotes.length)] ?? "";
  const some = Array.from({ length: 1 + pick(chance, 4) }, emote).join(" ");
  return chance() < 0.5 ? some : chance() < 0.5 ? `${line} ${some}` : `${some} ${line}`;
}
