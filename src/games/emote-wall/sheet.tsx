import type { WallSettings } from "../../core/games/emote-wall/settings";
import { wallHints, wallNoteInWords, wallRulesInWords, wallSentences } from "../../core/games/emote-wall/words";
import type { GameSheet } from "../sheet";
import { WallLooks } from "./looks";
import { tryMessage, wallTries } from "./try";

// The editor hands every function settings that the wall's own schema has accepted.
const of = (settings: unknown): WallSettings => settings as WallSettings;

export const wallSheet: GameSheet = {
  kindName: "emote wall",
  offer: { name: "an emote wall", about: "Emotes that viewers write in chat fly across the picture." },
  sentences: (s) => wallSentences(of(s)),
  rulesInWords: (s) => wallRulesInWords(of(s)),
  hints: (s, facts) => wallHints(of(s), facts),
  noteInWords: wallNoteInWords,
  Looks: WallLooks,
  tries: wallTries,
  tryMessage,
  area: (s) => of(s).area,
};
