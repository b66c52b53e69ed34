import type { SceneRegistry } from "../overlay/scene";
import { bossScene } from "./boss-battle/scene";
import { brimfulScene } from "./brimful/scene";
import { clipsScene } from "./clips/scene";
import { companionScene } from "./companion/scene";
import { wallScene } from "./emote-wall/scene";
import { greetingScene } from "./greeting/scene";
import { predictionScene } from "./prediction/scene";
import { presentingScene } from "./presenting/scene";
import { raffleScene } from "./raffle/scene";
import { studioScene } from "./scene-changes/scene";
import { voicesScene } from "./voices/scene";
import { wheelScene } from "./wheel/scene";

/** What draws each game: for overlay pages and previews. */
export const scenes: SceneRegistry = {
  "emote-wall": wallScene,
  "boss-battle": bossScene,
  wheel: wheelScene,
  raffle: raffleScene,
  prediction: predictionScene,
  brimful: brimfulScene,
  greeting: greetingScene,
  presenting: presentingScene,
  voices: voicesScene,
  clips: clipsScene,
  companion: companionScene,
  "scene-changes": studioScene,
};
