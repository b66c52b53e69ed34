import type { BossSettings } from "../../core/games/boss-battle/settings";
import { bossHints, bossNoteInWords, bossRulesInWords, bossSentences } from "../../core/games/boss-battle/words";
import { wholePlace } from "../../core/wire/messages";
import type { GameSheet } from "../sheet";
import { BossLooks, BossRoster } from "./looks";
import { bossTries, tryBossMessage } from "./try";

// The editor hands every function settings that the boss's own schema has accepted.
const of = (settings: unknown): BossSettings => settings as BossSettings;

export const bossSheet: GameSheet = {
  kindName: "boss battle",
  offer: {
    name: "a boss battle",
    about: "Follows, memberships and tips strike a vessel-creature; whoever fells it reigns in its place.",
  },
  keepsReigns: true,
  sentences: (s, { home }) => bossSentences(of(s), home),
  rulesInWords: (s, { home }) => bossRulesInWords(of(s), home),
  hints: (s, { home }) => bossHints(of(s), home),
  noteInWords: bossNoteInWords,
  Looks: BossLooks,
  Extra: BossRoster,
  tries: bossTries,
  tryMessage: tryBossMessage,
  tryAmount: { label: "Amount", start: 5 },
  previewPlace: { ...wholePlace, x: 0.3, y: 0.1, width: 0.4, height: 0.86 },
};
