import type { Alert } from "../core/alerts/alert";
import type { Sprite } from "../core/wire/messages";

type Playing = { alert: Alert; element: HTMLElement; frames: number; timer: number; stays: boolean };
const leaveMs = 320;
export const alertStyle = `
.izzam-alert{position:absolute;transform:translate(-50%,-50%);display:flex;flex-direction:column;align-items:center;gap:.35em;text-align:center;max-width:86%;
 font:700 var(--izzam-text)/1.15 "Bricolage Grotesque Variable","Noto Color Emoji",sans-serif;color:#FBF8F2;
 text-shadow:0 0 .12em #10131B,0 .05em .25em #10131B,0 0 .05em #10131B}
.izzam-alert-picture{background-repeat:no-repeat;background-size:var(--cols) auto}
.izzam-alert-text{padding:.18em .6em;border-radius:.35em;background:#10131Bcc;overflow-wrap:anywhere}
@keyframes izzam-spring{0%{transform:translate(-50%,-50%) scale(.2);opacity:0}55%{transform:translate(-50%,-50%) scale(1.12);opacity:1}75%{transform:translate(-50%,-50%) scale(.96)}100%{transform:translate(-50%,-50%) scale(1)}}
@keyframes izzam-slide{0%{transform:translate(-160%,-50%) rotate(-6deg);opacity:0}65%{transform:translate(-46%,-50%) rotate(1.5deg);opacity:1}100%{transform:translate(-50%,-50%) rotate(0)}}
@keyframes izzam-fade{0%{opacity:0}100%{opacity:1}}
@keyframes izzam-leave{0%{opacity:1}30%{transform:translate(-50%,-50%) scale(1.05)}100%{opacity:0;transform:translate(-50%,-44%) scale(.82)}}
@media (prefers-reduced-motion:reduce){.izzam-alert{animation-name:izzam-fade!important}}
`;

/** Draws alerts over the stage: ordinary elements, few at a time. What viewers wrote is put in as text. */
export class AlertsLayer {
  private readonly playing = new Map<string, Playing>();
  private readonly layer = document.createElement("div");
  private sprites = new Map<string, Sprite>();

  constructor(private readonly host: HTMLElement) {
    this.layer.style.cssText = "position:absolute;inset:0;pointer-events:none;overflow:hidden";
    this.layer.className = "izzam-alerts";
    host.append(this.layer);
  }

  get live(): number {
    return this.playing.size;
  }

  setStage(sprites: readonly Sprite[], stays: readonly Alert[]): void {
    this.sprites = new Map(sprites.map((s) => [s.key, s]));
    const wanted = new Set(stays.map((m) => m.id));
    for (const [id, p] of this.playing) if (p.stays && !wanted.has(id)) this.leave(id);
    for (const alert of stays) if (!this.playing.has(alert.id)) this.put(alert, true);
  }

  /** Whether there was something to see. */
  play(alert: Alert): boolean {
    if (alert.picture === "" && alert.text === "") return false;
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
      p.element.remove();
    }
    this.playing.clear();
  }

  private put(alert: Alert, stays: boolean): void {
    const { look } = alert;
    const height = this.host.clientHeight;
    const element = document.createElement("div");
    element.className = "izzam-alert";
    element.style.cssText = `left:${look.x * 100}%;top:${look.y * 100}%;animation:izzam-${look.entrance} ${look.entrance === "fade" ? 260 : 520}ms both`;
    element.style.setProperty("--izzam-text", `${Math.max(0.034, Math.min(0.07, look.size * 0.16)) * height}px`);
    let frames = 0;
    const sprite = this.sprites.get(alert.picture);
    if (sprite !== undefined) {
      const picture = document.createElement("div");
      picture.className = "izzam-alert-picture";
      const tall = look.size * height;
      const wide = (tall * sprite.frameWidth) / sprite.frameHeight;
      picture.style.cssText = `width:${wide}px;height:${tall}px;background-image:url("${sprite.url}");background-size:${sprite.columns * wide}px auto`;
      if (sprite.frames > 1 && sprite.frameMs > 0) {
        let frame = 0;
        frames = window.setInterval(() => {
          frame = (frame + 1) % sprite.frames;
          picture.style.backgroundPosition = `-${(frame % sprite.columns) * wide}px -${Math.floor(frame / sprite.columns) * tall}px`;
        }, sprite.frameMs);
      }
      element.append(picture);
    }
    if (alert.text !== "") {
      const text = document.createElement("div");
      text.className = "izzam-alert-text";
      text.textContent = alert.text;
      element.append(text);
    }
    this.layer.append(element);
    const timer = stays ? 0 : window.setTimeout(() => this.leave(alert.id), Math.max(100, alert.ms - leaveMs));
    this.playing.set(alert.id, { alert, element, frames, timer, stays });
  }

  private leave(id: string): void {
    const p = this.playing.get(id);
    if (p === undefined) return;
    clearTimeout(p.timer);
    this.playing.delete(id);
    p.element.style.animation = `izzam-leave ${leaveMs}ms both`;
    setTimeout(() => {
      clearInterval(p.frames);
      p.element.remove();
    }, leaveMs);
  }

  free(): void {
    this.clear();
    this.layer.remove();
  }
}
