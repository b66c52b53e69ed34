import type { ReactNode } from "react";
import type { Refusal } from "../core/kernel/refusal";
import type { Note, StepOutcome } from "../core/kernel/step";
import type { Signal } from "../core/signals/signal";
import type { Place, Sprite } from "../core/wire/messages";
import type { Sentence } from "../core/words/sentence";

/** What the editor asks of every game beside its rules: its sentences, its looks, and what can be tried. */
export type Hint = Readonly<{ id: string; text: string; path?: string }>;
export type TryContext = Readonly<{ settings: unknown; sprites: readonly Sprite[]; amount: number; durable: unknown }>;
/** What of the channel a sheet's words depend on. */
export type SheetFacts = Readonly<{ home: string; ownEmotes: number }>;
/** One thing to try: signals with the time at which each happens, counted from the click. */
type Untimed<T> = T extends unknown ? Omit<T, "seq" | "atMs" | "id"> : never;
export type Tried = Readonly<{ says: string; signals: readonly Readonly<{ afterMs: number; signal: Untimed<Signal> }>[] }>;
export type TryButton = Readonly<{ id: string; label: string; key?: string; make: (at: TryContext, times: number) => Tried }>;

export type LooksProps = Readonly<{ settings: unknown; sprites: readonly Sprite[]; onChange: (path: string, value: unknown) => void }>;
export type GameSheet = Readonly<{
  kindName: string;
  /** How it is offered where games are added. */
  offer: Readonly<{ name: string; about: string }>;
  /** Whether it keeps reigns and hits for good, to be listed beside its rules. */
  keepsReigns?: boolean;
  sentences: (settings: unknown, facts: SheetFacts) => readonly Sentence[];
  rulesInWords: (settings: unknown, facts: SheetFacts) => string;
  hints: (settings: unknown, facts: SheetFacts) => readonly Hint[];
  noteInWords: (note: Note) => string;
  Looks: (props: LooksProps) => ReactNode;
  /** Stands under the sentences: what is no sentence but belongs to the rules. */
  Extra?: (props: LooksProps) => ReactNode;
  /** Where in the preview it stands; the whole of it when left out. */
  previewPlace?: Place;
  /** What the amount beside the tries is called and begins with; none when left out. */
  tryAmount?: Readonly<{ label: string; start: number }>;
  tries: readonly TryButton[];
  /** A line the operator types into the strip. */
  tryMessage: (text: string, as: "viewer" | "member" | "vip" | "moderator" | "streamer") => Tried;
  area?: (settings: unknown) => Readonly<{ x: number; y: number; width: number; height: number }>;
}>;
export type Outcome = StepOutcome<unknown, unknown, unknown>;
export type { Note, Refusal };
