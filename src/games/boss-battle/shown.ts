import { Swords } from "lucide-react";
import type { GameShown } from "../shown";
import { BossBooth } from "./booth";
import { BossHistory } from "./history";
import { BossLooks, BossRoster } from "./looks";

export const bossShown: GameShown = { Icon: Swords, Looks: BossLooks, Extra: BossRoster, Booth: BossBooth, History: BossHistory };
