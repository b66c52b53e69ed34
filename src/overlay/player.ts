import type { Place, Stage } from "../core/wire/messages";
import type { Box } from "./box";
import { wear } from "./dress";
import { filmMaker } from "./film";
import { FlashGuard } from "./flash-guard";
import { Guard } from "./guard";
import { SpriteBuffer } from "./sprite-buffer";
import { Governor } from "./governor";
import type { PlayerFacts, PlayerOptions } from "./player-facts";
import type { Renderer } from "./renderer";
import { rendererIn } from "./renderer-in";
import type { Scene, SceneRegistry } from "./scene";
import { Sight } from "./sight";
import { SpriteBook } from "./sprites";
import { SpriteLayer } from "./sprite-layer";
import { openDesk } from "./physics/client";
import { Surface } from "./surface";

type Standing = { id: string; kind: string; place: Place; scene: Scene };
const mostPixels = 3_840 * 2_160;

/**
 * Plays one stage in one element: keeps the canvas at the element's size, runs the scenes, draws only
 * while something moves. The overlay page and the editor's preview are both this.
 */
export class StagePlayer {
  readonly sprites = new SpriteBook();
  private readonly governor = new Governor();
  private readonly flat = new SpriteBuffer();
  private readonly still = matchMedia("(prefers-reduced-motion: reduce)").matches;
  private readonly observer: ResizeObserver;
  private standings: Standing[] = [];
  private canvas: HTMLCanvasElement;
  private renderer: Renderer;
  private asked = 0;
  private lastMs = 0;
  private drawnMs = 0;
  private hushed = false;
  private scriptMs = 0;
  private sceneMs = 0;
  private slowInstancedFrames = 0;
  private letters = 0;
  private skipped = 0;
  private readonly flashes: FlashGuard;
  private readonly sight = new Sight();

  constructor(
    private readonly host: HTMLElement,
    private readonly scenes: SceneRegistry,
    private readonly options: PlayerOptions = {},
  ) {
    this.flashes = new FlashGuard(host, options.also);
    [this.canvas, this.renderer] = this.makeRenderer(true);
    this.canvas.addEventListener("webglcontextlost", () => this.useBitmaps());
    this.observer = new ResizeObserver(() => this.fit());
    this.observer.observe(host);
    this.fit();
    this.sprites.onLoaded = () => this.wake();
    document.fonts.addEventListener("loadingdone", this.onFonts);
  }

  private readonly guard = new Guard<Scene>();
  private get kit() {
    const { knock, music, wallMs, films = filmMaker(), preview = false } = this.options;
    return {
      sprites: this.sprites,
      still: this.still,
      preview,
      desk: openDesk,
      layer: () => this.layer(),
      film: films,
      sight: () => this.sight.now(this.lastMs),
      ...(knock === undefined ? {} : { knock }),
      ...(music === undefined ? {} : { music: () => music(this.lastMs) }),
      ...(wallMs === undefined ? {} : { wallMs }),
    };
  }
  private now(): number {
    return this.options.now?.() ?? performance.now();
  }
  private readonly onFonts = (): void => {
    this.letters += 1;
    this.wake();
  };

  private frames(besides: string): readonly Box[] {
    return this.boxes(this.standings.filter((s) => s.id !== besides));
  }
  private bodies(besides: string): readonly Box[] {
    const solid = this.standings.filter((s) => s.scene.solid?.() === true);
    return this.boxes(solid.filter((s) => s.id !== besides));
  }
  private boxes(standings: readonly Standing[]): readonly Box[] {
    const { width, height } = this.canvas;
    return standings.map(({ place: p }) => ({ x: p.x * width, y: p.y * height, width: p.width * width, height: p.height * height }));
  }
  private layer(): SpriteLayer {
    const [canvas, renderer] = this.makeRenderer(this.renderer.name === "instanced");
    const layer: SpriteLayer = new SpriteLayer(
      this.host,
      canvas,
      renderer,
      () => this.makeRenderer(false),
      (x, y) => this.sight.see(layer, x, y, this.lastMs),
    );
    return layer;
  }

