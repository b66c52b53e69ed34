import { PawPrint } from "lucide-react";
import type { GameShown } from "../shown";
import { CompanionAnswers } from "./answers";
import { CompanionBooth } from "./booth";
import { CompanionLooks } from "./looks";

export const companionShown: GameShown = { Icon: PawPrint, Looks: CompanionLooks, Extra: CompanionAnswers, Booth: CompanionBooth };
