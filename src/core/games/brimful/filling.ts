import { mix32 } from "../../kernel/chance";
import type { Kept, Note, StepContext } from "../../module/module";
import type { Order } from "../../module/order";
import type { Viewer } from "../../signals/names";
import { plus } from "../../signals/rate";
import { fillTemplate, showable } from "../../words/template";
import type { Load } from "./dropping";
import { outlineOf } from "./outline";
import { contents, emptyPile, fullness, piecesIn, shareOf, wholeVessel, withBatch, withLook, without } from "./pile";
import type { BrimfulDurable, BrimfulEffect, BrimfulSettings, Look } from "./settings";

/** Pieces come in: brims, tips, what is told of them (RULES section 4). */
export type Coming = Readonly<{
  viewer: Viewer | null;
  by: string;
  atMs: number;
  seq: number;
  amount: number;
  /** Whether the picture may say who. */ shown: boolean;
}>;
export type Filled = Readonly<{
  durable: BrimfulDurable;
  effects: readonly BrimfulEffect[];
  notes: readonly Note[];
  kept: readonly Kept[];
  orders: readonly Order[];
}>;
/** So often one signal may fill it; what is more is dropped, and said. */
export const mostBrims = 20;
const mostGivers = 300;
/** A vessel that waits must have fallen below this share of its line before it can brim again. */
const againBelow = 0.8;

const percentOf = (millionths: number): number => Math.floor(millionths / (wholeVessel / 100));
/** How full it is, in percent, rounded down. */
export const percentFull = (durable: BrimfulDurable, settings: BrimfulSettings): number => percentOf(fullness(durable.pile, settings));
export const lineOf = (settings: BrimfulSettings): number => (settings.brim.at * wholeVessel) / 100;

function given(durable: BrimfulDurable, viewer: Viewer | null, pieces: number): BrimfulDurable["givers"] {
  if (viewer === null || pieces === 0) return durable.givers;
  const before = durable.givers.find(([id]) => id === viewer.id)?.[2] ?? 0;
  const others = durable.givers.filter(([id]) => id !== viewer.id);
  const next = [...others, [viewer.id, viewer.name, plus(before, pieces)] as [string, string, number]];
  if (next.length <= mostGivers) return next;
  // The least of all but the newest is forgotten, the oldest of equals.
  const least = others.reduce((a, b) => (b[2] < a[2] ? b : a));
  return next.filter((g) => g !== least);
}

/** What is kept of a filling that is over. */
function filling(durable: BrimfulDurable, settings: BrimfulSettings, how: string, coming: Coming): Kept {
  const top = [...durable.givers].sort((a, b) => b[2] - a[2]).slice(0, 10);
  return {
    kind: "filling",
    viewer: coming.viewer === null ? null : { id: coming.viewer.id, name: coming.viewer.name },
    fromMs: durable.sinceMs,
    toMs: Math.max(coming.atMs, durable.sinceMs),
    body: {
      how,
      by: coming.by,
      pieces: piecesIn(durable.pile),
      percent: percentFull(durable, settings),
      nth: durable.brims + (how === "brimmed" ? 1 : 0),
      people: durable.givers.length,
      givers: top.map(([id, name, pieces]) => ({ id, name, pieces })),
      held: contents(durable.pile),
    },
  };
}

/** All out: what it held is kept. */
export function emptied(
  durable: BrimfulDurable,
  settings: BrimfulSettings,
  how: string,
  coming: Coming,
): Readonly<{ durable: BrimfulDurable; kept: readonly Kept[] }> {
  return {
    kept: piecesIn(durable.pile) === 0 ? [] : [filling(durable, settings, how, coming)],
    durable: { ...durable, pile: emptyPile, brimmed: false, reached: false, sinceMs: coming.atMs, givers: [] },
  };
}

