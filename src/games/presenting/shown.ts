import { IdCard } from "lucide-react";
import type { GameShown } from "../shown";
import { PresentingBooth } from "./booth";
import { PresentingHistory } from "./history";
import { PresentingLooks } from "./looks";
import { PresentingReply } from "./reply";

export const presentingShown: GameShown = {
  Icon: IdCard,
  Looks: PresentingLooks,
  Extra: PresentingReply,
  Booth: PresentingBooth,
  History: PresentingHistory,
};
