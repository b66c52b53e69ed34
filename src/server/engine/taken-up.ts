import type { ChannelId } from "../../core/kernel/ids";
import { refused, type Result } from "../../core/kernel/refusal";

/** What this process knows of the channels there are: which are its to run, and whether it has looked at all of them. */
export class TakenUp {
  /** The channels there are, as of the last look. */
  known: ReadonlySet<ChannelId> = new Set();
  /** Whether all of them were looked at once. */
  settled = false;
  databaseAway = false;

  constructor(
    private readonly runners: Pick<ReadonlyMap<ChannelId, unknown>, "has">,
    /** Those whose lease this process holds. */
    private readonly fences: Pick<ReadonlyMap<ChannelId, unknown>, "has">,
  ) {}

  /** Whether every channel that is this process's to run is taken up: until then nobody can say that a link is none. */
  readonly isWhole = (): boolean => this.settled && [...this.known].every((id) => this.runners.has(id) || !this.fences.has(id));

  /** Whether a channel that does not run may be there all the same. */
  readonly isNotYet = (id: ChannelId): boolean => !this.settled || this.databaseAway || this.known.has(id);

  /**
   * Why a channel is not to be had: not yet, while it is not taken up or the database can't say whether there is one;
   * never, once it is known that there is none. A "not yet" is tried again; whoever takes it for a no may pay twice.
   */
  readonly absent = (id: ChannelId): Result<never> => refused(this.isNotYet(id) ? "engine/starting" : "channel/unknown");
}
