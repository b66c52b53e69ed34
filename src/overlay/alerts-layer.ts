import { type Alert, entrances, exits, isSeen } from "../core/alerts/alert";
import { enter, entranceMs, exit, exitMs, keyframes } from "./motion";
import { luminance } from "./colour";
import { lookNow } from "./dress";
import type { Sprite } from "../core/wire/messages";
import type { Film, FilmMaker } from "./film";
import { paintGlimpse } from "./glimpse";

type Playing = {
  alert: Alert;
  element: HTMLElement;
  picture: HTMLElement | null;
  film: Film | null;
  frame: number;
  frames: number;
  timer: number;
  stays: boolean;
};
/** How long it takes to go, in the pace of the look. */
const leavingMs = ({ look }: Alert): number => exitMs[look.exit] * lookNow().pace;
export const alertStyle = `
.izzam-alert{position:absolute;transform:translate(-50%,-50%);display:flex;flex-direction:column;align-items:center;gap:.35em;text-align:center;max-width:86%;
 font:var(--izzam-weight,700) var(--izzam-text)/1.15 var(--izzam-family,"Bricolage Grotesque Variable","Noto Color Emoji",sans-serif);color:var(--izzam-letters,#FBF8F2);
 text-shadow:var(--izzam-shadow,0 0 .12em #10131B,0 .05em .25em #10131B,0 0 .05em #10131B)}
.izzam-alert-picture{background-repeat:no-repeat;background-size:var(--cols) auto}
.izzam-alert-text{padding:.18em .6em;border-radius:var(--izzam-round,.35em);background:var(--izzam-panel,#10131Bcc);border:var(--izzam-edge,none);overflow-wrap:anywhere}
`;
/** The vocabulary's words as the look has them now; for who asked for less motion each of them is a fade. */
const motionStyle = (): string => {
  const still = matchMedia("(prefers-reduced-motion: reduce)").matches;
  return [
    ...entrances.map((name) => keyframes(`izzam-in-${name}`, (u) => enter(name, u, still))),
    ...exits.map((name) => keyframes(`izzam-out-${name}`, (u) => exit(name, u, still))),
  ].join("");
};

/** Draws alerts over the stage: ordinary elements, few at a time. What viewers wrote is put in as text. */
export class AlertsLayer {
  private readonly playing = new Map<string, Playing>();
  private readonly layer = document.createElement("div");
  private sprites = new Map<string, Sprite>();
  private readonly motion = document.createElement("style");
  private readonly sheets = new Map<string, HTMLImageElement>();

  constructor(
    private readonly host: HTMLElement,
    private readonly films: FilmMaker,
  ) {
    this.layer.style.cssText = "position:absolute;inset:0;pointer-events:none;overflow:hidden";
    this.layer.className = "izzam-alerts";
    this.motion.textContent = motionStyle();
    document.head.append(this.motion);
    host.append(this.layer);
  }

  get live(): number {
    return this.playing.size;
  }

  /** In the look that the page wears now. */
  dress(): void {
    const { family, heavier, letters, panel, outline } = lookNow();
    const alpha = Math.round(panel.alpha * 255)
      .toString(16)
      .padStart(2, "0");
    const put = (name: string, value: string): void => this.layer.style.setProperty(`--izzam-${name}`, value);
    put("family", family);
    put("weight", String(Math.max(200, Math.min(800, 700 + heavier))));
    put("letters", letters);
    put("panel", `${panel.fill}${alpha}`);
    put("round", `${(panel.round * 0.44).toFixed(2)}em`);
    put("edge", panel.edge === "double" ? ".18em double currentColor" : panel.edge === "torn" ? ".08em dashed currentColor" : "none");
    this.motion.textContent = motionStyle();
    // Dark letters on a light panel need no dark around them; those on nearly none need more.
    put(
      "shadow",
      luminance(letters) < 0.3 ? "none" : `0 0 ${(outline * 0.6).toFixed(2)}em #10131B,0 .05em .25em #10131B,0 0 .05em #10131B`,
    );
  }

  setStage(sprites: readonly Sprite[], stays: readonly Alert[]): void {
    this.sprites = new Map(sprites.map((s) => [s.key, s]));
    const wanted = new Set(stays.map((m) => m.id));
    for (const [id, p] of this.playing) if (p.stays && !wanted.has(id)) this.leave(id);
    for (const alert of stays) if (!this.playing.has(alert.id)) this.put(alert, true);
  }

  /** Whether there was something to see. */
  play(alert: Alert): boolean {
    if (!isSeen(alert)) return false;
    if (!this.playing.has(alert.id)) this.put(alert, false);
    return true;
  }

  end(ids: readonly string[]): void {
    for (const id of ids) this.leave(id);
  }

  clear(): void {
    for (const p of this.playing.values()) {
      clearTimeout(p.timer);
      clearInterval(p.frames);
      p.film?.free();
      p.element.remove();
    }
    this.playing.clear();
  }