/** It falls on its side and spills its share, the newest first. */
export function tipped(durable: BrimfulDurable, settings: BrimfulSettings, way: -1 | 1, coming: Coming, seed: number): Filled {
  const spilled = Math.floor((piecesIn(durable.pile) * settings.vessel.spill) / 100);
  const pile = without(durable.pile, spilled);
  const next = settled({ ...durable, pile, lies: { sinceMs: coming.atMs, way } }, settings);
  return {
    durable: next,
    effects: [{ do: "tip", seed, way }],
    notes: [{ did: "brimful/tipped", count: spilled, subject: coming.by }],
    kept: [],
    orders: [{ do: "emit", what: "brimful/tipped", viewer: coming.viewer, amount: spilled, text: "" }],
  };
}

/** One that waits can brim again once it has fallen below four fifths of its line. */
export const settled = (durable: BrimfulDurable, settings: BrimfulSettings): BrimfulDurable =>
  durable.brimmed && fullness(durable.pile, settings) < lineOf(settings) * againBelow ? { ...durable, brimmed: false } : durable;

type Making = { durable: BrimfulDurable; effects: BrimfulEffect[]; notes: Note[]; kept: Kept[]; orders: Order[]; brims: number };

type Falling = Extract<BrimfulEffect, { do: "drop" }>;
function falls(into: Making, batch: Falling["batches"][number]): void {
  const last = into.effects[into.effects.length - 1];
  if (last?.do === "drop") into.effects[into.effects.length - 1] = { ...last, batches: [...last.batches, batch] };
  else into.effects.push({ do: "drop", batches: [batch], text: "" });
}

function put(into: Making, settings: BrimfulSettings, load: Load, coming: Coming): number {
  const { area } = outlineOf(settings.vessel);
  const key = coming.seq * 2 + (load.look.face ? 1 : 0);
  let left = load.count;
  while (left > 0) {
    // A filling begins with its first piece.
    const durable = piecesIn(into.durable.pile) === 0 ? { ...into.durable, sinceMs: coming.atMs } : into.durable;
    const known = withLook(durable.pile, load.look, durable.nextLook);
    const share = shareOf(load.look, area);
    const room = lineOf(settings) - fullness(known.pile, settings);
    // As many as bring it to the line; all where it does not brim now.
    const some = durable.brimmed ? left : Math.min(left, Math.max(1, Math.ceil(room / share)));
    const pile = withBatch(known.pile, { key, look: known.n, count: some, by: load.by });
    into.durable = { ...durable, pile, nextLook: known.next, givers: given(durable, coming.viewer, some) };
    left -= some;
    falls(into, { key, look: { ...load.look, n: known.n }, count: some, by: load.by });
    if (durable.brimmed || fullness(pile, settings) < lineOf(settings)) continue;
    if (into.brims >= mostBrims) {
      // It stays as full as it is; what is left of the load is said to have been left out.
      into.notes.push({ did: "brimful/left-out", count: left, facts: { brims: mostBrims } });
      into.durable = { ...into.durable, brimmed: true };
      return load.count - left;
    }
    brim(into, settings, coming);
  }
  return load.count;
}

function brim(into: Making, settings: BrimfulSettings, coming: Coming): void {
  const pieces = piecesIn(into.durable.pile);
  into.brims += 1;
  into.kept.push(...(settings.brim.then === "waits" ? [filling(into.durable, settings, "brimmed", coming)] : []));
  if (settings.brim.then === "empties") {
    const out = emptied(into.durable, settings, "brimmed", coming);
    into.kept.push(...out.kept);
    into.durable = out.durable;
  } else into.durable = { ...into.durable, brimmed: true };
  into.durable = { ...into.durable, brims: into.durable.brims + 1 };
  into.effects.push({ do: "brim", seed: mix32(coming.seq, 900 + into.brims), empties: settings.brim.then === "empties" });
  into.notes.push({ did: "brimful/brimmed", count: pieces, subject: coming.by, facts: { nth: into.durable.brims } });
  into.orders.push({
    do: "emit",
    what: "brimful/brimmed",
    viewer: coming.viewer,
    amount: pieces,
    text: String(into.durable.brims),
    effects: settings.brim.effects,
  });
}

