import { MessageCircle } from "lucide-react";
import type { GameShown } from "../shown";
import { VoicesBooth } from "./booth";
import { VoicesHistory } from "./history";
import { VoicesLooks } from "./looks";
import { VoicesList } from "./voices";

export const voicesShown: GameShown = {
  Icon: MessageCircle,
  Looks: VoicesLooks,
  Extra: VoicesList,
  Booth: VoicesBooth,
  History: VoicesHistory,
};
