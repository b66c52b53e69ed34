import type { ClipsView } from "../../core/games/clips/settings";
import { shade } from "../../overlay/colour";
import { lettering, lookNow } from "../../overlay/dress";
import { shortened } from "../../overlay/letters";
import { drawPanel, writeOn } from "../../overlay/panel";

type Now = NonNullable<ClipsView["now"]>;
type Brush = CanvasRenderingContext2D;
export type Painting = Readonly<{
  now: Now;
  looks: ClipsView["looks"];
  width: number;
  height: number;
  least: number;
  there: number;
  open: number;
  leftMs: number;
  /** Whether a film lies under the canvas, whose place is left open. */
  plays: boolean;
  atMs: number;
}>;

/** Paints it; where the film is to lie, in pixels of the canvas. */
export function paintWindow(context: Brush, p: Painting): Area {
  const { now, looks, width, height, least, there, open, atMs } = p;
  context.globalAlpha = there;
  const letter = Math.max(least, height * 0.075);
  const says = looks.name || now.line !== "" || looks.left;
  const foot = says ? letter * 1.9 : 0;
  const rod = looks.whole ? 0 : height * 0.05;
  const drop = (1 - there) * -height * 0.06;
  context.translate(0, drop);
  const inset = looks.whole ? 0 : width * 0.035;
  const area = { x: inset, y: rod, width: width - 2 * inset, height: height - rod - (looks.whole ? 0 : foot) };
  context.save();
  context.beginPath();
  context.rect(area.x, area.y, area.width, area.height);
  context.clip();
  context.fillStyle = "#10131B";
  context.fillRect(area.x, area.y, area.width, area.height);
  const film = filmPlace(now, area);
  if (open > 0.01 && p.plays) context.clearRect(film.x, film.y, film.width, film.height);
  else if (open > 0.01 && now.url === "") paintSail(context, area, atMs);
  paintCurtains(context, area, looks.curtain, open);
  context.restore();
  if (!looks.whole) {
    // The rod, with a knob at each end.
    context.fillStyle = "#B97F4A";
    context.beginPath();
    context.roundRect(0, rod * 0.1, width, rod * 0.8, rod * 0.4);
    context.fill();
    context.fillStyle = "#D8A065";
    context.fillRect(rod * 0.3, rod * 0.22, width - rod * 0.6, rod * 0.16);
  }
  const y = looks.whole ? height - foot : area.y + area.height;
  paintLeft(context, p, area.x, y, area.width);
  if (says) paintLine(context, p, { x: area.x, y, width: area.width, height: foot, letter });
  return { ...film, y: film.y + drop };
}

type Area = Readonly<{ x: number; y: number; width: number; height: number }>;
/** Where a film lies within the window: as large as it fits. */
const filmPlace = (now: Now, area: Area): Area => {
  const scale = Math.min(area.width / now.width, area.height / now.height);
  const [width, height] = [now.width * scale, now.height * scale];
  return { x: area.x + (area.width - width) / 2, y: area.y + (area.height - height) / 2, width, height };
};

/** In a preview nobody fetches films: a drawn one, a boat on a sea. */
function paintSail(
  context: Brush,
  { x, y, width, height }: Readonly<{ x: number; y: number; width: number; height: number }>,
  atMs: number,
): void {
  const t = atMs / 1000;
  context.fillStyle = "#9FB8CC";
  context.fillRect(x, y, width, height);
  context.fillStyle = "#F3D189";
  context.beginPath();
  context.arc(x + width * 0.82, y + height * 0.22, height * 0.09, 0, Math.PI * 2);
  context.fill();
  const sea = (level: number, swing: number, colour: string): void => {
    context.fillStyle = colour;
    context.beginPath();
    context.moveTo(x, y + height);
    for (let i = 0; i <= 24; i += 1) context.lineTo(x + (width * i) / 24, y + height * (level + swing * Math.sin(i * 0.9 + t * 1.6)));
    context.lineTo(x + width, y + height);
    context.fill();
  };
  sea(0.66, 0.02, "#3C628F");
  context.save();
  context.translate(x + width * (0.45 + 0.04 * Math.sin(t * 0.5)), y + height * (0.66 + 0.015 * Math.sin(t * 1.4)));
  context.rotate(0.05 * Math.sin(t * 1.4));
  const u = height * 0.2;
  context.fillStyle = "#A8352B";
  context.beginPath();
  context.moveTo(-u, 0);
  context.lineTo(u, 0);
  context.lineTo(u * 0.65, u * 0.45);
  context.lineTo(-u * 0.65, u * 0.45);
  context.fill();
  context.fillStyle = "#FBF8F2";
  context.beginPath();
  context.moveTo(u * 0.1, -u * 0.12);
  context.lineTo(u * 0.1, -u * 1.6);
  context.lineTo(u * 0.85, -u * 0.12);
  context.fill();
  context.fillStyle = "#E9D3B0";
  context.beginPath();
  context.moveTo(-u * 0.05, -u * 0.12);
  context.lineTo(-u * 0.05, -u * 1.3);
  context.lineTo(-u * 0.6, -u * 0.12);
  context.fill();
  context.restore();
  sea(0.78, 0.025, "#27476F");
}

