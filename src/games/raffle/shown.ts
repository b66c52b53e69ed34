import { Tags } from "lucide-react";
import type { GameShown } from "../shown";
import { RaffleBooth } from "./booth";
import { RaffleHistory } from "./history";
import { RaffleLooks } from "./looks";
import { RafflePrizes } from "./prizes";

export const raffleShown: GameShown = { Icon: Tags, Looks: RaffleLooks, Extra: RafflePrizes, Booth: RaffleBooth, History: RaffleHistory };
