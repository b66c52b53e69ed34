import { blanksOf, say } from "../words/blanks";
import { rolesInWords, type Sentence } from "../words/sentence";
import { actionOf } from "../games/words";
import { numberField } from "../module/field-of";
import { type CommandEffect, type ModeratorWord, type ShowSettings, showSettingsSchema } from "./settings";

/** How a show begins and ends, as the sentences one edits. */
export function showSentences(s: ShowSettings): readonly Sentence[] {
  const { choice, whole } = blanksOf(showSettingsSchema, s);
  return [
    say(
      "begins",
      "A show goes on air and ends ",
      choice("begins", "What begins and ends a show", { platform: "by hand, or when the platform says so", hand: "by hand only" }),
      s.begins === "hand" ? ". When the platform says something else, you are asked in the booth." : ".",
    ),
    say(
      "silence",
      s.silenceMin === 0 ? "A show never ends by itself: " : "A show that nobody ends ends by itself after ",
      whole("silenceMin", "Minutes of silence after which a show ends; 0 for never"),
      s.silenceMin === 0
        ? " minutes of silence."
        : s.silenceMin === 1
          ? " minute without a word in chat or a signal."
          : " minutes without a word in chat or a signal.",
    ),
  ];
}

export const commandEffectWords: Readonly<Record<CommandEffect, string>> = {
  start: "starts",
  stop: "stops",
  act: "does something in a game",
  hush: "hushes everything",
  release: "releases the hush",
  "on-air": "goes on air",
  rehearse: "begins a rehearsal",
  end: "ends the show",
  next: "starts what comes next in the rundown",
};

/** What a moderator's word does, without the word: “Hit Old Spall by the number behind it”. */
export function wordDoes(c: ModeratorWord, game: (id: string) => string, kind: (id: string) => string): string {
  if (c.does !== "act") return `${commandEffectWords[c.does]}${c.game === "" ? "" : ` ${game(c.game)}`}`;
  const action = actionOf(kind(c.game), c.act);
  if (action === null) return `does something that ${game(c.game)} can’t`;
  const [number = ""] = numberField(action.input) ?? [];
  return `${game(c.game)}: ${action.label}${number === "" ? "" : ", by the number behind it"}`;
}

export const commandInWords = (c: ModeratorWord, game: (id: string) => string, kind: (id: string) => string): string =>
  `${c.word} ${wordDoes(c, game, kind)}. For ${rolesInWords(c.roles)}.`;
