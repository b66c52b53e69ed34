import { DoorOpen } from "lucide-react";
import type { GameShown } from "../shown";
import { GreetingBooth } from "./booth";
import { GreetingHistory } from "./history";
import { GreetingLines } from "./lines";
import { GreetingLooks } from "./looks";

export const greetingShown: GameShown = {
  Icon: DoorOpen,
  Looks: GreetingLooks,
  Extra: GreetingLines,
  Booth: GreetingBooth,
  History: GreetingHistory,
};
