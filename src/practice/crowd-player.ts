import { crowd, type CrowdLine, type CrowdParts, type CrowdSettings } from "../core/lab/crowd";

const tickMs = 50;
const mostPerTick = 400;

/** Lets a simulated crowd talk in real time. A machine that falls behind lets lines go, it never bursts. */
export class CrowdPlayer {
  private timer: NodeJS.Timeout | null = null;
  said = 0;
  settings: CrowdSettings | null = null;

  constructor(
    private readonly parts: CrowdParts,
    private readonly say: (line: CrowdLine) => void,
  ) {}

  start(settings: CrowdSettings): void {
    this.stop();
    this.settings = settings;
    this.said = 0;
    const lines = crowd(settings, this.parts);
    let next = lines.next().value;
    let atMs = 0;
    let last = performance.now();
    this.timer = setInterval(() => {
      const now = performance.now();
      atMs += Math.min(now - last, 500);
      last = now;
      for (let n = 0; n < mostPerTick && next.atMs <= atMs; n += 1) {
        this.say(next);
        this.said += 1;
        next = lines.next().value;
      }
    }, tickMs);
  }

  stop(): void {
    if (this.timer !== null) clearInterval(this.timer);
    this.timer = null;
    this.settings = null;
  }
}
