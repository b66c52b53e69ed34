/**
 * The page's half of the one voice. It makes the sound for as long as it is told so, falls silent by itself when it is
 * not told again in time, and says each time what it does: at once when it begins, and every 600 ms while it goes on.
 */
export const sayEveryMs = 600;
/** The engine takes the voice away after 1.8 s of silence; a page that is not told so falls silent after 2 s. */
export const voiceLeaseMs = 2_000;

type Sounds = Readonly<{ readonly speaks: boolean; setVoice: (on: boolean) => void; state: () => "ready" | "blocked" }>;

export class PageVoice {
  private untilMs = 0;

  constructor(
    private readonly sounds: Sounds,
    private readonly say: () => void,
    private readonly now: () => number = () => performance.now(),
  ) {}

  /** The engine's word. */
  told(on: boolean): void {
    this.untilMs = on ? this.now() + voiceLeaseMs : 0;
    if (on === this.sounds.speaks) return;
    this.sounds.setVoice(on);
    // Not at its next turn: until it is heard to speak, it is taken for silent.
    if (on) this.sayIfReady();
  }

  /** Called every 600 ms, or later where the page was held up. */
  look(): void {
    if (!this.sounds.speaks) return;
    if (this.now() > this.untilMs) this.sounds.setVoice(false);
    else this.sayIfReady();
  }

  private sayIfReady(): void {
    if (this.sounds.state() === "ready") this.say();
  }
}
