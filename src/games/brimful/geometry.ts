import type { BrimfulView } from "../../core/games/brimful/settings";
import { type Outline, outlineOf } from "../../core/games/brimful/outline";
import type { Corner } from "../../overlay/physics/engine";
import type { Ground } from "../../overlay/physics/pile-parts";
import type { Box } from "../../overlay/box";

/** A vessel of ten units in its place: how many pixels a unit is, and where the middle of its foot stands. */
export type Geometry = Readonly<{
  outline: Outline;
  /** In units: the foot at y 0, the middle of the vessel at x 0. */
  wall: readonly Corner[];
  unit: number;
  footX: number;
  footY: number;
  width: number;
  height: number;
}>;
export const thickness = 0.75;
const high = 10;
const margin = 0.05;

export const wallOf = (outline: Outline): readonly Corner[] =>
  outline.wall.map(([x, y]): Corner => [(x - outline.width / 2) * high, (y - 1) * high]);

/** What hangs on a vessel reaches so far beyond its sides, in units. */
const hangs: Partial<Record<BrimfulView["vessel"]["shape"], Readonly<{ left: number; right: number }>>> = {
  teapot: { left: 2.8, right: 2.6 },
  crucible: { left: 1.1, right: 1.1 },
};
/** How wide the tag that says how full it is is, in heights of its letters; and those, in units, where they need not be larger. */
const tagEms = 6.6;
export const tagLetters = 0.82;

export function geometryOf(
  view: Pick<BrimfulView, "vessel" | "looks" | "goal">,
  box: Pick<Box, "width" | "height">,
  leastPx = 0,
): Geometry {
  const outline = outlineOf({ shape: view.vessel.shape, points: view.vessel.points });
  const { room, lift, stands } = view.looks;
  const { width, height } = box;
  const hung = hangs[view.vessel.shape] ?? { left: 0, right: 0 };
  const units = outline.width * high + 2 * thickness;
  const byHeight = (height * (1 - room / 100 - lift / 100)) / (high + thickness);
  // Letters are never smaller than can be read, so on a small vessel the tag takes more of the room.
  const free = width * (1 - 2 * margin);
  const tagged = looksTagged(view);
  const byLeast = (free - (tagged ? leastPx * tagEms : 0)) / (units + hung.left + (tagged ? 0 : hung.right));
  const byOwn = free / (units + hung.left + Math.max(hung.right, tagged ? tagLetters * tagEms : 0));
  // Where there is no room beside it the tag hangs inwards, and the vessel is as large as it can be.
  const byWidth = byLeast < byOwn && byLeast * units < free * 0.5 ? free / (units + hung.left + hung.right) : Math.min(byLeast, byOwn);
  const unit = Math.max(0.5, Math.min(byHeight, byWidth));
  const half = (units / 2) * unit;
  const left = hung.left * unit;
  const right = Math.max(hung.right * unit, tagged ? Math.max(leastPx, tagLetters * unit) * tagEms : 0);
  const spare = Math.max(0, width - 2 * half - left - right);
  const footX =
    stands === "left"
      ? width * margin + left + half
      : stands === "right"
        ? width * (1 - margin) - hung.right * unit - half
        : Math.max(width * margin, spare / 2) + left + half;
  return { outline, wall: wallOf(outline), unit, footX, footY: height * (1 - lift / 100) - thickness * unit, width, height };
}

const looksTagged = ({ looks, goal }: Pick<BrimfulView, "looks" | "goal">): boolean => looks.number || goal !== null;

/** Percent of the usual, in units a second, a second. */
export const gravityOf = (percent: number): number => 32 * (percent / 100);
/** The same as the physics needs it. Gravity in percent of the usual. */
export function groundOf(g: Geometry, gravity: number): Ground {
  return {
    wall: g.wall,
    thickness: thickness + 0.15,
    boxes: [],
    top: -g.footY / g.unit,
    floor: (g.height - g.footY) / g.unit,
    left: -g.footX / g.unit,
    right: (g.width - g.footX) / g.unit,
    sides: false,
    gravity: gravityOf(gravity),
  };
}

/** How high it stands, in units above the foot, when it is so full: a share of what it holds. */
export function levelAt(g: Pick<Geometry, "wall" | "outline">, share: number): number {
  const { wall, outline } = g;
  const steps = 80;
  const top = (outline.rimY - 1) * high;
  const whole = outline.area * high * high;
  let area = 0;
  // From the foot upwards.
  for (let i = 0; i < steps; i += 1) {
    area += acrossAt(wall, (top * (i + 0.5)) / steps).width * (-top / steps);
    if (area >= whole * share) return (top * (i + 1)) / steps;
  }
  // Over the rim, as if the mouth went on upwards.
  const mouth = (outline.mouth.right - outline.mouth.left) * high;
  return top - (whole * share - area) / Math.max(0.1, mouth);
}

/** The vessel at one height: from where to where, and how wide in all. */
export function acrossAt(wall: readonly Corner[], y: number): Readonly<{ left: number; right: number; width: number }> {
  const xs: number[] = [];
  for (let i = 0; i + 1 < wall.length; i += 1) {
    const [ax, ay] = wall[i] ?? [0, 0];
    const [bx, by] = wall[i + 1] ?? [0, 0];
    if (ay > y !== by > y) xs.push(ax + ((bx - ax) * (y - ay)) / (by - ay));
  }
  xs.sort((a, b) => a - b);
  let width = 0;
  for (let i = 0; i + 1 < xs.length; i += 2) width += (xs[i + 1] ?? 0) - (xs[i] ?? 0);
  return { left: xs[0] ?? 0, right: xs[xs.length - 1] ?? 0, width };
}

/** Tells apart what the physics would have to be begun anew for. */
export const groundKey = (g: Geometry, { vessel }: Pick<BrimfulView, "vessel">): string =>
  JSON.stringify([vessel.shape, vessel.points, g.unit.toFixed(3), g.footX.toFixed(1), g.footY.toFixed(1), g.width.toFixed(0)]);

/** Pieces may fly so far beyond their place, in shares of it. */
const beyond = 0.4;
/** The part of the stage that pieces may be in. */
export function flownOver(box: Box): Box {
  const wide = box.width * beyond;
  const stageWidth = box.stageWidth ?? box.width;
  const x = Math.max(0, box.x - wide);
  const y = Math.max(0, box.y - box.height * beyond);
  const width = Math.min(stageWidth, box.x + box.width + wide) - x;
  return { ...box, x, width, y, height: Math.min(stageWidth * 0.5625, box.y + box.height) - y };
}

/** It falls over within the picture, where it would fall out of it: from `at`, reaching so far, in a picture so wide. */
export function wayWithin(way: -1 | 1, at: number, reach: number, width: number): -1 | 1 {
  const leaves = (to: -1 | 1): boolean => (to < 0 ? at - reach < 0 : at + reach > width);
  const other = way < 0 ? 1 : -1;
  return leaves(way) && !leaves(other) ? other : way;
}

/** A painted canvas moves with the vessel: nothing is painted anew while it rocks. */
export function turnCanvas(
  { style, clientWidth }: HTMLCanvasElement,
  g: Geometry,
  width: number,
  x: number,
  y: number,
  angle: number,
): void {
  const px = clientWidth / Math.max(1, width);
  style.transformOrigin = `${g.footX * px}px ${g.footY * px}px`;
  const moved = `translate(${(x * g.unit * px).toFixed(2)}px,${(y * g.unit * px).toFixed(2)}px) rotate(${angle.toFixed(4)}rad)`;
  style.transform = x === 0 && y === 0 && angle === 0 ? "" : moved;
}
