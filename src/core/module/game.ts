import type { Module, NoteWords } from "./module";
import type { Fields } from "./fields";
import type { Strip } from "../props/video";
import type { Chance } from "../kernel/chance";
import type { Command, GivenSignal } from "../signals/signal";

export type { GivenSignal } from "../signals/signal";
import { plain, type Sentence } from "../words/sentence";
import type { Place, Sprite } from "../wire/messages";

/** How something stands on the tape. `weight` 1: a tick only; 2: its label where there is room; 3: always told. */
export type TapeMark = Readonly<{ tone: "slate" | "brick" | "moss" | "ochre" | "soft"; weight: 1 | 2 | 3; label: string }>;
export type Row = Readonly<Record<string, unknown>>;

/** Something one can make a game do: by booth, key, phone, rule, cue, reward, rundown, chat word. */
export type GameAction = Readonly<{
  /** On a button, and in lists. */
  label: string;
  /** The sentence of it, with its fields as blanks and {game} for which game: “Hit {game} by {amount}”. */
  form: string;
  input: Fields;
  /** Amounts that stand as buttons of their own on the phone, each with its label. */
  quick?: readonly Readonly<{ label: string; amount: number }>[];
  /** Suggested key in the booth. */
  key?: string;
  /** Suggested chat word for moderators, without the mark in front. */
  word?: string;
  /** It can't be taken back: asked twice by hand. */
  sure?: boolean;
  /** Whether rules, cues and rewards may do it; they may when left out. */
  byRule?: boolean;
  /** Not among the buttons: it belongs to one thing that happened, and stands there. */
  onlyThere?: boolean;
  /** It is done to a person, whose name goes into this field: offered wherever a person is shown. */
  person?: string;
  /** Whether it stands among the buttons of booth and phone; it does when left out. What names somebody is for rules and words. */
  byHand?: boolean;
  /** Whether it would do something now, by the operators' view; it would when left out. */
  can?: (view: Row) => boolean;
  /** Its button is away while it would do nothing: for what belongs to one step of a round. */
  stepwise?: boolean;
  /** What is said when it is done and can't be seen. */
  done?: string;
  tape?: (input: Row, by: string, byOperator: boolean) => TapeMark | null;
}>;

/** Something that comes to pass in a game and that rules can answer. */
export type Told = Readonly<{
  /** What came to pass, after “when”. */
  words: string;
  /** What its amount counts, one and many; left out where it counts nothing. */
  unit?: readonly [one: string, many: string];
  /** Worth a row of the log even if nobody answers. */
  logged?: boolean;
  tape?: (of: Readonly<{ text: string; amount: number; by: string }>) => TapeMark | null;
  /** Actions that lead to it: a rule that answers it with one of these would go round. */
  from?: readonly string[];
  /** What its {text} says, for trying rules. */
  example?: string;
}>;

/** What is promised of the next round, and rounds that are over; empty texts where nothing is promised. */
export type Fair = Readonly<{
  commitment: string;
  round: string;
  past: readonly Readonly<{ round: string; words: string; atMs: number }>[];
  /** While it is open, the newest value of its chain; from its lock on, the hash of its list. Left out where there is none. */
  chain?: string;
  list?: string;
}>;

/** Something that only a person can decide, with what either answer does. */
export type GameAsk = Readonly<{
  id: string;
  sinceMs: number;
  words: string;
  about: string;
  main: Readonly<{ label: string; command: Command }>;
  /** Stills to judge it by. */
  strip?: Strip;
  /** Null where there is but one answer. */
  other: Readonly<{ label: string; command: Command }> | null;
}>;

/** A round that is over, from what was kept of it: for Review and its exports. */
export type RoundWords = Readonly<{
  title: string;
  result: string;
  /** How many took part; null where nobody counts. */
  people: number | null;
  /** Its name where viewers check it; empty where there is nothing to check. */
  round: string;
  /** Who won what in it, where that is known by name; left out where each win was kept by itself. */
  winners?: readonly Readonly<{ viewer: string; prize: string }>[];
}>;
/** Something that was put before the audience: how (“spoken”, “a clip”), what, and where more of it is found; empty for nowhere. */
export type Aired = Readonly<{ how: string; what: string; link: string }>;
/** Who was in a round, and how they stood from then on: the newest line of each counts. Null in `line`: they are out. */
export type RoundEntry = Readonly<{ id: string; line: Readonly<Record<string, string | number>> | null }>;
/** A win as it was kept at its moment, under a name that stays: the newest record of this name counts. Null in `prize`: it was taken from them. */
export type Win = Readonly<{ id: string; title: string; viewer: string; prize: string | null; round: string }>;
export type Rounds = Readonly<{
  /** By the kind of record. */
  kept: Readonly<Record<string, (body: Row) => RoundWords>>;
  /** Wins are facts from their moment on, whether the round was closed or not. */
  wins?: Readonly<{ kind: string; of: (body: Row) => Win }>;
  entries?: Readonly<{
    kind: string;
    of: (body: Row) => RoundEntry | null;
    /** What somebody of the list won, by what was kept of the round; null for nothing. */
    won?: (round: Row, line: Readonly<Record<string, string | number>>) => string | null;
  }>;
}>;
/** Something that somebody won and that is on its way to them. */
export type HandOver = Readonly<{
  id: string;
  viewer: string;
  what: string;
  about: string;
  atMs: number;
  state: string;
  /** What is done with it next, the likeliest first. */
  next: readonly Readonly<{ label: string; command: Command }>[];
}>;

/** Something that a show should not end with, in words, and what can be done about it. */
export type Unfinished = Readonly<{ id: string; words: string; ways: readonly Readonly<{ label: string; command: Command }>[] }>;

