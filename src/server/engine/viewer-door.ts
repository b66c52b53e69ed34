import type { ChannelId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { Note } from "../../core/module/module";
import type { Viewer } from "../../core/signals/names";
import type { Clock } from "../ports/clock";
import type { ShopView } from "../ports/engine-link";
import type { EngineStore } from "../ports/engine-store";
import type { ViewerAsk } from "./requests";
import type { Runner } from "./runner";

type Parts = Readonly<{
  runners: ReadonlyMap<ChannelId, Runner>;
  clock: Clock;
  store: Pick<EngineStore, "viewerSession" | "endViewerSession" | "renewViewerSession">;
  /** Where somebody's own picture is; empty for nowhere. */
  face: (channel: ChannelId, name: string) => string;
  /** A page is nobody's any more. */
  left: (tokenHash: string) => void;
  /** Why a channel that does not run is not to be had. */
  absent: (channel: ChannelId) => Result<never>;
}>;

/** Who viewer pages are, and what they ask for. */
export class ViewerDoor {
  constructor(private readonly parts: Parts) {}

  /** Who a viewer page is, by its token's hash; with the roles last seen in chat, or those of when the name was proven. */
  async of(channel: ChannelId, tokenHash: string): Promise<Viewer | null> {
    if (tokenHash === "") return null;
    const session = await this.parts.store.viewerSession(tokenHash, this.parts.clock.now());
    if (session?.channelId !== channel) return null;
    return this.parts.runners.get(channel)?.inbox.withRoles(session.viewer) ?? session.viewer;
  }

  /** A viewer page is nobody's any more, at once. */
  async leaves(tokenHash: string): Promise<void> {
    this.parts.left(tokenHash);
    await this.parts.store.endViewerSession(tokenHash);
  }

  /**
   * A page whose name was proven gets a token that nobody knew before. The one with which it asked for its code ends, and so does
   * every page that somebody else opened with it.
   */
  async renews(channel: ChannelId, before: string, after: string): Promise<Result<null>> {
    if (!(await this.parts.store.renewViewerSession(channel, before, after))) return refused("viewer/not-proven");
    this.parts.left(before);
    return ok(null);
  }

  /** All that the viewer page shows at first; the same that it is told afterwards. */
  async shop(channel: ChannelId, tokenHash: string): Promise<Result<ShopView>> {
    const runner = this.parts.runners.get(channel);
    if (runner === undefined) return this.parts.absent(channel);
    const viewer = await this.of(channel, tokenHash);
    return ok({ ...runner.shop.page(viewer), face: viewer === null ? "" : this.parts.face(channel, viewer.name) });
  }

  /** Something that who a viewer page is tied to asks for. */
  async ask(channel: ChannelId, tokenHash: string, ask: ViewerAsk): Promise<Result<Note>> {
    const runner = this.parts.runners.get(channel);
    if (runner === undefined) return this.parts.absent(channel);
    const viewer = await this.of(channel, tokenHash);
    return viewer === null ? refused("viewer/not-proven") : ask(runner.requests, viewer);
  }
}