  private put(alert: Alert, stays: boolean): void {
    const { look } = alert;
    const height = this.host.clientHeight;
    const element = document.createElement("div");
    element.className = "izzam-alert";
    const whole = look.whole === true;
    const [left, top] = whole ? [50, 50] : [look.x * 100, look.y * 100];
    element.style.cssText = `left:${left}%;top:${top}%;${whole ? "max-width:none;" : ""}animation:izzam-in-${look.entrance} ${entranceMs[look.entrance] * lookNow().pace}ms linear both`;
    element.style.setProperty("--izzam-text", `${Math.max(0.034, Math.min(0.07, look.size * 0.16)) * height}px`);
    const playing: Playing = { alert, element, picture: null, film: null, frame: 0, frames: 0, timer: 0, stays };
    const sprite = this.sprites.get(alert.picture);
    if (sprite !== undefined) {
      const shape = sprite.frameWidth / sprite.frameHeight;
      // Over all of the picture: as large as it fits.
      const tall = whole ? Math.min(height, this.host.clientWidth / shape) : look.size * height;
      const wide = tall * shape;
      const film = sprite.video === undefined ? null : this.film(sprite.video, alert, stays);
      const picture = film?.element ?? document.createElement("div");
      picture.className = "izzam-alert-picture";
      picture.style.cssText =
        film === null
          ? `width:${wide}px;height:${tall}px;background-image:url("${sprite.url}");background-size:${sprite.columns * wide}px auto`
          : `width:${wide}px;height:${tall}px;object-fit:fill`;
      playing.film = film;
      if (sprite.frames > 1 && sprite.frameMs > 0) {
        playing.frames = window.setInterval(() => {
          const frame = (playing.frame + 1) % sprite.frames;
          playing.frame = frame;
          picture.style.backgroundPosition = `-${(frame % sprite.columns) * wide}px -${Math.floor(frame / sprite.columns) * tall}px`;
        }, sprite.frameMs);
      }
      element.append(picture);
      playing.picture = picture;
      this.sheet(sprite.url);
    }
    if (alert.text !== "") {
      const text = document.createElement("div");
      text.className = "izzam-alert-text";
      text.textContent = alert.text;
      element.append(text);
    }
    this.layer.append(element);
    playing.timer = stays ? 0 : window.setTimeout(() => this.leave(alert.id), Math.max(100, alert.ms - leavingMs(alert)));
    this.playing.set(alert.id, playing);
  }

  private film(video: NonNullable<Sprite["video"]>, alert: Alert, stays: boolean): Film {
    return this.films(video.url, { fromMs: 0, volume: video.volume * alert.volume, loop: stays, flashing: video.flashing });
  }

  /** The pictures of alerts as they stand now, for who looks for flashes: a page can't read its own elements. */
  readonly paint = (context: CanvasRenderingContext2D, width: number, height: number): void => {
    const { clientWidth, clientHeight } = this.host;
    const over = this.host.getBoundingClientRect();
    for (const { alert, picture, film, frame } of this.playing.values()) {
      const sprite = this.sprites.get(alert.picture);
      const sheet = sprite === undefined ? undefined : this.sheets.get(sprite.url);
      if (film !== null && film.element.readyState >= 2) {
        const at = film.element.getBoundingClientRect();
        const [sx, sy] = [width / Math.max(1, clientWidth), height / Math.max(1, clientHeight)];
        paintGlimpse(context, film.element, [(at.x - over.x) * sx, (at.y - over.y) * sy, at.width * sx, at.height * sy]);
        continue;
      }
      if (picture === null || sprite === undefined || sheet === undefined || !sheet.complete || sheet.naturalWidth === 0) continue;
      const at = picture.getBoundingClientRect();
      const [sx, sy] = [width / Math.max(1, clientWidth), height / Math.max(1, clientHeight)];
      const { frameWidth: fw, frameHeight: fh, columns } = sprite;
      context.drawImage(
        sheet,
        (frame % columns) * fw,
        Math.floor(frame / columns) * fh,
        fw,
        fh,
        (at.x - over.x) * sx,
        (at.y - over.y) * sy,
        at.width * sx,
        at.height * sy,
      );
    }
  };
  private sheet(url: string): void {
    if (this.sheets.has(url)) return;
    // Few differ in one evening; those that do are in the browser's own memory anyway.
    if (this.sheets.size > 40) this.sheets.clear();
    const image = new Image();
    image.src = url;
    this.sheets.set(url, image);
  }
  /** Whether a picture of one moves. */
  get moves(): boolean {
    return [...this.playing.values()].some((p) => p.frames !== 0 || p.film !== null);
  }

  private leave(id: string): void {
    const p = this.playing.get(id);
    if (p === undefined) return;
    clearTimeout(p.timer);
    this.playing.delete(id);
    const ms = leavingMs(p.alert);
    p.element.style.animation = `izzam-out-${p.alert.look.exit} ${ms}ms linear both`;
    // Its sound goes with it.
    p.film?.loud(0);
    setTimeout(() => {
      clearInterval(p.frames);
      p.film?.free();
      p.element.remove();
    }, ms);
  }

  free(): void {
    this.clear();
    this.motion.remove();
    this.layer.remove();
  }
}
