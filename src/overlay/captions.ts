/** What is heard, written at the foot of the picture: one line for each sound, while it plays. */
export const captionStyle = `
.izzam-captions{position:absolute;left:8%;right:8%;bottom:1.2%;display:flex;flex-direction:column;gap:.3em;align-items:center;pointer-events:none;z-index:2147483000}
.izzam-caption{padding:.22em .7em;background:#10131Bee;color:#FFF8E8;font:600 var(--izzam-caption)/1.3 "Atkinson Hyperlegible Next Variable","Noto Color Emoji",sans-serif;border-radius:.25em;max-width:100%;overflow-wrap:anywhere;text-align:center}
`;
const most = 3;
/** Long enough to be read, however short the sound is. */
const leastMs = 1_800;

export class Captions {
  private readonly layer = document.createElement("div");
  private readonly lines = new Map<string, { element: HTMLElement; timer: number }>();
  on = false;

  constructor(private readonly host: HTMLElement) {
    this.layer.className = "izzam-captions";
    host.append(this.layer);
  }
  /** A sound begins: what it is called, for how long. What was said is put in as text. */
  say(id: string, text: string, ms: number): void {
    if (!this.on || text.trim() === "") return;
    this.end([id]);
    const element = document.createElement("div");
    element.className = "izzam-caption";
    element.textContent = text;
    this.layer.style.setProperty("--izzam-caption", `${Math.max(14, this.host.clientHeight * 0.028)}px`);
    this.layer.append(element);
    const timer = window.setTimeout(() => this.end([id]), Math.max(leastMs, ms));
    this.lines.set(id, { element, timer });
    const [oldest] = this.lines.keys();
    if (this.lines.size > most && oldest !== undefined) this.end([oldest]);
  }
  end(ids: readonly string[]): void {
    for (const id of ids) {
      const line = this.lines.get(id);
      if (line === undefined) continue;
      clearTimeout(line.timer);
      line.element.remove();
      this.lines.delete(id);
    }
  }
  clear(): void {
    this.end([...this.lines.keys()]);
  }
  free(): void {
    this.clear();
    this.layer.remove();
  }
}
