import { z } from "zod";
import type { GameDefinition } from "../../module/game";
import { commanded, one, platformSamples, said, sampleViewer } from "../../module/samples";
import { companionDue, type CompanionDust, companionStep, freshDust } from "./rules";
import {
  companionDefaults,
  type CompanionDurable,
  companionDurableSchema,
  type CompanionSettings,
  companionSettingsSchema,
  figureGlaze,
  freshCompanion,
} from "./settings";
import { companionSentences, companionToViewers } from "./words";
import { companionFront } from "./front";

/** A companion, RULES section 15: a figure that lives on the stage and takes part. */
export const companion: GameDefinition<CompanionSettings, CompanionDurable, CompanionDust, never> = {
  ...companionFront,
  setUps: [
    {
      id: "crab",
      name: "A crab",
      about: "It stays at the foot of the picture and jumps at whatever falls.",
      settings: { ...companionDefaults, name: "Pinch", figure: "crab", looks: { ...companionDefaults.looks, glaze: figureGlaze.crab } },
    },
    {
      id: "snail",
      name: "A snail with a pot",
      about: "Slow and calm, and asleep early.",
      settings: {
        ...companionDefaults,
        name: "Slip",
        figure: "snail",
        sleepMin: 4,
        looks: { ...companionDefaults.looks, glaze: figureGlaze.snail },
      },
    },
    {
      id: "ember",
      name: "An ember of the kiln",
      about: "It burns brighter the better it is fed.",
      settings: {
        ...companionDefaults,
        name: "Cinder",
        figure: "ember",
        moodPerHour: 25,
        looks: { ...companionDefaults.looks, glaze: figureGlaze.ember },
      },
    },
  ],
  settings: companionSettingsSchema,
  defaults: companionDefaults,
  durable: companionDurableSchema,
  freshDurable: freshCompanion,
  freshDust,
  step: companionStep,
  hears: ["message", "arrival", "follow", "membership", "gift", "tip", "raid", "happened", "live", "ended"],
  dueMs: companionDue,
  commands: { wake: z.object({}), answer: z.object({ word: z.string().max(40), text: z.string().max(120) }) },
  chatWords: (settings) => settings.answers.map((a) => a.word),
  wordsForViewers: (settings) =>
    settings.answers.filter((a) => a.roles.includes("viewer")).map((a) => ({ word: a.word, what: `${settings.name} answers` })),
  view: (settings, durable, audience) => {
    const { on, asleep, dancing, doing, seed } = durable;
    // As it was when it last fell by a whole percent: pages need no clock of ours for it.
    const mood = Math.floor(durable.mood.thousandths / 1_000);
    if (audience === "viewer") return { on, name: settings.name, mood };
    const shown = doing === null ? null : { n: doing.n, state: doing.state, bubble: doing.bubble, ms: doing.untilMs - doing.sinceMs };
    if (audience === "overlay") {
      const { name, figure, walks, dances, looks } = settings;
      return { on, name, figure, mood, asleep, dancing, doing: shown, walks, dances, seed, looks };
    }
    return {
      on,
      name: settings.name,
      mood,
      asleep,
      dancing,
      doing: shown,
      waiting: durable.next.length,
      fed: durable.fed,
    };
  },
  sentences: (settings) => companionSentences(settings),
  toldToViewers: companionToViewers,
  samples: [
    ...platformSamples.filter((s) => s.id !== "host" && s.id !== "reaction"),
    {
      id: "arrives",
      label: "Somebody arrives",
      key: "u",
      weight: 5,
      make: ({ times }) =>
        one(`${sampleViewer(times).name} writes for the first time in this show`, {
          kind: "arrival",
          viewer: sampleViewer(times),
          shows: 3,
          beforeMs: null,
        }),
    },
    {
      id: "word",
      label: "A word it answers",
      key: "i",
      weight: 4,
      make: ({ settings, times }) => {
        const { answers } = settings as CompanionSettings;
        const word = answers[times % Math.max(1, answers.length)]?.word ?? "hello";
        return one(`${sampleViewer(times).name} writes “${word}”`, said(sampleViewer(times), word));
      },
    },
    {
      id: "feed",
      label: "Feed it",
      key: "o",
      weight: 3,
      make: ({ amount }) => one("you feed it", commanded({ do: "feed", amount: Math.min(100, amount) })),
    },
    { id: "dance", label: "Dance", key: "p", weight: 1, make: () => one("it dances", commanded({ do: "do", state: "dance", bubble: "" })) },
    { id: "sleep", label: "Sleep", weight: 1, make: () => one("it falls asleep", commanded({ do: "do", state: "sleep", bubble: "" })) },
  ],
};
