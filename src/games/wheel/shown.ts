import { Disc3 } from "lucide-react";
import type { GameShown } from "../shown";
import { WheelBooth } from "./booth";
import { WheelHistory } from "./history";
import { WheelLooks } from "./looks";
import { WheelSegments } from "./segments";

export const wheelShown: GameShown = { Icon: Disc3, Looks: WheelLooks, Extra: WheelSegments, Booth: WheelBooth, History: WheelHistory };
