import { lettering, lookNow } from "../../overlay/dress";
import { count, counted } from "../../core/words/sentence";
import { lettersOn } from "../../overlay/colour";
import { settle } from "../../overlay/motion";
import { shortened } from "../../overlay/letters";
import { edgeOf, paintPanel, writeOn } from "../../overlay/panel";
import { reveal, revealS } from "./reveal";
import { type Brush, fitted, type Lifted, type RackNow, tagShape } from "./tag";

/** A rack with its tags, and the one that was lifted out of it. */
export function paintRack(context: Brush, now: RackNow): void {
  const { view, width, height, least, there } = now;
  if (!paintPanel(context, width, height, there)) return;
  const pad = edgeOf(height);
  const large = Math.max(least * 1.15, height * 0.1);
  const small = Math.max(least, height * 0.075);
  const room = width - 2 * pad;
  context.textBaseline = "alphabetic";
  context.textAlign = "right";
  context.font = lettering(600, small);
  const facts =
    view.by === "number"
      ? counted(view.people, "number")
      : `${view.people === 1 ? "1 person" : `${count(view.people)} people`} · ${counted(view.tickets, "ticket")}`;
  context.fillStyle = lookNow().soft;
  writeOn(context, facts, width - pad, pad + large * 0.86, small);
  const taken = context.measureText(facts).width + pad;
  context.textAlign = "left";
  context.font = lettering(800, large);
  context.fillStyle = lookNow().letters;
  writeOn(context, shortened(context, view.title, room - taken), pad, pad + large * 0.86, large);
  const line = lineOf(now);
  let top = pad + large * 1.15;
  if (line !== "") {
    context.font = lettering(600, small);
    context.fillStyle = lookNow().soft;
    writeOn(context, shortened(context, line, room), pad, top + small * 0.9, small);
    top += small * 1.35;
  }
  const won = view.winners.filter((w) => w.state !== "passed" && w.index !== now.lifted?.index);
  const foot = won.length === 0 ? 0 : small * 1.35;
  const area = { x: pad, y: top, width: room, height: height - top - pad - foot };
  const { present } = view.looks;
  const revealing = now.lifted !== null && now.lifted.sinceS < revealS[present];
  if (revealing && present !== "rack" && now.lifted !== null) reveal(context, now, area, small);
  else rack(context, now, area, small);
  if (won.length > 0) {
    context.textAlign = "left";
    context.textBaseline = "alphabetic";
    context.font = lettering(700, small);
    context.fillStyle = lookNow().accent;
    const told = won
      .slice(-4)
      .map((w) => (w.prize === "" ? w.name : `${w.name} (${w.prize})`))
      .join(", ");
    writeOn(context, shortened(context, `Won: ${told}`, room), pad, height - pad * 0.8, small);
  }
  // The winner large stands there when the names have come to rest; a tag out of the rack rises with them.
  if (now.lifted !== null && view.looks.panel && (present === "rack" || !revealing))
    lift(context, now, now.lifted, large, present === "rack" ? now.lifted.sinceS : now.lifted.sinceS - revealS[present] + 0.4);
  context.globalAlpha = 1;
}

function lineOf({ view, clock }: RackNow): string {
  const waits = view.winners.find((w) => w.state === "waits")?.name ?? null;
  const time =
    clock < 0 ? "" : ` · ${view.phase === "open" ? "locks in " : ""}${Math.floor(clock / 60)}:${String(clock % 60).padStart(2, "0")}`;
  switch (view.phase) {
    case "open":
      return `${view.subtitle === "" ? "" : `${view.subtitle} · `}write ${view.word}${view.by === "number" ? " and a number" : ""}${time}`;
    case "shaking":
      return `write anything to shake the drum: ${count(view.shaken)} of ${count(view.shakers)}`;
    case "locked":
      if (waits !== null) return `${waits}, write in chat to claim it${time}`;
      return view.target === null ? "locked" : `the number is ${count(view.target)}`;
    case "cancelled":
      return "cancelled";
    default:
      return view.winners.length === 0 ? "" : "over";
  }
}

