import type { BrimfulView } from "../../core/games/brimful/settings";
import { outwards } from "../../overlay/physics/pile-parts";
import type { Corner } from "../../overlay/physics/engine";
import { shade } from "../../overlay/colour";
import { acrossAt, type Geometry, thickness } from "./geometry";

type Brush = CanvasRenderingContext2D;
type Shape = BrimfulView["vessel"]["shape"];

/** From the middle of the foot, in pixels; `scale` is of the canvas. */
function begin(context: Brush, g: Geometry, scale: number): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.clearRect(0, 0, context.canvas.width, context.canvas.height);
  context.setTransform(scale * g.unit, 0, 0, scale * g.unit, g.footX * scale, g.footY * scale);
  context.lineJoin = context.lineCap = "round";
}
function trace(context: Brush, line: readonly Corner[], open = true): void {
  context.beginPath();
  line.forEach(([x, y], i) => (i === 0 ? context.moveTo(x, y) : context.lineTo(x, y)));
  if (!open) context.closePath();
}
const rimOf = (g: Geometry): Readonly<{ left: number; right: number; y: number; tall: number }> => {
  const left = g.wall[0]?.[0] ?? -1;
  const right = g.wall[g.wall.length - 1]?.[0] ?? 1;
  return { left, right, y: (g.outline.rimY - 1) * 10, tall: Math.max(0.35, (right - left) * 0.07) };
};
/** The rounds of the rim: the far half behind the pieces, the near one in front. */
function rimHalf(context: Brush, g: Geometry, far: boolean, line: string, width: number): void {
  const { left, right, y, tall } = rimOf(g);
  context.beginPath();
  context.ellipse((left + right) / 2, y, (right - left) / 2 + thickness / 2, tall, 0, far ? Math.PI : 0, far ? Math.PI * 2 : Math.PI);
  context.strokeStyle = line;
  context.lineWidth = width;
  context.stroke();
}

/** What stands behind the pieces: the inside of the vessel, its far rim, what hangs on it. */
export function paintBack(context: Brush, view: BrimfulView, g: Geometry, scale: number): void {
  begin(context, g, scale);
  const { looks, vessel } = view;
  const { left, right, y, tall } = rimOf(g);
  shadow(context, g);
  hangs(context, view, g);
  trace(context, g.wall, false);
  const depth = context.createLinearGradient(0, y, 0, 0);
  if (looks.clear || vessel.shape === "glass") {
    depth.addColorStop(0, "rgba(255,255,255,.10)");
    depth.addColorStop(1, "rgba(220,235,240,.20)");
  } else {
    depth.addColorStop(0, shade(looks.glaze, 0.12));
    depth.addColorStop(1, shade(looks.glaze, -0.35));
  }
  context.fillStyle = depth;
  context.globalAlpha = looks.clear ? 1 : 0.92;
  context.fill();
  context.globalAlpha = 1;
  // The far wall is seen over the near rim.
  context.beginPath();
  context.ellipse((left + right) / 2, y, (right - left) / 2, tall, 0, 0, Math.PI * 2);
  context.fillStyle = looks.clear ? "rgba(255,255,255,.14)" : shade(looks.glaze, -0.15);
  context.fill();
  rimHalf(context, g, true, looks.clear ? "rgba(240,250,252,.55)" : shade(looks.clay, -0.12), thickness * 0.62);
}

function shadow(context: Brush, g: Geometry): void {
  const foot = acrossAt(g.wall, -0.35);
  context.save();
  context.translate((foot.left + foot.right) / 2, thickness);
  context.scale(1, 0.1);
  const reach = foot.width / 2 + 1.6;
  const soft = context.createRadialGradient(0, 0, reach * 0.35, 0, 0, reach);
  soft.addColorStop(0, "rgba(16,12,10,.55)");
  soft.addColorStop(1, "rgba(16,12,10,0)");
  context.fillStyle = soft;
  context.beginPath();
  context.arc(0, 0, reach, 0, Math.PI * 2);
  context.fill();
  context.restore();
}

