import { lettering } from "../../overlay/dress";
import { unitAt } from "../../core/kernel/chance";
import { lettersOn, shade } from "../../overlay/colour";
import { ease, settle } from "../../overlay/motion";
import { shortened } from "../../overlay/letters";
import { type Brush, fitted, type RackNow, tagShape } from "./tag";
import type { RaffleView } from "./view";

type Area = Readonly<{ x: number; y: number; width: number; height: number }>;
/** How long each way of drawing takes until the name stands still, seconds. */
export const revealS: Readonly<Record<RaffleView["looks"]["present"], number>> = { rack: 1.6, dealt: 3, reel: 3.4, disc: 5, plain: 0 };

/** Who was drawn is decided; this is how it is come by on the picture. */
export function reveal(context: Brush, now: RackNow, area: Area, letters: number): void {
  context.save();
  context.beginPath();
  context.rect(area.x, area.y, area.width, area.height);
  context.clip();
  switch (now.view.looks.present) {
    case "dealt":
      dealt(context, now, area, letters);
      break;
    case "reel":
      reel(context, now, area, letters);
      break;
    case "disc":
      disc(context, now, area, letters);
      break;
    default:
      break;
  }
  context.restore();
}

/** Names around the winner’s, as many as are wanted; the winner’s stands at `at`. */
export function namesAround({ tags, lifted }: Pick<RackNow, "tags" | "lifted">, many: number, at: number): readonly string[] {
  const winner = lifted?.name ?? "";
  const others = tags.map((t) => t.name).filter((name) => name !== winner);
  const names = Array.from({ length: many }, (_, i) => others[(i * 7 + (lifted?.index ?? 0) * 3) % Math.max(1, others.length)] ?? winner);
  names[at] = winner;
  return names;
}

/** Stubs come down one after another, face down; one of them is turned over. */
function dealt(context: Brush, now: RackNow, area: Area, letters: number): void {
  const { lifted, view } = now;
  if (lifted === null) return;
  const many = Math.max(2, Math.min(6, now.view.people, Math.floor(area.width / (letters * 7))));
  const at = Math.floor(unitAt(lifted.index + 1, many) * many);
  const w = Math.min(area.width / many - letters * 0.4, letters * 9);
  const h = Math.min(area.height * 0.62, w * 0.62);
  for (let i = 0; i < many; i += 1) {
    const down = settle(lifted.sinceS - 0.12 * i, 0.45);
    if (lifted.sinceS < 0.12 * i) continue;
    const turn = i === at ? ease((lifted.sinceS - 1.9) / 0.6) : 0;
    const side = Math.cos(turn * Math.PI);
    context.save();
    context.translate(
      area.x + ((i + 0.5) * area.width) / many,
      area.y + area.height / 2 - (1 - down) * area.height - (i === at ? turn * h * 0.12 : 0),
    );
    context.rotate((unitAt(lifted.index + 9, i) - 0.5) * 0.16);
    context.scale(Math.max(0.03, Math.abs(side)), 1);
    context.translate(-w / 2, 0);
    const shows = side <= 0;
    tagShape(context, w, h, shows ? view.looks.tag : view.looks.wood);
    if (shows) {
      const room = w - h * 0.62;
      context.textAlign = "center";
      context.textBaseline = "middle";
      context.fillStyle = lettersOn(view.looks.tag);
      context.font = lettering(700, fitted(context, lifted.name, room, letters * 1.2, letters * 0.8));
      context.fillText(shortened(context, lifted.name, room), h * 0.55 + room / 2, 0);
    }
    context.restore();
  }
}

/** How far names have rolled after so many seconds of so many, in rows: fast at first, ever slower, to the very row. */
export const rolled = (sinceS: number, lastsS: number, rows: number): number =>
  rows * (1 - (1 - Math.max(0, Math.min(1, sinceS / lastsS))) ** 3);

/** Names roll by behind a bar, ever slower, until one stands still. */
function reel(context: Brush, now: RackNow, area: Area, letters: number): void {
  const { lifted, view } = now;
  if (lifted === null) return;
  const rows = 28;
  const names = namesAround(now, rows + 3, rows);
  const step = letters * 1.9;
  const at = rolled(lifted.sinceS, revealS.reel - 0.4, rows);
  const middle = area.y + area.height / 2;
  const w = Math.min(area.width, letters * 16);
  const x = area.x + (area.width - w) / 2;
  context.fillStyle = view.looks.wood;
  context.beginPath();
  context.roundRect(x - letters * 0.4, middle - step * 0.56, w + letters * 0.8, step * 1.12, letters * 0.3);
  context.fill();
  context.textBaseline = "middle";
  names.forEach((name, i) => {
    const y = middle + (i - at) * step;
    if (y < area.y - step || y > area.y + area.height + step) return;
    const away = Math.min(1, Math.abs(y - middle) / (area.height / 2));
    context.save();
    context.globalAlpha *= 1 - 0.75 * away;
    context.translate(x, y);
    tagShape(context, w, step * 0.8, view.looks.tag);
    context.fillStyle = lettersOn(view.looks.tag);
    context.textAlign = "left";
    context.font = lettering(700, letters);
    context.fillText(shortened(context, name, w - letters * 2.4), letters * 1.5, 0);
    context.restore();
  });
}

/** Names stand around a disc that turns, ever slower, until the winner’s is at the mark. */
function disc(context: Brush, now: RackNow, area: Area, letters: number): void {
  const { lifted, view } = now;
  if (lifted === null) return;
  const many = Math.max(4, Math.min(16, view.people));
  const at = Math.floor(unitAt(lifted.index + 3, many) * many);
  const names = namesAround(now, many, at);
  const r = Math.min(area.height * 1.5, area.width * 0.46);
  // Only the upper part of a large disc shows, so that names are large too.
  const centre = { x: area.x + area.width / 2, y: area.y + r + letters * 0.9 };
  const arc = (2 * Math.PI) / many;
  const turned = rolled(lifted.sinceS, revealS.disc - 0.6, 1) * (4 * 2 * Math.PI) - 4 * 2 * Math.PI;
  context.save();
  context.translate(centre.x, centre.y);
  context.rotate(turned - Math.PI / 2 - (at + 0.5) * arc);
  for (let i = 0; i < many; i += 1) {
    context.beginPath();
    context.moveTo(0, 0);
    context.arc(0, 0, r, i * arc, (i + 1) * arc);
    context.closePath();
    context.fillStyle = i % 2 === 0 ? view.looks.tag : shade(view.looks.tag, -0.14);
    context.fill();
    context.strokeStyle = view.looks.wood;
    context.lineWidth = Math.max(1, letters * 0.08);
    context.stroke();
    context.save();
    context.rotate((i + 0.5) * arc);
    context.textAlign = "right";
    context.textBaseline = "middle";
    context.fillStyle = lettersOn(view.looks.tag);
    context.font = lettering(700, letters * 0.9);
    context.fillText(shortened(context, names[i] ?? "", r * 0.62), r - letters * 0.5, 0);
    context.restore();
  }
  context.restore();
  context.fillStyle = view.looks.wood;
  context.beginPath();
  context.moveTo(centre.x - letters * 0.6, area.y);
  context.lineTo(centre.x + letters * 0.6, area.y);
  context.lineTo(centre.x, area.y + letters * 1.5);
  context.closePath();
  context.fill();
}
