import type { Alert } from "../core/alerts/alert";
import type { Sound, ToneCame } from "../core/wire/messages";

/** So many spoken texts are kept. */
const mostSpoken = 6;
const toneMs = 600;
/** What is louder than this at the outlet is a sound: the tone is at 0.08. */
const toneLevel = 0.02;
type Playing = { source: AudioBufferSourceNode; gain: GainNode };

/**
 * Plays sounds, if this page may: the browser must allow it, and outside previews the page must have the
 * channel's one voice. Sounds are fetched when the stage names them, so that they begin at once.
 */
export class SoundBoard {
  private context: AudioContext | null = null;
  private readonly buffers = new Map<string, Promise<AudioBuffer | null>>();
  private readonly playing = new Map<string, Playing>();
  private sounds = new Map<string, Sound>();
  private voice = false;
  private readonly knocking = new Set<AudioBufferSourceNode>();
  private silence: () => void = () => undefined;
  /** How many were begun since the page opened; tests count by them. */
  begun = 0;
  knocks = 0;

  setStage(sounds: readonly Sound[]): void {
    this.sounds = new Map(sounds.map((s) => [s.id, s]));
    if (sounds.length === 0) return;
    const context = this.open();
    if (context !== null) for (const sound of sounds) if (!sound.long) void this.load(context, sound);
  }

  private open(): AudioContext | null {
    if (this.context !== null) return this.context;
    try {
      this.context = new AudioContext();
    } catch {
      return null;
    }
    return this.context;
  }

  private ear: AnalyserNode | null = null;
  /** All that sounds goes through here, so that what is heard can be measured. */
  private outlet(context: AudioContext): AudioNode {
    if (this.ear === null) {
      this.ear = context.createAnalyser();
      this.ear.fftSize = 2_048;
      this.ear.connect(context.destination);
    }
    return this.ear;
  }
  /** How loud it is just now, 0 to 1: the root of the mean square of the last samples. */
  get level(): number {
    if (this.ear === null) return 0;
    const samples = new Float32Array(this.ear.fftSize);
    this.ear.getFloatTimeDomainData(samples);
    return Math.sqrt(samples.reduce((sum, s) => sum + s * s, 0) / samples.length);
  }

  /** Whether the browser lets this page make sound now. Asks again each time: it may have changed its mind. */
  state(): "ready" | "blocked" {
    const context = this.open();
    if (context === null) return "blocked";
    if (context.state === "suspended") void context.resume().catch(() => undefined);
    return context.state === "running" ? "ready" : "blocked";
  }

  setVoice(on: boolean): void {
    this.voice = on;
    for (const film of this.films) film.muted = !on;
    if (!on) this.stopAll();
  }
  get speaks(): boolean {
    return this.voice;
  }

  private load(context: AudioContext, sound: Pick<Sound, "url">): Promise<AudioBuffer | null> {
    let known = this.buffers.get(sound.url);
    if (known === undefined) {
      known = fetch(sound.url)
        .then(async (response) => (response.ok ? context.decodeAudioData(await response.arrayBuffer()) : null))
        .catch(() => null);
      this.buffers.set(sound.url, known);
      void known.then((buffer) => {
        if (buffer === null) this.buffers.delete(sound.url);
      });
      this.spoken(sound.url);
    }
    return known;
  }

  /** Of what was spoken only the last few are kept: an evening of messages must not fill the memory. */
  private readonly lately: string[] = [];
  private spoken(url: string): void {
    if (!url.startsWith("/speech/")) return;
    this.lately.push(url);
    if (this.lately.length <= mostSpoken) return;
    const old = this.lately.shift();
    if (old !== undefined) this.buffers.delete(old);
  }

  /** Whether it is heard now. */
  async play(alert: Alert): Promise<boolean> {
    // What is spoken comes with its own address, and is at the level it is to have.
    const sound = alert.speech === undefined ? this.sounds.get(alert.sound) : { url: alert.speech.url, volume: 1 };
    const context = this.open();
    if (!this.voice || sound === undefined || context === null) return false;
    const askedMs = performance.now();
    const buffer = await this.load(context, sound);
    // Never late: a sound that took too long to come is dropped, and so is one after the voice went elsewhere.
    if (buffer === null || !this.voice || performance.now() - askedMs > 1_500 || context.state !== "running") return false;
    const source = context.createBufferSource();
    const gain = context.createGain();
    gain.gain.value = sound.volume * alert.volume;
    source.buffer = buffer;
    source.connect(gain).connect(this.outlet(context));
    source.onended = () => this.playing.delete(alert.id);
    this.playing.set(alert.id, { source, gain });
    source.start();
    this.begun += 1;
    return true;
  }

