import type { ReactNode } from "react";
import type { Hand } from "../core/signals/signal";

/** What the booth asks of every game: how it stands, and its own few actions. Starting, hiding and order are the booth's. */
export type FocusProps = Readonly<{
  gameId: string;
  view: Readonly<Record<string, unknown>>;
  /** When the show began; 0 while none runs. */
  sinceMs: number;
  hand: (hand: Hand) => Promise<void>;
}>;
export type FocusRegistry = Readonly<Record<string, ((props: FocusProps) => ReactNode) | undefined>>;
