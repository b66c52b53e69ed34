import type { Result } from "../../core/kernel/refusal";

/** How a studio stands, seen from the engine. */
export type StudioStanding = Readonly<{
  state: "connecting" | "connected" | "waiting";
  sinceMs: number;
  /** What stands in the way now, in plain words; empty while connected. */
  lastError: string;
  /** What it calls itself; what scenes it has; which is on. Kept while it is away. */
  name: string;
  scenes: readonly string[];
  current: string | null;
}>;
export type Studio = Readonly<{
  start: () => void;
  stop: () => void;
  /** Refused with `studio/away` or `studio/refused` and why; never later than a few seconds. */
  go: (scene: string) => Promise<Result<null>>;
  standing: () => StudioStanding;
}>;
