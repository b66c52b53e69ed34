import { Smile } from "lucide-react";
import type { WallSettings } from "../../core/games/emote-wall/settings";
import type { GameShown } from "../shown";
import { WallLooks } from "./looks";

export const wallShown: GameShown = {
  Icon: Smile,
  Looks: WallLooks,
  // The editor hands over settings that the wall's own schema has accepted.
  area: (settings) => (settings as WallSettings).area,
};