  private makeRenderer(tryInstanced: boolean): [HTMLCanvasElement, Renderer] {
    const made = rendererIn(this.sprites, tryInstanced);
    this.host.append(made[0]);
    return made;
  }

  private useBitmaps(): void {
    if (this.renderer.name === "bitmaps") return;
    this.canvas.remove();
    [this.canvas, this.renderer] = this.makeRenderer(false);
    this.fit();
  }

  private fit(): void {
    const { clientWidth, clientHeight } = this.host;
    const ratio = Math.min(window.devicePixelRatio || 1, Math.sqrt(mostPixels / Math.max(1, clientWidth * clientHeight)));
    this.renderer.resize(Math.max(1, Math.round(clientWidth * ratio)), Math.max(1, Math.round(clientHeight * ratio)));
    this.wake();
  }

  setStage(stage: Stage): void {
    if (wear(stage.dress, this.onFonts)) this.letters += 1;
    this.sprites.setStage(stage.sprites, stage.markedUrl, stage.facesUrl);
    const before = this.standings;
    this.standings = stage.games.flatMap(({ id, kind, place, view }): Standing[] => {
      const kept = this.standings.find((s) => s.id === id && s.kind === kind);
      const { seen } = this.options;
      const around = {
        ...(seen === undefined ? {} : { seen: (n: number) => seen(id, n) }),
        frames: () => this.frames(id),
        bodies: () => this.bodies(id),
      };
      const scene = kept?.scene ?? this.scenes[kind]?.({ ...this.kit, ...around, paint: () => new Surface(this.host) });
      if (scene === undefined) return [];
      this.guard.forgive(scene);
      this.guard.run(scene, () => scene.setView(view), undefined);
      if (kept === undefined) setTimeout(() => this.rehearse(scene), 200);
      return [{ id, kind, place, scene }];
    });
    for (const gone of before)
      if (!this.standings.some((s) => s.scene === gone.scene)) {
        gone.scene.free?.();
        this.sight.forget(gone.scene);
      }
    // Scenes with a surface of their own stand in the order of the stage.
    this.standings.forEach((s, i) => s.scene.stack?.(i));
    this.wake();
  }

  private rehearse(scene: Scene): void {
    // Somebody was quicker: then it has begun for real.
    if (scene.live > 0) return;
    const unseen = new SpriteBuffer();
    scene.rehearse({ x: 0, y: 0, width: 1_920, height: 1_080 }, unseen);
    this.renderer.rehearse(unseen);
  }

  /** What one game shows now, when only that changed. */
  view(game: string, view: unknown): void {
    const standing = this.standings.find((s) => s.id === game);
    if (standing === undefined) return;
    this.sprites.nowMs = this.now();
    this.guard.run(standing.scene, () => standing.scene.setView(view), undefined);
    this.wake();
  }

  /** What each game's scene stands at, for tests: never more than its view holds. */
  shown(): Readonly<Record<string, unknown>> {
    return Object.fromEntries(this.standings.map((s) => [s.id, s.scene.shown?.() ?? null]));
  }

  effect(game: string, effect: unknown): void {
    if (this.hushed) return;
    const nowMs = this.now();
    this.sprites.nowMs = nowMs;
    const scene = this.standings.find((s) => s.id === game)?.scene;
    if (scene !== undefined) this.guard.run(scene, () => scene.effect(effect, nowMs), undefined);
    this.wake();
  }

  /** Silent and empty, at once. */
  hush(on: boolean): void {
    this.hushed = on;
    if (on) this.clear(true);
    // what is state (how a game stands) stands there again.
    else this.wake();
  }

  clear(atOnce: boolean): void {
    for (const { scene } of this.standings) scene.clear(this.now(), atOnce);
    if (atOnce) this.renderer.clear();
    this.wake();
  }

