import { createHash } from "node:crypto";
import { LRUCache } from "lru-cache";
import type { Voice } from "../../core/speech/voice";
import type { Decoder } from "../decode/decoder";
import type { Speaker } from "../ports/speech";
import { Gate } from "./gate";

export type Speech = Readonly<{ url: string; ms: number }>;
type Made = Readonly<{ mime: string; bytes: Buffer; ms: number }>;

const mostKept = 300;
const mostBytes = 40 * 1024 * 1024;
const keptMs = 3_600_000;
const failuresMs = 600_000;
const atOnce = 2;
const mostWaiting = 60;

/**
 * Texts as sound: made by an engine, brought to one level, kept for a while by text and voice, so that nothing is made
 * twice. However many want one at once, it is made once; an engine that fails makes others wait no longer.
 */
export class Speeches {
  private readonly kept = new LRUCache<string, Made>({
    max: mostKept,
    maxSize: mostBytes,
    sizeCalculation: (made) => made.bytes.length,
    ttl: keptMs,
  });
  private readonly running = new Map<string, Promise<Made | null>>();
  private readonly gate = new Gate(atOnce, mostWaiting);
  /** Those that could not be made lately, and why the last could not: told as health. */
  private failures: number[] = [];
  private lastWhy = "";

  constructor(
    private readonly speaker: Speaker,
    private readonly decoder: Decoder,
  ) {}

  /** Where it is to be had and how long it is; null when it can't be made. */
  async of(text: string, voice: Voice): Promise<Speech | null> {
    const key = createHash("sha256")
      .update(JSON.stringify([text, voice.engine, voice.mark, voice.timbre, voice.pitch, voice.pace]))
      .digest("hex");
    const made = this.kept.get(key) ?? (await (this.running.get(key) ?? this.begin(key, text, voice)));
    return made === null ? null : { url: `/speech/${key}`, ms: made.ms };
  }
  /** How many could not be made in the last ten minutes, and why the last could not. */
  get unspoken(): Readonly<{ count: number; why: string }> {
    const since = performance.now() - failuresMs;
    return { count: this.failures.filter((at) => at > since).length, why: this.lastWhy };
  }

  sound(key: string): Made | null {
    return this.kept.get(key) ?? null;
  }

  private begin(key: string, text: string, voice: Voice): Promise<Made | null> {
    if (this.gate.full) return Promise.resolve(null);
    const work = this.gate
      .run(() => this.make(text, voice))
      .catch(() => null)
      .then((made) => {
        if (made !== null) this.kept.set(key, made);
        return made;
      })
      .finally(() => this.running.delete(key));
    this.running.set(key, work);
    return work;
  }
  private async make(text: string, voice: Voice): Promise<Made | null> {
    const spoken = await this.speaker.speak(text, voice);
    if (!spoken.ok) return this.not(spoken.refusal.code);
    const made = await this.decoder.prop(spoken.value, { kind: "sound", settings: { startMs: 0, endMs: 0, volume: 100 } });
    if (!made.ok) return this.not(made.refusal.code);
    const { facts, made: served } = made.value;
    return "ms" in facts ? { mime: served.mime, bytes: served.bytes, ms: Number(facts.ms) } : this.not("speech/failed");
  }
  private not(why: string): null {
    this.failures = [...this.failures.slice(-199), performance.now()];
    this.lastWhy = why;
    return null;
  }
}