  /**
   * Knocks of wood on wood, scheduled on the audio clock a second ahead, so that no busy frame makes one late. Who
   * asked may leave out those that are yet to come; so does whoever takes the voice away.
   */
  knock(knocks: readonly Readonly<{ inMs: number; strength: number }>[], hertz: number, volume: number): () => void {
    const context = this.open();
    if (!this.voice || context === null || context.state !== "running" || volume <= 0) return () => undefined;
    const buffer = woodKnock(context, hertz);
    const from = context.currentTime;
    const left = knocks.filter((k) => k.inMs >= 0);
    const ahead = (): void => {
      while (left.length > 0 && (left[0]?.inMs ?? 0) / 1000 < context.currentTime - from + 1) {
        const next = left.shift();
        if (next === undefined) break;
        const source = context.createBufferSource();
        const gain = context.createGain();
        gain.gain.value = volume * next.strength;
        source.buffer = buffer;
        source.connect(gain).connect(this.outlet(context));
        source.onended = () => this.knocking.delete(source);
        this.knocking.add(source);
        source.start(from + next.inMs / 1000);
        this.knocks += 1;
      }
      if (left.length === 0) clearInterval(timer);
    };
    const timer = window.setInterval(ahead, 300);
    ahead();
    const stop = (): void => {
      left.length = 0;
      clearInterval(timer);
      for (const source of this.knocking) source.stop();
      this.knocking.clear();
    };
    this.silence = stop;
    return stop;
  }

  private readonly films = new Set<HTMLVideoElement>();
  private readonly led = new WeakMap<HTMLVideoElement, GainNode>();
  /**
   * A moving picture's own sound, for as long as this page has the voice: it goes through the same outlet, in step with what
   * is seen. Gives back how it is let go of.
   */
  film(video: HTMLVideoElement, volume: number): Readonly<{ volume: (volume: number) => void; free: () => void }> {
    const context = this.open();
    // An element is led into the context once, for good; which is why players are used again and not made anew.
    let gain = this.led.get(video) ?? null;
    // Without a context that runs it is heard by the page's own player, or not at all where the browser says so.
    if (gain === null && context !== null && context.state === "running") {
      gain = context.createGain();
      context.createMediaElementSource(video).connect(gain).connect(this.outlet(context));
      this.led.set(video, gain);
    }
    if (gain === null) video.volume = volume;
    else {
      gain.gain.cancelScheduledValues(0);
      gain.gain.value = volume;
    }
    video.muted = !this.voice;
    this.films.add(video);
    return {
      volume: (to) => {
        if (gain === null) video.volume = to;
        else gain.gain.setTargetAtTime(to, context?.currentTime ?? 0, 0.03);
      },
      free: () => void this.films.delete(video),
    };
  }

  /**
   * A soft tone of half a second, whoever has the voice, and whether it came out: by the meter through which all goes that
   * this page makes heard. What the computer or the broadcast does with it afterwards, no page can know.
   */
  async tone(): Promise<ToneCame> {
    const context = this.open();
    if (context === null || this.state() === "blocked" || context.state !== "running") return "blocked";
    const outlet = this.outlet(context);
    const [oscillator, gain] = [context.createOscillator(), context.createGain()];
    const from = context.currentTime;
    oscillator.frequency.value = 523.25;
    gain.gain.setValueAtTime(0, from);
    gain.gain.linearRampToValueAtTime(0.12, from + 0.06);
    gain.gain.setTargetAtTime(0, from + 0.35, 0.06);
    oscillator.connect(gain).connect(outlet);
    oscillator.start(from);
    oscillator.stop(from + toneMs / 1000);
    for (const untilMs = performance.now() + toneMs + 200; performance.now() < untilMs;) {
      await new Promise((resolve) => setTimeout(resolve, 50));
      if (this.level > toneLevel) return "heard";
    }
    return "silent";
  }

  end(ids: readonly string[]): void {
    for (const id of ids) {
      const playing = this.playing.get(id);
      if (playing === undefined || this.context === null) continue;
      // A short fade: a sound cut off clicks.
      playing.gain.gain.setTargetAtTime(0, this.context.currentTime, 0.02);
      playing.source.stop(this.context.currentTime + 0.12);
      this.playing.delete(id);
    }
  }

  stopAll(): void {
    this.silence();
    this.end([...this.playing.keys()]);
  }

  free(): void {
    this.stopAll();
    void this.context?.close();
  }
}

/** Forty milliseconds of a small piece of wood: two tones that die away at once, and a breath of noise. */
function woodKnock(context: AudioContext, hertz: number): AudioBuffer {
  const buffer = context.createBuffer(1, Math.round(context.sampleRate * 0.04), context.sampleRate);
  const data = buffer.getChannelData(0);
  let noise = 22_222;
  for (let i = 0; i < data.length; i += 1) {
    const t = i / context.sampleRate;
    noise = (noise * 16_807) % 2_147_483_647;
    data[i] =
      0.6 * Math.exp(-t * 150) * Math.sin(2 * Math.PI * hertz * t) +
      0.25 * Math.exp(-t * 220) * Math.sin(2 * Math.PI * hertz * 2.76 * t) +
      0.12 * Math.exp(-t * 600) * (noise / 1_073_741_823.5 - 1);
  }
  return buffer;
}
