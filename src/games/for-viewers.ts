import type { ReactNode } from "react";

type Row = Readonly<Record<string, unknown>>;
export type ForViewersProps = Readonly<{
  view: Row;
  /** What is this viewer's own in it; null where nothing is, or nobody knows who they are. */
  mine: Row | null;
  /** How points are called, and how many this viewer has; null for somebody unknown. */
  points: string;
  balance: number | null;
  nowMs: number;
  /** A form that does something in the game, with what stands in it: by script, and without. */
  form: (what: string, children: ReactNode) => ReactNode;
  /** A field of such a form for a film from this computer; nothing where the page runs without script. */
  file: (label: string) => ReactNode;
}>;

/** What viewers can do in a kind of game on their page: light, since a phone loads it. */
export type GameForViewers = Readonly<{
  /** Whether there is anything to do or to see in it now. */
  open: (view: Row, mine: Row | null) => boolean;
  Panel: (props: ForViewersProps) => ReactNode;
}>;
