import { plain, type Sentence } from "../words/sentence";
import { count } from "../words/sentence";
import type { BossSettings } from "./boss-battle/settings";
import { bossSentences } from "./boss-battle/words";
import type { WallSettings } from "./emote-wall/settings";
import { wallSentences } from "./emote-wall/words";

/** A game's rules for viewers: the sentences of its form, without blanks. The part's schema accepted the settings. */
const sentences: Readonly<Record<string, (settings: unknown, home: string) => readonly Sentence[]>> = {
  "boss-battle": (s, home) => bossSentences(s as BossSettings, home),
  "emote-wall": (s) => wallSentences(s as WallSettings),
};
export const rulesInWords = (kind: string, settings: unknown, home: string): readonly string[] =>
  (sentences[kind]?.(settings, home) ?? []).map(plain);

/** How a game stands, from what viewers may see of it. */
export function standsInWords(view: Readonly<Record<string, unknown>>): string {
  const { health, max } = view;
  if (view["on"] === false) return "rests";
  return typeof health === "number" && typeof max === "number" ? `${count(health)} of ${count(max)} health` : "is on";
}
