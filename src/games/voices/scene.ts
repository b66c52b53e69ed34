import { unitAt } from "../../core/kernel/chance";
import { type VoicesView, voicesViewSchema } from "../../core/games/voices/settings";
import { lettering, lookNow } from "../../overlay/dress";
import { shortened } from "../../overlay/letters";
import { ease } from "../../overlay/motion";
import { leastLetter, OwnSurface } from "../../overlay/own-surface";
import { drawPanel, edgeOf, writeOn } from "../../overlay/panel";
import type { Scene, SceneKit } from "../../overlay/scene";

type Now = NonNullable<VoicesView["now"]>;
type Brush = CanvasRenderingContext2D;
const fadeMs = 260;
/** In a preview, while nothing is said: something made up. */
const example: Now = { n: 0, name: "mossy_teapot", text: "the tall vase will survive, I am quite sure of it", ms: 4_000, spoken: true };

/** A text in lines of at most so many pixels, broken between words, and within a word that is longer than a line. */
export function wrapped(measure: (text: string) => number, text: string, width: number): readonly string[] {
  const lines: string[] = [];
  let line = "";
  for (const word of text.split(" ")) {
    const longer = line === "" ? word : `${line} ${word}`;
    if (measure(longer) <= width) {
      line = longer;
      continue;
    }
    if (line !== "") lines.push(line);
    line = "";
    for (const letter of word) {
      if (line !== "" && measure(line + letter) > width) {
        lines.push(line);
        line = "";
      }
      line += letter;
    }
  }
  return line === "" ? lines : [...lines, line];
}

/** What is said, at the foot of the picture: who says it, and the words, as far as they are said. */
export function voicesScene({ paint, still, preview = false, sprites }: SceneKit): Scene {
  let view: VoicesView | null = null;
  let now: (Now & { sinceMs: number }) | null = null;
  let gone: (Now & { sinceMs: number; endedMs: number }) | null = null;
  let first = true;
  let drawnKey = "";
  const surface = new OwnSurface(paint);
  return {
    get live() {
      return now === null ? 0 : 1;
    },
    shown: () => (now === null ? null : { n: now.n, name: now.name, text: now.text }),
    setView: (given) => {
      const parsed = voicesViewSchema.safeParse(given);
      if (!parsed.success) return;
      view = parsed.data;
      drawnKey = "";
      const next = view.now ?? (preview ? example : null);
      if (next?.n === now?.n && next !== null) return;
      if (now !== null) gone = { ...now, endedMs: sprites.nowMs };
      // Who joins in the middle does not know how far it is: all of it stands there.
      now = next === null || !view.on ? null : { ...next, sinceMs: first && next !== example ? -next.ms : sprites.nowMs };
      first = false;
    },
    effect: () => undefined,
    rehearse: () => undefined,
    clear: (_, atOnce) => {
      if (!atOnce) return;
      gone = null;
      drawnKey = "";
      surface.empty();
    },
    stack: (order) => surface.stack(order),
    free: () => surface.free(),
    frame: (nowMs, box) => {
      if (view === null) return false;
      const { width, height, scale, context } = surface.fit(box);
      if (gone !== null && nowMs - gone.endedMs > fadeMs) gone = null;
      const told = now ?? gone;
      const there = now !== null ? ease((nowMs - now.sinceMs) / fadeMs) : gone !== null ? 1 - ease((nowMs - gone.endedMs) / fadeMs) : 0;
      const far = told === null ? 0 : Math.max(0, Math.min(1, (nowMs - told.sinceMs) / Math.max(1, told.ms)));
      const moves =
        gone !== null || (now !== null && ((far < 1 && (view.looks.follow || (view.looks.wave && now.spoken && !still))) || there < 1));
      const key = `${told?.n ?? "-"} ${width} ${height} ${box.letters ?? 0} ${there} ${Math.round(far * 400)} ${JSON.stringify(view.looks)}`;
      if (key === drawnKey) return moves;
      drawnKey = key;
      if (context === null) return moves;
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(0, 0, width, height);
      if (told !== null && there > 0)
        paintSaid(context, told, view.looks, width, height, leastLetter(box, scale), there, far, still ? 0 : nowMs);
      return moves;
    },
  };
}

function paintSaid(
  context: Brush,
  told: Now,
  looks: VoicesView["looks"],
  width: number,
  height: number,
  least: number,
  there: number,
  far: number,
  nowMs: number,
): void {
  context.globalAlpha = there;
  if (looks.panel) drawPanel(context, width, height, there);
  const pad = Math.max(edgeOf(height) * 1.4, height * 0.1);
  const room = width - 2 * pad;
  const head = told.name === "" ? 0 : Math.max(least, height * 0.2);
  const { letters, soft, accent } = lookNow();
  context.textBaseline = "alphabetic";
  context.textAlign = "left";
  let y = pad;
  if (head > 0) {
    context.font = lettering(700, head);
    context.fillStyle = accent;
    const name = shortened(context, told.spoken ? `${told.name} says` : `${told.name} writes`, room * 0.8);
    writeOn(context, name, pad, y + head * 0.82, head);
    if (looks.wave && told.spoken)
      wave(context, pad + context.measureText(name).width + head * 0.5, y + head * 0.5, head, far < 1 ? nowMs : 0);
    y += head * 1.22;
  }
  // As large as it may be for all of it to stand there; else so small as letters may be, and it runs along.
  let size = Math.max(least, height * 0.27);
  let lines: readonly string[] = [];
  for (; ; size = Math.max(least, size * 0.9)) {
    context.font = lettering(600, size);
    lines = wrapped((t) => context.measureText(t).width, told.text, room);
    if (lines.length * size * 1.2 <= height - y - pad * 0.6 || size <= least) break;
  }
  const fit = Math.max(1, Math.floor((height - y - pad * 0.4) / (size * 1.2)));
  const total = lines.reduce((sum, l) => sum + l.length, 0);
  let saidLetters = looks.follow && told.spoken ? Math.round(total * far) : total;
  let at = 0;
  let current = 0;
  lines.forEach((line, i) => {
    if (at <= total * far) current = i;
    at += line.length;
  });
  const from = Math.max(0, Math.min(current - fit + 1, lines.length - fit));
  lines.forEach((line, i) => {
    const said = Math.max(0, Math.min(line.length, saidLetters));
    saidLetters -= line.length;
    if (i < from || i >= from + fit) return;
    y += size * 1.2;
    // To the end of a word: half a word is never bright.
    const end = said >= line.length ? line.length : Math.max(0, line.lastIndexOf(" ", said) + 1);
    const bright = line.slice(0, end);
    context.fillStyle = letters;
    writeOn(context, bright, pad, y - size * 0.3, size);
    context.globalAlpha = there * 0.62;
    context.fillStyle = soft;
    writeOn(context, line.slice(end), pad + context.measureText(bright).width, y - size * 0.3, size);
    context.globalAlpha = there;
  });
}

/** Bars that sound: from time alone, so that two pages look alike. */
function wave(context: Brush, x: number, y: number, size: number, nowMs: number): void {
  const bars = 8;
  const tick = Math.floor(nowMs / 90);
  const within = (nowMs % 90) / 90;
  for (let i = 0; i < bars; i += 1) {
    const high = nowMs === 0 ? 0.16 : unitAt(tick, i) * (1 - within) + unitAt(tick + 1, i) * within;
    const h = size * (0.14 + 0.7 * high * (i === 0 || i === bars - 1 ? 0.5 : 1));
    context.beginPath();
    context.roundRect(x + i * size * 0.22, y - h / 2, size * 0.12, h, size * 0.06);
    context.fill();
  }
}
