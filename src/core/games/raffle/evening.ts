import type { Kept, StepContext } from "../../module/module";
import { eveningOf } from "../evening";
import { raffle } from "./definition";
import { raffleDefaults, type RaffleSettings, raffleSettingsSchema } from "./settings";

/** For tests: draws without shaking and claims, but where they are asked for. */
export const settingsOf = (part: Partial<RaffleSettings> = {}): RaffleSettings =>
  raffleSettingsSchema.parse({ ...raffleDefaults, shake: false, claimMs: 0, ...part });
export const evening = (settings: RaffleSettings, part: Partial<StepContext> = {}) => eveningOf(raffle, settings, part);
export const proofIn = (rows: readonly Kept[]): unknown => (rows.at(-1)?.body as { proof: unknown }).proof;
