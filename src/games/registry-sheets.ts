import { bossSheet } from "./boss-battle/sheet";
import { wallSheet } from "./emote-wall/sheet";
import type { GameSheet } from "./sheet";

/** What edits each game: for the operator side only. */
export const sheets: Readonly<Record<string, GameSheet>> = { "emote-wall": wallSheet, "boss-battle": bossSheet };
