import { Clapperboard } from "lucide-react";
import type { GameShown } from "../shown";
import { ClipsBooth } from "./booth";
import { ClipsHistory } from "./history";
import { ClipsLooks } from "./looks";

export const clipsShown: GameShown = { Icon: Clapperboard, Looks: ClipsLooks, Booth: ClipsBooth, History: ClipsHistory };