type Area = Readonly<{ x: number; y: number; width: number; height: number }>;
function rack(context: Brush, { tags, nowMs, shakeS, still, lifted, view }: RackNow, area: Area, letters: number): void {
  const rows = Math.max(1, Math.floor(area.height / (letters * 1.75)));
  const row = area.height / rows;
  const columns = Math.max(1, Math.floor(area.width / (letters * 8.2)));
  const w = area.width / columns;
  const sway = still || shakeS > 0.6 ? 0 : Math.exp(-5 * shakeS) * Math.sin(38 * shakeS);
  context.strokeStyle = view.looks.wood;
  context.lineWidth = Math.max(2, row * 0.13);
  for (let r = 0; r < rows; r += 1) {
    context.beginPath();
    context.moveTo(area.x - 2, area.y + r * row + row * 0.1);
    context.lineTo(area.x + area.width + 2, area.y + r * row + row * 0.1);
    context.stroke();
  }
  context.font = lettering(600, letters * 0.9);
  context.textBaseline = "middle";
  context.textAlign = "left";
  tags.slice(0, rows * columns).forEach((tag, i) => {
    // Who was drawn is out of the rack: for as long as the rack is there.
    if (view.winners.some((w) => w.name === tag.name && (lifted === null || w.index <= lifted.index))) return;
    const came = still ? 1 : settle(nowMs - tag.atMs, 700);
    context.save();
    context.translate(area.x + (i % columns) * w, area.y + Math.floor(i / columns) * row + row * 0.58 - (1 - came) * row * 0.7);
    context.rotate(((i * 37) % 7) * 0.004 - 0.012 + sway * (0.05 + ((i * 13) % 5) * 0.012));
    context.globalAlpha *= Math.max(0, Math.min(1, came));
    tagShape(context, w - letters * 0.5, row * 0.74, view.looks.tag);
    context.fillStyle = lettersOn(view.looks.tag);
    context.fillText(shortened(context, tag.name, w - letters * 1.9), letters * 1.05, letters * 0.04);
    context.restore();
  });
}
/** The drawn one: lifted out, turned, and held to the light. */
function lift(context: Brush, { width, height, least, view }: RackNow, lifted: Lifted, large: number, sinceS: number): void {
  const up = settle(sinceS, 0.7);
  const flip = Math.max(0, Math.min(1, (sinceS - 0.55) / 0.6));
  const side = Math.cos(flip * Math.PI);
  const h = Math.max(large * 2.1, height * 0.36);
  const w = Math.min(width * 0.86, h * 4.4);
  const { tag } = view.looks;
  context.save();
  context.translate(width / 2, height * 0.6 + (1 - up) * height * 0.2);
  context.rotate(-0.035 * up);
  context.scale((0.5 + 0.5 * up) * Math.max(0.04, Math.abs(side)), 0.5 + 0.5 * up);
  context.shadowColor = "rgba(16,19,27,.6)";
  context.shadowBlur = h * 0.2;
  context.shadowOffsetY = h * 0.08;
  context.translate(-w / 2, 0);
  tagShape(context, w, h, tag);
  context.shadowColor = "transparent";
  // The name stands on the side that is turned to us last.
  if (side <= 0) {
    const room = w - h * 0.85;
    context.textAlign = "left";
    context.textBaseline = "middle";
    context.fillStyle = lettersOn(tag);
    const size = fitted(context, lifted.name, room, h * 0.42, least);
    context.font = lettering(800, size);
    context.fillText(shortened(context, lifted.name, room), h * 0.62, lifted.prize === "" ? 0 : -h * 0.12);
    if (lifted.prize !== "") {
      context.font = lettering(600, Math.max(least, h * 0.2));
      context.globalAlpha *= 0.78;
      context.fillText(shortened(context, lifted.prize, room), h * 0.63, h * 0.27);
    }
  }
  context.restore();
}