/** Spout, handle, lugs, the neck of a sack: behind its body. */
function hangs(context: Brush, { looks, vessel }: BrimfulView, g: Geometry): void {
  const edge = shade(looks.clay, -0.45);
  const line = (width: number, colour: string): void => {
    context.lineWidth = width;
    context.strokeStyle = colour;
    context.stroke();
  };
  const belly = acrossAt(g.wall, -5);
  switch (vessel.shape) {
    case "teapot": {
      context.beginPath();
      context.moveTo(belly.left + 0.4, -3.6);
      context.bezierCurveTo(belly.left - 2.2, -3.4, belly.left - 1.5, -7.2, belly.left - 2.5, -8.1);
      line(1.5, edge);
      line(1.1, looks.clay);
      context.beginPath();
      context.ellipse(belly.right + 0.5, -5.2, 1.9, 2.5, 0, -Math.PI * 0.45, Math.PI * 0.45);
      line(1.1, edge);
      line(0.75, looks.clay);
      return;
    }
    case "crucible": {
      const up = acrossAt(g.wall, -7.6);
      for (const [x, way] of [
        [up.left - thickness, -1],
        [up.right + thickness, 1],
      ] as const) {
        context.beginPath();
        context.ellipse(x + way * 0.25, -7.6, 0.95, 0.75, 0, 0, Math.PI * 2);
        line(0.62, edge);
        line(0.4, looks.clay);
      }
      return;
    }
    case "basket": {
      const { left, right, y } = rimOf(g);
      context.beginPath();
      context.ellipse((left + right) / 2, y, (right - left) / 2, 4.2, 0, Math.PI, Math.PI * 2);
      line(0.72, edge);
      line(0.5, shade(looks.clay, 0.08));
      context.setLineDash([0.5, 0.42]);
      line(0.5, shade(looks.clay, -0.22));
      context.setLineDash([]);
      return;
    }
    case "sack": {
      const { left, right, y } = rimOf(g);
      context.beginPath();
      for (let i = 0; i <= 8; i += 1) {
        const x = left + ((right - left) * i) / 8;
        context.lineTo(x, y - (i % 2 === 0 ? 1.05 : 0.45));
      }
      context.lineTo(right, y + 0.6);
      context.lineTo(left, y + 0.6);
      context.closePath();
      context.fillStyle = shade(looks.clay, -0.28);
      context.fill();
      return;
    }
    default:
      return;
  }
}

/** What stands before the pieces: the cut wall, the near side, the shine, the line to the brim. */
export function paintFront(context: Brush, view: BrimfulView, g: Geometry, scale: number): void {
  begin(context, g, scale);
  const { looks, vessel } = view;
  const outer = outwards(g.wall, thickness);
  nearSide(context, view, g);
  // The cut wall: clay, dark at its edges, glazed inside.
  trace(context, [...g.wall, ...[...outer].reverse()], false);
  if (looks.clear || vessel.shape === "glass") {
    context.fillStyle = "rgba(236,246,248,.34)";
    context.fill();
    context.strokeStyle = "rgba(250,254,255,.75)";
    context.lineWidth = 0.1;
    context.stroke();
  } else {
    const { left, right } = rimOf(g);
    const clay = context.createLinearGradient(left, 0, right, 0);
    clay.addColorStop(0, shade(looks.clay, 0.1));
    clay.addColorStop(1, shade(looks.clay, -0.16));
    context.fillStyle = clay;
    context.fill();
    trace(context, outer);
    context.strokeStyle = shade(looks.clay, -0.52);
    context.lineWidth = 0.13;
    context.stroke();
    trace(context, outwards(g.wall, thickness * 0.3));
    context.strokeStyle = shade(looks.glaze, 0.35);
    context.lineWidth = 0.12;
    context.stroke();
    texture(context, vessel.shape, looks.clay, g, outer);
  }
  shine(context, g, looks.clear || vessel.shape === "glass");
  rimHalf(context, g, false, looks.clear ? "rgba(250,254,255,.5)" : shade(looks.clay, 0.18), thickness * 0.34);
  if (looks.outlines) {
    trace(context, g.wall);
    context.strokeStyle = "#FFF8E8";
    context.setLineDash([0.3, 0.2]);
    context.lineWidth = 0.12;
    context.stroke();
    context.setLineDash([]);
  }
}

