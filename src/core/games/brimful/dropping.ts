import { findEmotes } from "../../chat/emotes";
import type { StepContext } from "../../module/module";
import { earnedBy } from "../../signals/rate";
import type { Signal } from "../../signals/signal";
import type { Viewer } from "../../signals/names";
import { amountOf, tierFor } from "../../signals/tiers";
import type { BrimfulDurable, BrimfulSettings, DropKind, DropTier, HowMany, Look } from "./settings";

/** What a signal brings: pieces of one making, and faces, each with its number. */
export type Load = Readonly<{ look: Omit<Look, "n">; count: number; by: string }>;
export type Loads = Readonly<{ loads: readonly Load[]; kept: BrimfulDurable["kept"] }>;
const mostKept = 1_000;
export const mostPictures = 12;

const textOf = (signal: Signal): string => ("text" in signal ? signal.text : "");

/** The emotes in what came with a signal, each once: of a message and of a tip's text alike. */
export function emotesOf(signal: Signal, ctx: StepContext): readonly string[] {
  const marks = signal.kind === "message" ? signal.marks : [];
  const found = findEmotes(textOf(signal), marks, ctx.emotes, { own: true, marked: true, emoji: true });
  return [...new Set(found.map((e) => e.key))].slice(0, mostPictures);
}

export const faceLook = (settings: BrimfulSettings): Omit<Look, "n"> => ({
  pictures: [],
  size: settings.face.size,
  mass: settings.face.mass,
  bounce: settings.face.bounce,
  body: "circle",
  solid: 96,
  wide: 100,
  face: true,
});
export const pieceLook = (settings: BrimfulSettings, tier: DropTier, emotes: readonly string[]): Omit<Look, "n"> => ({
  pictures: tier.emotes && emotes.length > 0 ? [...emotes] : tier.pictures,
  size: tier.size === 0 ? settings.size : tier.size,
  mass: tier.mass,
  bounce: tier.bounce,
  body: tier.body,
  solid: tier.solid,
  wide: tier.wide,
  face: false,
});

/** The tier that answers a signal; null where none does. */
export function tierOf(settings: BrimfulSettings, kind: DropKind, signal: Signal): DropTier | null {
  const amount = amountOf(signal);
  return amount === null ? null : tierFor(settings.drops[kind], amount);
}

/** What a tier drops for a signal: its numbers by section 0, what rounding left over kept for the viewer. */
export function loadsOf(settings: BrimfulSettings, kept: BrimfulDurable["kept"], tier: DropTier, signal: Signal, ctx: StepContext): Loads {
  const viewer: Viewer | null = "viewer" in signal ? signal.viewer : null;
  const amount = amountOf(signal) ?? 0;
  let rest = kept;
  const number = (blank: HowMany, part: string): number => {
    if (blank.give === 0) return 0;
    if (blank.per === 0) return Math.min(blank.most, blank.give);
    const key = viewer === null ? null : `${viewer.id} ${tier.id} ${part}`;
    const { value, remainders } = earnedBy(key, blank, amount, rest, mostKept);
    rest = remainders;
    return Math.min(blank.most, value);
  };
  const pieces = number(tier.pieces, "pieces");
  // Somebody unknown has no face.
  const faces = viewer === null ? 0 : number(tier.faces, "faces");
  const loads: Load[] = [];
  if (pieces > 0) loads.push({ look: pieceLook(settings, tier, emotesOf(signal, ctx)), count: pieces, by: "" });
  if (faces > 0 && viewer !== null) loads.push({ look: faceLook(settings), count: faces, by: viewer.name });
  return { loads, kept: rest };
}