/** A button of the moment, in the booth and on the phone. */
export type GameChoice = Readonly<{ id: string; label: string; command: Command; /** Asked twice. */ sure: boolean }>;

export type Hint = Readonly<{ id: string; text: string; path?: string }>;
/** What of the channel a game's words depend on. */
export type WordFacts = Readonly<{ home: string; ownEmotes: number; points: string }>;

/** Signals with the time at which each happens, counted from the click, and what they are in words. */
export type Tried = Readonly<{ says: string; signals: readonly Readonly<{ afterMs: number; signal: GivenSignal }>[] }>;
export type SampleContext = Readonly<{
  settings: unknown;
  durable: unknown;
  sprites: readonly Sprite[];
  /** What is in the amount field. */
  amount: number;
  /** How often something was tried: another viewer each time. */
  times: number;
  /** When it is tried: a sample that tells of days past reckons from here. */
  nowMs: number;
  chance: Chance;
}>;
/** Something a lively crowd, or an operator, could do just now. One list feeds the strip, the crowd and the random tests. */
export type Sample = Readonly<{
  id: string;
  label: string;
  key?: string;
  /** How often in a crowd, beside the others; 0 for never. */
  weight: number;
  /** For the crowd alone: not among what one tries by hand. */
  unseen?: boolean;
  make: (at: SampleContext) => Tried;
}>;

/**
 * What surfaces need of a game while it runs: what it is called, its buttons, and what its view says. It brings no rules with it,
 * so booth, phone and lists are light.
 */
export type GameFront = NoteWords &
  Readonly<{
    /** What this kind is called; with its article where games are added, and what it is in a sentence. */
    name: string;
    offer: Readonly<{ name: string; about: string }>;
    /** Names for new ones, in their order. */
    newNames: readonly string[];
    /** How it stands, by the view for viewers: “340 of 1,000 health”. */
    stands?: (view: Row) => string;
    /** Whether it can be played with now, by the operators' view; while it is on when left out. */
    playable?: (view: Row) => boolean;
    /** What viewers may check of its chance, by the view for viewers; nothing when left out. */
    fair?: (view: Row) => Fair | null;
    /** What of it waits for a person, by the operators' view: shown in the booth and on the phone. */
    asks?: (view: Row) => readonly GameAsk[];
    /** Buttons that hang on how it stands, by the operators' view: which of its outcomes came. */
    choices?: (view: Row) => readonly GameChoice[];
    /** Since when something is under way in it, by the operators' view: a bar on the tape. Null while nothing is. */
    roundSince?: (view: Row) => number | null;
    /** How far it is from its end, 0 to 1 and beyond, by the operators' view: “came to 62 % of its health gone”. Null while it is off. */
    gauge?: (view: Row) => Readonly<{ share: number; ends: string }> | null;
    /** What is unfinished in it when a show is to end, by the operators' view: open rounds, winners who have not claimed, held points. */
    unfinished?: (view: Row) => readonly Unfinished[];
    /** What was won in it and is to be handed over, by the operators' view. */
    handOvers?: (view: Row) => readonly HandOver[];
    /** Of which of its records others may take people in, and who those are: “who stood on top of {game}”. */
    people?: Readonly<{ kind: string; words: string }>;
    told?: Readonly<Record<string, Told>>;
    actions?: Readonly<Record<string, GameAction>>;
    /** The same, for what only shows while it runs: by the operators' view. */
    listsNow?: (view: Row) => Readonly<Record<string, readonly string[]>>;
    /** It stands on no picture: there is nothing to place. */
    bodiless?: boolean;
    /** The amount beside the tries; none when left out. */
    sampleAmount?: Readonly<{ label: string; start: number }>;
    /** Where a new one stands on a stage; the whole of it when left out. */
    place?: Pick<Place, "x" | "y" | "width" | "height">;
    /** Where it stands in its own preview; as on a stage when left out. */
    previewPlace?: Pick<Place, "x" | "y" | "width" | "height">;
    /** Notes true of nearly every line of chat, so not worth a word beside each. */
    unsaid?: readonly string[];
    /** Notes that something was spent, or struck: they stand out. */
    striking?: readonly string[];
  }>;

/**
 * All the house needs to know of a game, in the order in which a newcomer reads it. What shows it (its scene, its
 * looks, its part of the booth) stands in `src/games`. Everything with a question mark has a default.
 */
export type GameDefinition<S, D, T, E> = Module<S, D, T, E> &
  GameFront &
  Readonly<{
    /** Ready set-ups to begin with, beside the defaults. */
    setUps?: readonly Readonly<{ id: string; name: string; about: string; settings: S }>[];
    sentences: (settings: S, facts: WordFacts) => readonly Sentence[];
    /** The rules as viewers are told them; the sentences when left out. */
    toldToViewers?: (settings: S, facts: WordFacts) => readonly string[];
    hints?: (settings: S, facts: WordFacts) => readonly Hint[];
    /** What it has not got that a show needs: told in the check-list before one. */
    lacks?: (settings: S) => readonly Hint[];
    /** What it keeps of its rounds. */
    rounds?: Rounds;
    /** What it put before the audience, by the kind of record: listed in Review. */
    aired?: Readonly<Record<string, (body: Row) => Aired>>;
    /** Names that its settings hold and from which fields of its actions are picked, by the field's `oneOf`. */
    lists?: (settings: S) => Readonly<Record<string, readonly string[]>>;
    samples: readonly Sample[];
  }>;

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- each game's own types are erased here; its schemas parse what it is given
export type AnyGame = GameDefinition<any, any, any, any>;

export const wordsForViewers = (game: AnyGame, settings: unknown, facts: WordFacts): readonly string[] =>
  game.toldToViewers?.(settings, facts) ?? game.sentences(settings, facts).map(plain);
