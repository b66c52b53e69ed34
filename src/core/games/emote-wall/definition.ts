import type { GameDefinition } from "../../module/game";
import { freshWallTransient, type WallTransient } from "./transient";
import { wallStep } from "./rules";
import { wallSamples } from "./samples";
import {
  type WallDurable,
  wallDefaults,
  wallDurableSchema,
  type WallEffect,
  type WallSettings,
  wallSettingsSchema,
  wallSettingsTo2,
} from "./settings";
import { wallView } from "./view";
import { wallHints, wallRulesInWords, wallSentences } from "./words";
import { emoteWallFront } from "./front";

/** The emote wall, RULES section 2. All but whether it is on may be lost in a crash. */
export const emoteWall: GameDefinition<WallSettings, WallDurable, WallTransient, WallEffect> = {
  ...emoteWallFront,
  setUps: [
    {
      id: "together",
      name: "Only together",
      about: "An emote flies when three different viewers wrote it within 10 s: calm in a busy chat.",
      settings: { ...wallDefaults, combo: { ...wallDefaults.combo, on: true, counted: "viewers" } },
    },
    {
      id: "rain",
      name: "Rain from above",
      about: "Small emotes fall from the top and splash.",
      settings: { ...wallDefaults, motion: "rain", sizeShare: 0.08, lifeMs: 5_000 },
    },
    {
      id: "flocks",
      name: "Flocks alone",
      about: "Chat alone shows nothing; flocks fly when you, a rule or a reward sends one.",
      settings: { ...wallDefaults, singles: false },
    },
  ],
  settings: wallSettingsSchema,
  defaults: wallDefaults,
  durable: wallDurableSchema,
  settingsSteps: [wallSettingsTo2],
  freshDurable: () => ({ on: true, worn: [] }),
  freshDust: freshWallTransient,
  step: wallStep,
  view: wallView,
  sentences: wallSentences,
  toldToViewers: wallRulesInWords,
  hints: wallHints,
  samples: wallSamples,
};
