import { Milk } from "lucide-react";
import type { GameShown } from "../shown";
import { PredictionBooth } from "./booth";
import { PredictionHistory } from "./history";
import { PredictionLooks } from "./looks";
import { PredictionOutcomes } from "./outcomes";

export const predictionShown: GameShown = {
  Icon: Milk,
  Looks: PredictionLooks,
  Extra: PredictionOutcomes,
  Booth: PredictionBooth,
  History: PredictionHistory,
};
