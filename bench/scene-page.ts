import { checkProof } from "../src/core/chance/check";
import { emoteIndex } from "../src/core/chat/emotes";
import { brimful } from "../src/core/games/brimful/definition";
import { bareContext } from "../src/core/module/module";
import { bossBattle } from "../src/core/games/boss-battle/definition";
import { wheel } from "../src/core/games/wheel/definition";
import { newSegment } from "../src/core/games/wheel/settings";
import { emoteWall } from "../src/core/games/emote-wall/definition";
import { bareStage, type Sprite, wholePlace } from "../src/core/wire/messages";
import { scenes } from "../src/games/registry-scenes";
import { StagePlayer } from "../src/overlay/player";

/** Runs in the browser: the real player on the real scene, and a bare loop of drawImage beside it. */
export type SceneFigures = Readonly<{ scriptMs: number[]; sceneMs: number[]; intervalsMs: number[]; drawing: string; firstMs: number }>;
const seconds = 4;

function host(): HTMLElement {
  document.body.style.cssText = "margin:0;background:transparent;overflow:hidden";
  const div = document.createElement("div");
  div.style.cssText = "position:fixed;inset:0";
  document.body.replaceChildren(div);
  return div;
}

const frames = async (each: () => void, forS = seconds): Promise<number[]> => {
  const intervals: number[] = [];
  let last = 0;
  const from = performance.now();
  while (performance.now() - from < forS * 1000) {
    const now = await new Promise<number>((resolve) => requestAnimationFrame(resolve));
    if (last > 0) intervals.push(now - last);
    last = now;
    each();
  }
  return intervals;
};

/** The real player with the wall on it, full screen. */
function make(sprites: Sprite[]): StagePlayer {
  const player = new StagePlayer(host(), scenes);
  const view = {
    ...emoteWall.view(
      { ...emoteWall.defaults, lifeMs: 120_000, cap: 2_000, sizeShare: 0.07, motion: "ricochet" },
      { on: true, worn: [] },
      "overlay",
    ),
  };
  player.setStage(bareStage([{ id: "w", kind: "emote-wall", view }], sprites));
  // Pictures come first, as they do on an overlay that has been open for a while.
  for (const s of sprites) player.sprites.id(s.key);
  return player;
}

/** `count` emotes of twelve kinds, alive all the while, drifting and turning. */
async function scene(count: number, sprites: Sprite[]): Promise<SceneFigures> {
  const player = make(sprites);
  await new Promise((resolve) => setTimeout(resolve, 600));
  const from = performance.now();
  player.effect("w", { do: "spawn", keys: sprites.map((s) => s.key), count, seed: 7, overMs: 0, motion: null });
  const effectMs = performance.now() - from;
  let firstMs = 0;
  await frames(() => (firstMs = Math.max(firstMs, effectMs + player.facts().scriptMs)), 0.1);
  await frames(() => undefined, 6);
  const scriptMs: number[] = [];
  const sceneMs: number[] = [];
  const intervalsMs = await frames(() => {
    const facts = player.facts();
    scriptMs.push(facts.scriptMs);
    sceneMs.push(facts.sceneMs);
  });
  const { drawing } = player.facts();
  player.free();
  return { scriptMs, sceneMs, intervalsMs, drawing, firstMs };
}

/** The same number of ready bitmaps, copied to whole pixels of a canvas of the same size: nothing else. */
async function bare(count: number, sprites: Sprite[]): Promise<SceneFigures> {
  const div = host();
  const canvas = document.createElement("canvas");
  canvas.width = innerWidth;
  canvas.height = innerHeight;
  div.append(canvas);
  const pen = canvas.getContext("2d")!;
  const bitmaps: ImageBitmap[] = [];
  for (const s of sprites) {
    const sheet = await createImageBitmap(await (await fetch(s.url)).blob());
    for (let turn = 0; turn < 32; turn += 1) {
      const side = Math.round(innerHeight * 0.07 * 1.2);
      const off = new OffscreenCanvas(side, side);
      const context = off.getContext("2d")!;
      context.translate(side / 2, side / 2);
      context.rotate((turn / 32) * Math.PI * 2);
      context.drawImage(sheet, 0, 0, s.frameWidth, s.frameHeight, -side / 2.4, -side / 2.4, side / 1.2, side / 1.2);
      bitmaps.push(off.transferToImageBitmap());
    }
  }
  const scriptMs: number[] = [];
  let t = 0;
  const intervalsMs = await frames(() => {
    const from = performance.now();
    t += 1;
    pen.clearRect(0, 0, canvas.width, canvas.height);
    for (let i = 0; i < count; i += 1)
      pen.drawImage(bitmaps[(i * 7 + t) % bitmaps.length]!, ((i * 37 + t * 3) % canvas.width) | 0, ((i * 91 + t * 2) % canvas.height) | 0);
    scriptMs.push(performance.now() - from);
  });
  return { scriptMs, sceneMs: [], intervalsMs, drawing: "bare", firstMs: 0 };
}