  /** How many pictures each game has on the stage now; under hush there are none. */
  lives(): Readonly<Record<string, number>> {
    return Object.fromEntries(this.standings.map((s) => [s.id, this.hushed ? 0 : s.scene.live]));
  }

  facts(): PlayerFacts {
    const live = Object.values(this.lives()).reduce((sum, n) => sum + n, 0);
    return {
      framesPerSecond: this.asked === 0 ? 0 : this.governor.framesPerSecond,
      late: this.governor.late,
      live,
      drawing: this.renderer.name,
      scriptMs: this.scriptMs,
      sceneMs: this.sceneMs,
      lowered: this.governor.lowered,
      dimmed: this.flashes.on,
      dimmedTimes: this.flashes.times,
      flashMs: this.flashes.costMs,
    };
  }

  /** Looked at although no game moves: an alert plays. */
  private watching = false;
  watchFor(on: boolean): void {
    this.watching = on;
    if (on) this.wake();
  }

  private wake(): void {
    if (this.asked !== 0) return;
    this.governor.rest();
    this.lastMs = 0;
    this.asked = requestAnimationFrame(this.frame);
  }

  private readonly frame = (): void => {
    const nowMs = this.now();
    if (this.lastMs > 0) this.watch(nowMs - this.lastMs);
    this.lastMs = nowMs;
    const { coarse, room, every } = this.governor.now;
    this.skipped = (this.skipped + 1) % every;
    if (this.skipped !== 0 || this.isEarly()) return void (this.asked = requestAnimationFrame(this.frame));
    this.sprites.nowMs = nowMs;
    const { width, height } = this.canvas;
    this.flat.count = 0;
    let alive = false;
    for (const { place, scene } of this.hushed ? [] : this.standings) {
      const box = {
        x: place.x * width,
        y: place.y * height,
        width: place.width * width,
        height: place.height * height,
        stageWidth: width,
        opacity: place.opacity,
        letters: this.letters,
      };
      const from = this.flat.count;
      if (this.guard.run(scene, () => scene.frame(nowMs, box, this.flat, room), true)) alive = true;
      if (place.opacity < 1) this.flat.fade(from, place.opacity);
      if (this.flat.count > from) this.flat.youngest((x, y) => this.sight.see(scene, x, y, nowMs));
    }
    this.sceneMs = this.now() - nowMs;
    this.renderer.coarse = coarse;
    if (this.flat.count > 0) this.renderer.draw(this.flat);
    else this.renderer.clear();
    // Somebody else may have something on the picture, or it is dimmed still.
    if (this.flashes.look() || this.watching) alive = true;
    this.scriptMs = this.now() - nowMs;
    this.asked = alive ? requestAnimationFrame(this.frame) : 0;
  };

  /** By the real clock: that of a rehearsal may stand. A frame comes a little sooner or later than it should. */
  private isEarly(): boolean {
    const { mostFrames } = this.options;
    const atMs = performance.now();
    if (mostFrames !== undefined && atMs - this.drawnMs < 1_000 / mostFrames - 4) return true;
    this.drawnMs = atMs;
    return false;
  }

  private watch(sinceLastMs: number): void {
    this.governor.frame(sinceLastMs);
    if (this.renderer.name !== "instanced" || this.flat.count < 20) return;
    // A card that does worse than a slow processor would: a whole second of frames under 20 a second.
    this.slowInstancedFrames = sinceLastMs > 50 && sinceLastMs < 1_000 ? this.slowInstancedFrames + 1 : 0;
    if (this.slowInstancedFrames >= 20) this.useBitmaps();
  }

  free(): void {
    document.fonts.removeEventListener("loadingdone", this.onFonts);
    this.observer.disconnect();
    for (const { scene } of this.standings) scene.free?.();
    if (this.asked !== 0) cancelAnimationFrame(this.asked);
    this.flashes.free();
    this.renderer.free();
    this.canvas.remove();
  }
}
