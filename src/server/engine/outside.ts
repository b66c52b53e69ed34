import type { ChannelId } from "../../core/kernel/ids";
import type { Result } from "../../core/kernel/refusal";
import type { StudioFacts } from "../../core/module/module";
import type { Command } from "../../core/signals/signal";
import type { EngineStore } from "../ports/engine-store";
import type { Face } from "../ports/profiles";
import { Films } from "./films";
import type { Modules, Running } from "./modules";

type Told = Readonly<{ kind: "command"; atMs: number; id: string; gameId: Running["id"]; by: string; viewer: null; command: Command }>;
type OutsideDeps = Readonly<{
  channel: ChannelId;
  media: EngineStore["media"];
  modules: Modules;
  now: () => number;
  /** Gives a module a command of ours; false when it could not be kept. */
  take: (signal: Told, to: Running) => Promise<boolean>;
  lookUp?: ((name: string) => Promise<Face | null>) | undefined;
  studio?: ((scene: string) => Promise<Result<null>>) | undefined;
  /** Somebody is asked about by name from now on. */
  heardOf: (name: string) => void;
  onError?: ((what: string, error: unknown) => void) | undefined;
}>;

/** What modules of a channel ask of the world outside, and what they are told of it. */
export class Outside {
  readonly films: Films;
  constructor(private readonly deps: OutsideDeps) {
    const { channel, media, now, onError } = deps;
    this.films = new Films({ channel, media, now, onError, tell: (game, id, command) => this.tell(game, id, "the projector", command) });
  }

  private async tell(game: string, id: string, by: string, command: Command): Promise<boolean> {
    const to = this.deps.modules.byId(game);
    // A game that was removed waits for nothing any more.
    return to === undefined || this.deps.take({ kind: "command", atMs: this.deps.now(), id, gameId: to.id, by, viewer: null, command }, to);
  }

  /** Every now and then: how the studio stands, and what was made while nobody listened. */
  look(studio: StudioFacts): void {
    this.tellStudio(studio);
    void this.films.look();
  }
  /** Tells modules how the studio stands, where they believe otherwise: after a start, a rehearsal, or when they are new too. */
  tellStudio(stands: StudioFacts): void {
    for (const to of this.deps.modules.list) {
      const believes = to.rules.knowsOfStudio?.(to.durable);
      if (believes === undefined || believes.busy || sameStudio(believes, stands)) continue;
      void this.tell(to.id, `studio.${this.deps.now()}`, "the studio", { do: "stands", ...stands, scenes: [...stands.scenes] });
    }
  }
  /** Null when the studio is there, else why it is not. */
  async toScene(scene: string): Promise<string | null> {
    const done = await this.deps.studio?.(scene).catch(() => null);
    if (done === undefined || done === null) return "it does not answer";
    return done.ok ? null : String(done.refusal.facts["why"] ?? "it does not answer");
  }

  /** A page has what a game plays on its picture. */
  seen(texts: readonly string[]): void {
    for (const text of texts) {
      const [, game, n] = /^seen:([^:]{1,26}):(\d{1,9})$/.exec(text) ?? [];
      if (game === undefined || this.deps.modules.byId(game)?.rules.commands?.["seen"] === undefined) continue;
      void this.tell(game, `seen.${game}.${n}.${this.deps.now()}`, "a page", { do: "seen", n: Number(n) });
    }
  }

  async lookUp(name: string): Promise<Command> {
    const face = await this.deps.lookUp?.(name).catch(() => null);
    // Nobody was asked: that is no word on the platform.
    if (face === null || face === undefined) return { do: "not-found", name, away: true, late: true };
    if (face.profile === null) return { do: "not-found", name, away: face.away === true };
    // Only who is looked for by name is: from now on their picture may be asked for.
    this.deps.heardOf(name);
    const { page, topic, about } = face.profile;
    return { do: "found", name, page, topic, about };
  }
}

/** While it is away only that matters: what it had is kept as it was. */
const sameStudio = (a: StudioFacts, b: StudioFacts): boolean =>
  a.connected === b.connected &&
  (!a.connected || (a.name === b.name && a.current === b.current && JSON.stringify(a.scenes) === JSON.stringify(b.scenes)));