/** Wall and boss on one stage: 400 emotes alive, and a blow every 400 ms. */
async function both(count: number, sprites: Sprite[]): Promise<SceneFigures> {
  const player = make(sprites);
  const wall = emoteWall.view(
    { ...emoteWall.defaults, lifeMs: 120_000, cap: 2_000, sizeShare: 0.07, motion: "ricochet" },
    { on: true, worn: [] },
    "overlay",
  );
  const settings = { ...bossBattle.defaults, health: 100_000 };
  const boss = bossBattle.view(settings, bossBattle.freshDurable(settings), "overlay");
  player.setStage({
    ...bareStage([], sprites),
    games: [
      { id: "w", kind: "emote-wall", place: wholePlace, view: { ...wall } },
      { id: "b", kind: "boss-battle", place: { ...wholePlace, x: 0.73, y: 0.3, width: 0.26, height: 0.68 }, view: { ...boss } },
    ],
  });
  await new Promise((resolve) => setTimeout(resolve, 600));
  player.effect("w", { do: "spawn", keys: sprites.map((s) => s.key), count, seed: 7, overMs: 0, motion: null });
  let health = settings.health;
  let seed = 0;
  const blows = setInterval(() => {
    health -= 900;
    seed += 1;
    player.effect("b", { do: "hit", amount: 900, kind: "tip", name: "mossy_teapot", seed, health, max: settings.health });
  }, 400);
  await frames(() => undefined, 4);
  const scriptMs: number[] = [];
  const sceneMs: number[] = [];
  const intervalsMs = await frames(() => {
    const facts = player.facts();
    scriptMs.push(facts.scriptMs);
    sceneMs.push(facts.sceneMs);
  });
  clearInterval(blows);
  const { drawing } = player.facts();
  player.free();
  return { scriptMs, sceneMs, intervalsMs, drawing, firstMs: 0 };
}

/** A wheel of so many segments in the middle of the picture, spun once. */
async function wheelSpins(count: number): Promise<SceneFigures> {
  const player = new StagePlayer(host(), scenes);
  const settings = {
    ...wheel.defaults,
    segments: Array.from({ length: count }, (_, i) => newSegment(`s${i}`, `Segment ${i + 1}`, i)),
  };
  const view = wheel.view(settings, wheel.freshDurable(settings), "overlay");
  const place = { ...wholePlace, x: 0.2, y: 0.02, width: 0.6, height: 0.96 };
  player.setStage({ ...bareStage([], []), games: [{ id: "p", kind: "wheel", place, view: { ...view } }] });
  await frames(() => undefined, 1);
  player.effect("p", { do: "spin", n: 1, from: 0, to: 400_000, ms: 7_000, seed: 11, by: "mossy_teapot" });
  const firstMs = player.facts().scriptMs;
  const scriptMs: number[] = [];
  const sceneMs: number[] = [];
  const intervalsMs = await frames(() => {
    const facts = player.facts();
    scriptMs.push(facts.scriptMs);
    sceneMs.push(facts.sceneMs);
  }, 6);
  player.free();
  return { scriptMs, sceneMs, intervalsMs, drawing: "wheel", firstMs };
}
/** One picture of its size, turned, and nothing else. */
async function turnedPicture(): Promise<SceneFigures> {
  const div = host();
  const canvas = document.createElement("canvas");
  const side = Math.round(innerHeight * 0.8);
  canvas.width = canvas.height = side;
  div.append(canvas);
  const off = new OffscreenCanvas(side, side);
  const brush = off.getContext("2d")!;
  brush.fillStyle = "#A8683C";
  brush.arc(side / 2, side / 2, side / 2.1, 0, 7);
  brush.fill();
  const context = canvas.getContext("2d")!;
  const scriptMs: number[] = [];
  let turned = 0;
  const intervalsMs = await frames(() => {
    const from = performance.now();
    turned += 0.02;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, side, side);
    context.translate(side / 2, side / 2);
    context.rotate(turned);
    context.drawImage(off, -side / 2, -side / 2);
    scriptMs.push(performance.now() - from);
  });
  return { scriptMs, sceneMs: [], intervalsMs, drawing: "bare", firstMs: 0 };
}

