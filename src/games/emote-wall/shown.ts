import { Smile } from "lucide-react";
import type { WallSettings } from "../../core/games/emote-wall/settings";
import type { GameShown } from "../shown";
import { WallLooks } from "./looks";
import { WallTrims } from "./trims";

export const wallShown: GameShown = {
  Icon: Smile,
  Looks: WallLooks,
  Extra: WallTrims,
  // The editor hands over settings that the wall's own schema has accepted.
  area: (settings) => (settings as WallSettings).area,
};
