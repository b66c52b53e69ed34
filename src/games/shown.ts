import type { LucideIcon } from "lucide-react";
import type { ReactNode } from "react";
import type { RuleEffect } from "../core/rules/effect";
import type { Command } from "../core/signals/signal";
import type { Sprite } from "../core/wire/messages";

/** A list of effects as rules have them, edited where a game's own settings hold some. */
export type EffectsEditor = (
  props: Readonly<{ label: string; effects: readonly RuleEffect[]; what: string; onSet: (effects: RuleEffect[]) => void }>,
) => ReactNode;
export type LooksProps = Readonly<{
  settings: unknown;
  sprites: readonly Sprite[];
  onChange: (path: string, value: unknown) => void;
  Effects?: EffectsEditor;
  /** The currency in which tips count. */
  home?: string;
  /** The scenes of the studio, as far as anybody knows. */
  scenes?: readonly string[];
}>;
/** How a game stands, beside the picture in the booth. Its actions, switch, hiding and order are the booth's. */
export type BoothProps = Readonly<{
  gameId: string;
  view: Readonly<Record<string, unknown>>;
  /** When the show began; 0 while none runs. */
  sinceMs: number;
  /** The rehearsal whose booth this is; empty in the channel's own. */
  rehearsal?: string;
  /** Does something in it; false when it did not go through, which is said then. */
  command: (command: Command) => Promise<boolean>;
  /** People that other games name in their records, to be taken in: who stood on top of which. */
  people: readonly PeopleSource[];
}>;
export type PeopleSource = Readonly<{ id: string; words: string; load: () => Promise<readonly Readonly<{ id: string; name: string }>[]> }>;
/** Something a game keeps for good, as its rules wrote it. */
export type RecordRow = Readonly<{
  id: number;
  viewer: Readonly<{ id: string; name: string }> | null;
  fromMs: number;
  toMs: number;
  body: unknown;
}>;
export type HistoryProps = Readonly<{
  /** For operators; undefined while the game does not run. */
  view: Readonly<Record<string, unknown>> | undefined;
  load: (kind: string) => Promise<readonly RecordRow[]>;
  command: (command: Command, said: string) => Promise<void>;
}>;

/** What the operator's side shows of a kind of game beside its definition in the core. All but the icon and Looks may be left out. */
export type GameShown = Readonly<{
  Icon: LucideIcon;
  Looks: (props: LooksProps) => ReactNode;
  /** Stands under the sentences: what is no sentence but belongs to the rules. */
  Extra?: (props: LooksProps) => ReactNode;
  /** Where within its place it moves; outlined while its looks are set up. */
  area?: (settings: unknown) => Readonly<{ x: number; y: number; width: number; height: number }>;
  Booth?: (props: BoothProps) => ReactNode;
  /** What came to pass in it, from what it keeps for good. */
  History?: (props: HistoryProps) => ReactNode;
}>;
