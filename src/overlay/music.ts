import type { Beat } from "../core/props/beat";

/** A sound that plays: since when by the page's clock, and where its beats lie. */
export type Music = Readonly<{ sinceMs: number; beat: Beat }>;
/** Shorter ones are a bell or a knock, and nothing to dance to. */
export const leastMusicMs = 3_000;
const usual: Beat = { everyMs: 520, firstMs: 0 };

/** The sounds that play on this stage, whichever page makes them heard: what is danced to is the newest that is long enough. */
export class MusicNow {
  private readonly playing = new Map<string, Music & { untilMs: number }>();

  begin(id: string, sound: Readonly<{ ms: number; beat: Beat | null }> | undefined, nowMs: number): void {
    if (sound === undefined || sound.ms < leastMusicMs) return;
    this.playing.set(id, { sinceMs: nowMs, untilMs: nowMs + sound.ms, beat: sound.beat ?? usual });
  }
  end(ids: readonly string[]): void {
    for (const id of ids) this.playing.delete(id);
  }
  clear(): void {
    this.playing.clear();
  }
  now(nowMs: number): Music | null {
    let newest: Music | null = null;
    for (const [id, music] of this.playing) {
      if (music.untilMs <= nowMs) this.playing.delete(id);
      else newest = music;
    }
    return newest;
  }
}
