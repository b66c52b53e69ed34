import { CupSoda } from "lucide-react";
import type { GameShown } from "../shown";
import { BrimfulBooth } from "./booth";
import { BrimfulDrops } from "./drops";
import { BrimfulHistory } from "./history";
import { BrimfulLooks } from "./looks";

export const brimfulShown: GameShown = {
  Icon: CupSoda,
  Looks: BrimfulLooks,
  Extra: BrimfulDrops,
  Booth: BrimfulBooth,
  History: BrimfulHistory,
};
