import { BossFocus } from "./boss-battle/focus";
import { WallFocus } from "./emote-wall/focus";
import type { FocusRegistry } from "./focus";

/** What stands beside the picture in the booth, by the game's kind. */
export const focuses: FocusRegistry = { "emote-wall": WallFocus, "boss-battle": BossFocus };