/** A proof of a whole round, fetched and followed as a viewer's browser does it. */
async function verify(url: string): Promise<Readonly<{ holds: boolean; ms: number }>> {
  const proof: unknown = await (await fetch(url)).json();
  const from = performance.now();
  const { holds } = checkProof(proof);
  return { holds, ms: performance.now() - from };
}

/** A vessel that is poured so many pieces, by its real rules, on the page's own thread and in its worker. */
function vessel() {
  const player = new StagePlayer(host(), scenes);
  const settings = { ...brimful.defaults, size: 45, cap: 1_000, brim: { at: 120, then: "waits" as const, effects: [] } };
  let durable = brimful.freshDurable(settings);
  let seq = 0;
  const view = () => ({ ...brimful.view(settings, durable, "overlay") });
  const place = { ...wholePlace, x: 0.2, y: 0, width: 0.5, height: 1 };
  player.setStage({ ...bareStage([], []), games: [{ id: "v", kind: "brimful", place, view: view() }] });
  const tell = (command: Record<string, unknown> & { do: string }): void => {
    seq += 1;
    const signal = { kind: "command" as const, gameId: "v", by: "bench", viewer: null, command, seq, atMs: seq * 1_000, id: `b${seq}` };
    const outcome = brimful.step({ settings, durable, transient: null }, signal, bareContext(emoteIndex([])));
    durable = outcome.durable;
    for (const effect of outcome.effects) player.effect("v", effect);
    player.view("v", view());
  };
  const shown = () => player.shown()["v"] as Readonly<{ pieces: number; bed: number; live: number; moves: boolean; stepMs: number }>;
  return { player, tell, shown };
}
async function pours(count: number): Promise<SceneFigures & Readonly<{ stepMs: number[]; pieces: number }>> {
  const { player, tell, shown } = vessel();
  await frames(() => undefined, 2);
  tell({ do: "drop", amount: count, what: "pieces", size: 0, mass: 5 });
  const scriptMs: number[] = [];
  const sceneMs: number[] = [];
  const stepMs: number[] = [];
  const intervalsMs = await frames(() => {
    const facts = player.facts();
    scriptMs.push(facts.scriptMs);
    sceneMs.push(facts.sceneMs);
    stepMs.push(shown().stepMs);
  }, 8);
  const { pieces, bed } = shown();
  player.free();
  return { scriptMs, sceneMs, intervalsMs, drawing: "vessel", firstMs: 0, stepMs, pieces: pieces + bed };
}
let storming: ReturnType<typeof vessel> | null = null;
/** Three hours of an evening, a gift a second, in `seconds`: drops, shakes, brims, all by the rules. */
async function storm(signals: number, seconds: number): Promise<number> {
  storming ??= vessel();
  const { tell, shown } = storming;
  const each = (seconds * 1_000) / signals;
  const from = performance.now();
  for (let i = 0; i < signals;) {
    const due = Math.min(signals, Math.floor((performance.now() - from) / each));
    for (; i < due; i += 1) tell(i % 97 === 96 ? { do: "empty" } : { do: "drop", amount: 1 + (i % 5), what: "pieces", size: 60, mass: 5 });
    await new Promise((resolve) => setTimeout(resolve, 16));
  }
  return shown().pieces + shown().bed;
}

Object.assign(window, { izzamBench: { pours, storm, scene, bare, both, make, wheelSpins, turnedPicture, verify } });
