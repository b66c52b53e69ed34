import type { Note } from "../../module/module";
import type { Order } from "../../module/order";
import type { Entry } from "../../points/ledger";
import { openedMs, settle } from "./settling";
import type { Clip, ClipsDurable, ClipsSettings } from "./settings";

export type Laned = Readonly<{
  durable: ClipsDurable;
  orders: readonly Order[];
  notes: readonly Note[];
  entries: readonly Entry[];
  /** Clips that ended: what is kept of them. */
  over: readonly Readonly<{ clip: Clip; sinceMs: number; seenMs: number; skipped: boolean }>[];
}>;
/** The curtain opens before the first frame, and closes after the last. */
export const opensMs = 700;
export const closesMs = 700;
/** While overlays are hushed nothing begins; it is looked again so often. */
const hushedMs = 1_000;
const mostLately = 12;

export const nextOf = ({ queue }: Pick<ClipsDurable, "queue">): Clip | undefined => queue.find((c) => c.phase === "waits");

/** It plays from now on; shown at once, or behind its curtain. */
export function begun(settings: ClipsSettings, durable: ClipsDurable, clip: Clip, atMs: number): ClipsDurable {
  const ms = clip.facts?.ms ?? 0;
  const { shownAtOnce: shown } = settings;
  const now = {
    clip,
    sinceMs: atMs,
    untilMs: atMs + opensMs + ms + closesMs,
    shown,
    seen: false,
    seenMs: 0,
    openMs: shown ? atMs + opensMs : null,
  };
  return { ...durable, queue: durable.queue.filter((c) => c.n !== clip.n), now };
}

/** What plays ends: it is paid for or given back, and the next waits its gap. */
export function ended(settings: ClipsSettings, durable: ClipsDurable, skipped: boolean, atMs: number): Laned {
  const { now } = durable;
  if (now === null) return { durable, orders: [], notes: [], entries: [], over: [] };
  const { clip } = now;
  // What no page showed was seen by nobody, however long its curtain was open.
  const seenMs = now.seen ? openedMs(now, Math.min(atMs, now.untilMs - closesMs)) : 0;
  const settled = settle(settings, durable, clip, seenMs, skipped, atMs);
  const lately = [{ ...clip, atMs, ended: skipped ? ("skipped" as const) : ("played" as const) }, ...settled.durable.lately];
  return {
    durable: { ...settled.durable, now: null, freeMs: atMs + settings.gapMs, lately: lately.slice(0, mostLately) },
    orders: settled.orders,
    notes: !now.seen && !skipped ? [{ did: "clips/unseen", count: 1, subject: clip.viewer?.name ?? "", facts: { n: clip.n } }] : [],
    entries: settled.entries,
    over: [{ clip, sinceMs: now.sinceMs, seenMs, skipped }],
  };
}

/** Ends what is over, and begins what may begin by now. */
export function pass(settings: ClipsSettings, given: ClipsDurable, atMs: number, hushed: boolean): Laned {
  let laned: Laned = { durable: given, orders: [], notes: [], entries: [], over: [] };
  if (given.now !== null && given.now.untilMs <= atMs) laned = ended(settings, given, false, atMs);
  const { durable } = laned;
  const next = nextOf(durable);
  if (durable.now !== null || durable.held || !durable.on || !settings.byThemselves || next === undefined || durable.freeMs > atMs)
    return laned;
  if (hushed) return { ...laned, durable: { ...durable, freeMs: atMs + hushedMs } };
  return { ...laned, durable: begun(settings, durable, next, atMs), notes: [...laned.notes, plays(next)] };
}
export const plays = (clip: Clip): Note => ({
  did: "clips/plays",
  count: 1,
  subject: clip.viewer?.name ?? "",
  facts: { n: clip.n, title: clip.title },
});

/** When something ends, may begin, or is given up next; null when nothing is due. */
export function laneDue(settings: ClipsSettings, { now, queue, held, freeMs, on }: ClipsDurable): number | null {
  const times: number[] = queue.flatMap((c) => (c.phase === "making" ? [c.lateMs] : []));
  if (now !== null) times.push(now.untilMs);
  else if (on && !held && settings.byThemselves && nextOf({ queue }) !== undefined) times.push(freeMs);
  return times.length === 0 ? null : Math.min(...times);
}
