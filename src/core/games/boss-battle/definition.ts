import type { GameDefinition } from "../../module/game";
import { bossStep, freshBoss } from "./rules";
import { bossLab } from "./lab";
import { bossSamples } from "./samples";
import { bossDefaults, type BossDurable, bossDurableSchema, type BossEffect, type BossSettings, bossSettingsSchema } from "./settings";
import { bossView } from "./view";
import { bossRulesInWords, bossSentences } from "./words";
import { bossHints } from "./hints";
import { bossBattleFront } from "./front";

/** The boss battle, RULES section 3. Everything it does is durable. */
export const bossBattle: GameDefinition<BossSettings, BossDurable, null, BossEffect> = {
  ...bossBattleFront,
  setUps: [
    {
      id: "short",
      name: "A short fight",
      about: "300 health: it falls several times in an evening, and each time somebody new takes its place.",
      settings: { ...bossDefaults, health: 300 },
    },
    {
      id: "room",
      name: "To match the room",
      about: "Each next one has the health that lasts a quarter of an hour at the pace of now.",
      settings: { ...bossDefaults, growth: { ...bossDefaults.growth, how: "matched" } },
    },
    {
      id: "chat",
      name: "Chat strikes too",
      about: "Every message does 1 damage, so that all can join in. The champion’s own hurts like anyone’s.",
      settings: {
        ...bossDefaults,
        hits: { ...bossDefaults.hits, message: { rate: { give: 1, per: 1 }, most: 0 } },
        champion: { own: "hurt", healing: "full" },
      },
    },
  ],
  settings: bossSettingsSchema,
  defaults: bossDefaults,
  durable: bossDurableSchema,
  freshDurable: freshBoss,
  freshDust: () => null,
  step: bossStep,
  view: bossView,
  sentences: (settings, { home }) => bossSentences(settings, home),
  toldToViewers: (settings, { home }) => bossRulesInWords(settings, home),
  hints: (settings, { home }) => bossHints(settings, home),
  lab: bossLab,
  samples: bossSamples,
};