function goal(into: Making, settings: BrimfulSettings, coming: Coming): void {
  const { goal: line } = settings;
  if (!line.on || into.durable.reached || percentFull(into.durable, settings) < line.at) return;
  into.durable = { ...into.durable, reached: true };
  into.notes.push({ did: "brimful/goal", count: line.at, subject: line.label });
  into.orders.push({ do: "emit", what: "brimful/goal", viewer: coming.viewer, amount: line.at, text: line.label });
}

/** Pieces wait while it lies on its side: nobody's gift falls beside it. */
function waits(durable: BrimfulDurable, loads: readonly Load[], coming: Coming): BrimfulDurable {
  let { waiting, nextLook } = durable;
  for (const load of loads) {
    const known = withLook(waiting, load.look, nextLook);
    nextLook = known.next;
    waiting = withBatch(known.pile, { key: coming.seq * 2 + (load.look.face ? 1 : 0), look: known.n, count: load.count, by: load.by });
  }
  return { ...durable, waiting, nextLook };
}

const nameShown = (name: string, ctx: StepContext): string => showable(name, ctx.hiddenWords, 40);

export function dropped(
  durable: BrimfulDurable,
  settings: BrimfulSettings,
  loads: readonly Load[],
  coming: Coming,
  ctx: StepContext,
): Filled {
  const pieces = loads.reduce((n, l) => n + l.count, 0);
  const clean = loads.map((l) => ({ ...l, by: nameShown(l.by, ctx) }));
  if (durable.lies !== null)
    return {
      durable: { ...waits(durable, clean, coming), givers: given(durable, coming.viewer, pieces) },
      effects: [],
      notes: [{ did: "brimful/waits", count: pieces, subject: coming.by, facts: { seq: coming.seq } }],
      kept: [],
      orders: [],
    };
  const into: Making = { durable, effects: [], notes: [], kept: [], orders: [], brims: 0 };
  let came = 0;
  for (const load of clean) came += put(into, settings, load, coming);
  goal(into, settings, coming);
  const percent = percentFull(into.durable, settings);
  into.notes.unshift({ did: "brimful/dropped", count: came, subject: coming.by, facts: { seq: coming.seq, percent } });
  into.orders.unshift({ do: "emit", what: "brimful/dropped", viewer: coming.viewer, amount: came, text: "" });
  // An operator's own hand has no name on the picture.
  const text =
    settings.passing.on && coming.shown
      ? fillTemplate(settings.passing.text, { viewer: nameShown(coming.by, ctx), amount: coming.amount, pieces: came, percent })
      : "";
  const first = into.effects[0];
  if (first?.do === "drop") into.effects[0] = { ...first, text };
  const heaviest = Math.max(0, ...clean.map((l) => l.look.mass));
  if (settings.vessel.stand !== "free" || heaviest < settings.vessel.tipMass || came === 0) return into;
  const seed = mix32(coming.seq, ctx.salt);
  const over = tipped(into.durable, settings, seed % 2 === 0 ? -1 : 1, coming, seed);
  return {
    durable: over.durable,
    effects: [...into.effects, ...over.effects],
    notes: [...into.notes, ...over.notes],
    kept: into.kept,
    orders: [...into.orders, ...over.orders],
  };
}

/** It stands again, and what waited falls. */
export function stoodUp(durable: BrimfulDurable, settings: BrimfulSettings, coming: Coming): Filled {
  const { waiting } = durable;
  const into: Making = {
    durable: { ...durable, lies: null, waiting: emptyPile },
    effects: [{ do: "upright" }],
    notes: [{ did: "brimful/upright", count: piecesIn(waiting) }],
    kept: [],
    orders: [],
    brims: 0,
  };
  const looks = new Map(waiting.looks.map((l) => [l.n, l]));
  const batches = [...waiting.older.map(([look, count]) => ({ key: 0, look, count, by: "" })), ...waiting.batches];
  for (const batch of batches) {
    const look = looks.get(batch.look);
    if (look === undefined) continue;
    const { n: _, ...made }: Look = look;
    // Whoever gave it was thanked when it came; it counts to nobody a second time.
    put(into, settings, { look: made, count: batch.count, by: batch.by }, { ...coming, seq: Math.floor(batch.key / 2), viewer: null });
  }
  goal(into, settings, coming);
  return into;
}
