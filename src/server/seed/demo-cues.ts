import { alertLookDefaults } from "../../core/alerts/alert";
import { type Cue, type CueBook, newCue } from "../../core/cues/settings";
import { potId } from "./demo-brimful";
import { act, bossId, flock, show } from "./demo-effects";
import { companionId, scenesId } from "./demo-people";
import { wheelId } from "./demo-wheel";

const cue = (id: string, name: string, key: string, part: Partial<Cue>): Cue => ({ ...newCue(id, name), key, ...part });
export const demoCues = (key: (word: string) => string): CueBook => ({
  schema: 3,
  hiddenWords: [],
  cues: [
    cue("kiln-door", "Kiln door", "q", {
      word: "!door",
      effects: [show({ picture: "kiln-fire-sheet", sound: "kiln-door", text: "The kiln is open", queue: "", ms: 3_500 })],
    }),
    cue("golden-flock", "Golden flock", "w", { cooldownMs: 8_000, effects: [flock(80, "chosen", [key("goldMend"), key("kilnGlow")])] }),
    cue("break", "Tea break", "e", {
      kind: "on-off",
      cooldownMs: 0,
      effects: [
        show({ picture: "potters-break", text: "Back in five minutes", queue: "", look: { ...alertLookDefaults, size: 0.4, y: 0.45 } }),
      ],
      offEffects: [{ do: "sound", sound: "small-bell", volume: 80, queue: "" }],
    }),
    cue("knock", "Knock on Old Spall", "r", { effects: [act(bossId, "damage", { amount: 50 })] }),
    cue("bell", "Bell for a good pull", "a", { effects: [{ do: "sound", sound: "small-bell", volume: 80, queue: "sounds" }] }),
    cue("ash-rain", "Ash rain", "s", { cooldownMs: 30_000, effects: [flock(60, "most-used", [], "rain")] }),
    cue("shake-pot", "Shake the pot", "", { cooldownMs: 5_000, effects: [act(potId, "shake", { strength: 100 })] }),
    cue("spin", "Spin the glaze wheel", "d", { cooldownMs: 0, effects: [act(wheelId, "spin", {})] }),
    cue("bench-tune", "A tune at the workbench", "", {
      kind: "on-off",
      cooldownMs: 0,
      effects: [{ do: "sound", sound: "workbench-tune", volume: 70, queue: "" }, act(companionId, "dance", {})],
      offEffects: [act(companionId, "calm", {})],
    }),
    cue("look-in", "A look into the kiln", "", {
      cooldownMs: 5_000,
      effects: [act(scenesId, "go", { scene: "Kiln door", holdMs: 10_000 })],
    }),
    cue("ask-spall", "What does Spall do", "z", { cooldownMs: 20_000, effects: [act(bossId, "tell-rules", {})] }),
  ],
});
