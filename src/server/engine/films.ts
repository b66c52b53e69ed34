import { randomUUID } from "node:crypto";
import type { ChannelId, GameId } from "../../core/kernel/ids";
import type { Result } from "../../core/kernel/refusal";
import type { FilmRequest } from "../../core/props/film";
import type { Command } from "../../core/signals/signal";
import type { EngineStore } from "../ports/engine-store";

const patienceMs = 60_000;
type Wanted = Readonly<{ game: GameId; n: number; request: FilmRequest; source: string; name: string }>;
type FilmDeps = Readonly<{
  channel: ChannelId;
  media: EngineStore["media"];
  now: () => number;
  /** Gives a game what it waits for; resolved once that is kept. */
  tell: (game: string, id: string, command: Command) => Promise<boolean>;
  onError?: ((what: string, error: unknown) => void) | undefined;
}>;

/** Short moving pictures that games wait for: ordered by them, made elsewhere, and told to them once each, also after a restart. */
export class Films {
  private looking: Promise<void> | null = null;
  private again = false;
  /** How many have been waiting for more than a minute while none of this channel was at work: told as health. */
  stalled = 0;

  constructor(private readonly deps: FilmDeps) {}

  /** Has one made; null when it is on its way, else what its game is told at once. */
  async order({ game, n, request, source, name }: Wanted): Promise<Command | null> {
    const { media, channel, now } = this.deps;
    const about = aboutOf(game, n);
    const job = { id: randomUUID(), channel, purpose: "clip" as const, about, name: name.slice(0, 80), request, urgent: true };
    const done: Result<null> | null = await media.add({ ...job, sourceSha: source === "" ? null : source }, now()).catch(() => null);
    if (done?.ok === true) return null;
    return {
      do: "not-filmed",
      n,
      code: done === null ? "store/away" : done.refusal.code,
      facts: done === null ? {} : { ...done.refusal.facts },
    };
  }
  /** Nobody wants it any more. */
  async drop(game: GameId, n: number): Promise<void> {
    const { media, channel, now, onError } = this.deps;
    await media.drop(channel, aboutOf(game, n), now()).catch((error: unknown) => onError?.("a clip is still being made", error));
  }

  /** Looks whether something has been made. One look at a time; one that is asked for meanwhile follows. */
  look(): Promise<void> {
    if (this.looking !== null) {
      this.again = true;
      return this.looking;
    }
    this.looking = this.tellAll().finally(() => {
      this.looking = null;
      if (!this.again) return;
      this.again = false;
      void this.look();
    });
    return this.looking;
  }
  private async tellAll(): Promise<void> {
    const { media, channel, now, tell, onError } = this.deps;
    try {
      const jobs = await media.untold(channel);
      this.stalled = await media.stalled(channel, now() - patienceMs);
      for (const { id, about, state, result, why } of jobs) {
        const [game, n] = ofAbout(about);
        const command: Command =
          state === "done"
            ? { do: "filmed", n, ...(result as Readonly<Record<string, unknown>>) }
            : { do: "not-filmed", n, code: why?.code ?? "video/broken", facts: { ...why?.facts } };
        if (await tell(game, `film.${id}`, command)) await media.told(id);
      }
    } catch (error) {
      onError?.("what was made is told later", error);
    }
  }
}

/** What it is for: the game and its own number. A job has a name of its own, since a game may begin to count anew. */
const aboutOf = (game: string, n: number): string => `${game}.${n}`;
const ofAbout = (about: string): readonly [game: string, n: number] => {
  const at = about.lastIndexOf(".");
  return [about.slice(0, at), Number(about.slice(at + 1))];
};