/** So high the near side of a vessel stands before its pieces, in units; none for what is clear. */
const nearHeight: Readonly<Record<Shape, number>> = { bowl: 1.5, glass: 0, teapot: 1.5, crucible: 1.5, basket: 2.3, sack: 2.3, own: 1.2 };
function nearSide(context: Brush, { looks, vessel }: BrimfulView, g: Geometry): void {
  const tall = looks.clear ? 0 : nearHeight[vessel.shape];
  if (tall === 0) return;
  const across = acrossAt(g.wall, -tall);
  context.save();
  trace(context, g.wall, false);
  context.clip();
  const edge = new Path2D();
  edge.ellipse((across.left + across.right) / 2, -tall, across.width / 2 + 0.2, tall * 0.42, 0, 0, Math.PI);
  edge.lineTo(across.left - 1, 2);
  edge.lineTo(across.right + 1, 2);
  edge.lineTo(across.right + 0.2, -tall);
  const clay = context.createLinearGradient(0, -tall, 0, 0);
  clay.addColorStop(0, shade(looks.clay, 0.04));
  clay.addColorStop(1, shade(looks.clay, -0.3));
  context.fillStyle = clay;
  context.fill(edge);
  context.clip(edge);
  if (vessel.shape === "basket") weave(context, looks.clay, across, tall);
  if (vessel.shape === "sack") folds(context, looks.clay, across, tall);
  context.restore();
  context.beginPath();
  context.ellipse((across.left + across.right) / 2, -tall, across.width / 2, tall * 0.42, 0, 0, Math.PI);
  context.strokeStyle = shade(looks.clay, -0.45);
  context.lineWidth = 0.16;
  context.stroke();
  context.beginPath();
  context.ellipse((across.left + across.right) / 2, -tall + 0.2, across.width / 2, tall * 0.42, 0, 0.05, Math.PI - 0.05);
  context.strokeStyle = shade(looks.glaze, 0.4);
  context.lineWidth = 0.13;
  context.stroke();
}
function weave(context: Brush, clay: string, across: Readonly<{ left: number; right: number }>, tall: number): void {
  for (let row = 0, y = -tall - 0.4; y < 1; y += 0.46, row += 1)
    for (let x = across.left - 1 + (row % 2) * 0.46; x < across.right + 1; x += 0.92) {
      context.fillStyle = shade(clay, row % 2 === 0 ? 0.14 : -0.06);
      context.beginPath();
      context.ellipse(x, y, 0.44, 0.19, 0, 0, Math.PI * 2);
      context.fill();
      context.strokeStyle = shade(clay, -0.4);
      context.lineWidth = 0.05;
      context.stroke();
    }
}
function folds(context: Brush, clay: string, across: Readonly<{ left: number; right: number }>, tall: number): void {
  context.strokeStyle = shade(clay, -0.26);
  context.lineWidth = 0.1;
  for (let i = 1; i < 6; i += 1) {
    const x = across.left + ((across.right - across.left) * i) / 6;
    context.beginPath();
    context.moveTo(x, -tall);
    context.quadraticCurveTo(x + (i - 3) * 0.25, -tall * 0.4, x - (i - 3) * 0.35, 0.5);
    context.stroke();
  }
}
function texture(context: Brush, shape: Shape, clay: string, g: Geometry, outer: readonly Corner[]): void {
  if (shape !== "basket" && shape !== "crucible") return;
  context.save();
  trace(context, [...g.wall, ...[...outer].reverse()], false);
  context.clip();
  context.fillStyle = shade(clay, -0.3);
  for (let y = -10; y < 1; y += shape === "basket" ? 0.46 : 0.8) {
    const across = acrossAt(g.wall, y);
    for (const x of [across.left - thickness, across.right]) {
      context.beginPath();
      if (shape === "basket") context.ellipse(x + thickness / 2, y, thickness * 0.6, 0.07, 0, 0, Math.PI * 2);
      else context.arc(x + thickness * 0.5, y, 0.07, 0, Math.PI * 2);
      context.fill();
    }
  }
  context.restore();
}
function shine(context: Brush, g: Geometry, clear: boolean): void {
  const { wall } = g;
  const near = wall.filter(([x, y], i) => x < 0 && y > -8.6 && y < -1.6 && i < wall.length / 2);
  if (near.length < 3) return;
  trace(
    context,
    near.map(([x, y]): Corner => [x + 0.55, y]),
  );
  context.strokeStyle = clear ? "rgba(255,255,255,.55)" : "rgba(255,255,255,.28)";
  context.lineWidth = 0.34;
  context.stroke();
}
