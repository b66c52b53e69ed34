import { Clapperboard } from "lucide-react";
import type { GameShown } from "../shown";
import { SceneAnswers } from "./answers";
import { StudioBooth } from "./booth";
import { StudioHistory } from "./history";
import { StudioLooks } from "./looks";

export const studioShown: GameShown = {
  Icon: Clapperboard,
  Looks: StudioLooks,
  Extra: SceneAnswers,
  Booth: StudioBooth,
  History: StudioHistory,
};
