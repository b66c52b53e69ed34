import type { Logger } from "pino";
import type { ChannelId } from "../../core/kernel/ids";
import { refused, type Result } from "../../core/kernel/refusal";
import type { StudioFacts } from "../../core/module/module";
import type { ChannelRow, StudioRow } from "../ports/engine-store";
import type { Studio, StudioStanding } from "../ports/studio";

export type StudioMaker = (row: StudioRow, onStanding: (standing: StudioStanding) => void) => Studio | null;
type Line = { studio: Studio; standing: StudioStanding; key: string };
const nobody: StudioFacts = { connected: false, name: "", scenes: [], current: null };

/** One connection to a studio for each channel that has one: opened, changed and closed as its row says. */
export class StudioLines {
  private readonly lines = new Map<ChannelId, Line>();

  constructor(
    private readonly make: StudioMaker,
    private readonly log: Logger,
    private readonly changed: (channel: ChannelId) => void,
  ) {}

  keep(row: ChannelRow): void {
    const key = JSON.stringify(row.studio);
    const old = this.lines.get(row.id);
    if (old?.key === key) return;
    old?.studio.stop();
    this.lines.delete(row.id);
    if (row.studio === null || !row.studio.enabled) return this.changed(row.id);
    const made = this.make(row.studio, (standing) => {
      const now = this.lines.get(row.id);
      if (now === undefined || now.studio !== made) return;
      if (standing.state !== now.standing.state || standing.lastError !== now.standing.lastError)
        this.log.info({ studio: standing.state, why: standing.lastError || undefined }, "studio");
      now.standing = standing;
      this.changed(row.id);
    });
    if (made === null) return;
    this.lines.set(row.id, { studio: made, standing: made.standing(), key });
    made.start();
  }

  standing(id: ChannelId): StudioStanding | null {
    return this.lines.get(id)?.standing ?? null;
  }
  facts(id: ChannelId): StudioFacts {
    const standing = this.standing(id);
    if (standing === null || standing.state !== "connected") return nobody;
    const { name, scenes, current } = standing;
    return { connected: true, name, scenes, current };
  }
  go(id: ChannelId, scene: string): Promise<Result<null>> {
    return this.lines.get(id)?.studio.go(scene) ?? Promise.resolve(refused("studio/away"));
  }
  drop(id: ChannelId): void {
    this.lines.get(id)?.studio.stop();
    this.lines.delete(id);
  }
}