/** Two halves in folds; open, they hang at the sides. */
function paintCurtains(
  context: Brush,
  { x, y, width, height }: Readonly<{ x: number; y: number; width: number; height: number }>,
  colour: string,
  open: number,
): void {
  const hangs = width * 0.075;
  const wide = width / 2 - (width / 2 - hangs) * open;
  const folds = 9;
  const dark = shade(colour, -0.22);
  const light = shade(colour, 0.08);
  for (const side of [0, 1] as const)
    for (let i = 0; i < folds; i += 1) {
      const w = wide / folds;
      const left = side === 0 ? x + i * w : x + width - wide + i * w;
      context.fillStyle = i % 2 === 0 ? colour : i % 4 === 1 ? dark : light;
      context.fillRect(left - 0.5, y, w + 1, height);
    }
  // Where the two meet, a seam while they are closed.
  if (open < 0.98) {
    context.fillStyle = dark;
    context.fillRect(x + wide - Math.max(1, width * 0.004), y, Math.max(1, width * 0.004), height);
    context.fillRect(x + width - wide, y, Math.max(1, width * 0.004), height);
  }
}

function paintLeft(context: Brush, { now, leftMs, height, open }: Painting, x: number, y: number, width: number): void {
  const tall = Math.max(3, height * 0.012);
  context.save();
  context.globalAlpha *= open;
  context.fillStyle = "rgba(16,19,27,.6)";
  context.fillRect(x, y - tall, width, tall);
  context.fillStyle = lookNow().accent;
  context.fillRect(x, y - tall, width * (1 - leftMs / Math.max(1, now.ms)), tall);
  context.restore();
}

function paintLine(
  context: Brush,
  { now, looks, leftMs }: Painting,
  at: Readonly<{ x: number; y: number; width: number; height: number; letter: number }>,
): void {
  const { x, y, width, height, letter } = at;
  context.save();
  context.translate(x, y);
  const alpha = context.globalAlpha;
  drawPanel(context, width, height, alpha);
  context.globalAlpha = alpha;
  const pad = letter * 0.6;
  const { letters, soft } = lookNow();
  context.textBaseline = "middle";
  const left = looks.left ? `${Math.ceil(leftMs / 1000)} s` : "";
  context.font = lettering(600, letter * 0.9);
  const leftWidth = left === "" ? 0 : context.measureText(left).width + pad;
  const named = looks.name && now.name !== "";
  const room = Math.max(10, width - 2 * pad - leftWidth);
  context.textAlign = "left";
  context.fillStyle = letters;
  context.font = lettering(700, letter);
  const whole = named ? (now.line === "" ? `${now.name} shows` : `${now.name} shows: ${now.line}`) : now.line;
  // Where the room is short the name and the title are what counts.
  const shows = named && now.line !== "" && context.measureText(whole).width > room ? `${now.name}: ${now.line}` : whole;
  writeOn(context, shortened(context, shows, room), pad, height * 0.54, letter);
  if (left !== "") {
    context.font = lettering(600, letter * 0.9);
    context.textAlign = "right";
    context.fillStyle = soft;
    writeOn(context, left, width - pad, height * 0.54, letter * 0.9);
  }
  context.restore();
}
