import { z } from "zod";
import type { GameDefinition } from "../../module/game";
import { commanded, one, platformSamples } from "../../module/samples";
import { studioDue, studioStep } from "./rules";
import {
  freshStudio,
  sceneName,
  studioDefaults,
  type StudioDurable,
  studioDurableSchema,
  type StudioSettings,
  studioSettingsSchema,
} from "./settings";
import { studioSentences, studioToViewers } from "./words";
import { studioFront } from "./front";

/** In a preview: a made-up studio, which does as it is told. */
const scenesOfPreview = ["Throwing", "Kiln door", "Glaze bench"] as const;
const told = (current: string): ReturnType<typeof commanded> =>
  commanded({ do: "stands", connected: true, name: "a made-up studio", scenes: [...scenesOfPreview], current });

const n = z.int().min(0);

/** Scenes of the studio, RULES section 18: what the broadcast software shows follows what happens, and goes back. */
export const studio: GameDefinition<StudioSettings, StudioDurable, null, never> = {
  ...studioFront,
  settings: studioSettingsSchema,
  defaults: studioDefaults,
  durable: studioDurableSchema,
  freshDurable: freshStudio,
  freshDust: () => null,
  // Which games are shown may hang on the scene that is on.
  onStage: true,
  step: studioStep,
  hears: ["follow", "membership", "gift", "tip", "reaction", "raid", "host", "live", "ended"],
  dueMs: (_, durable) => studioDue(durable),
  commands: {
    "switch-to": z.object({ scene: sceneName }),
    stands: z.object({
      connected: z.boolean(),
      name: z.string().max(80),
      scenes: z.array(sceneName).max(200),
      current: sceneName.nullable(),
    }),
    went: z.object({ n }),
    "not-went": z.object({ n, why: z.string().max(200) }),
  },
  view: (_, { on, studio: now, hold, asked, waiting, trouble, made }, audience) => {
    if (audience === "viewer") return { on };
    const { connected, scenes, current, name } = now;
    const holds = hold === null ? null : { scene: hold.scene, back: hold.back, n: hold.untilMs };
    if (audience === "overlay") return { on, connected, scenes, current, hold: holds, alerts: [] };
    return {
      on,
      connected,
      studio: name,
      scenes,
      current,
      hold: hold === null ? null : { scene: hold.scene, back: hold.back, untilMs: hold.untilMs, by: hold.by },
      asked: asked?.scene ?? null,
      waiting: waiting.map((w) => w.scene),
      trouble,
      made,
    };
  },
  sentences: studioSentences,
  toldToViewers: studioToViewers,
  provides: (_, { studio: now }) => ({ scene: now.current }),
  lists: () => ({ scenes: [] }),
  knowsOfStudio: ({ studio: now, asked }) => ({ ...now, busy: asked !== null }),
  samples: [
    {
      id: "connect",
      label: "A studio comes",
      key: "a",
      weight: 2,
      make: () => one("a made-up studio with three scenes is connected", told("Throwing")),
    },
    ...platformSamples.filter((s) => ["follow", "membership", "gift", "tip", "raid"].includes(s.id)),
    {
      id: "go",
      label: "A scene for 5 s",
      key: "u",
      weight: 4,
      make: ({ durable, times }) => {
        const now = durable as StudioDurable;
        const scene = scenesOfPreview[(times + 1) % scenesOfPreview.length] ?? "Throwing";
        // A studio that is there is told, and answers at once.
        return {
          says: `a rule goes to “${scene}” for five seconds`,
          signals: [
            ...(now.studio.connected ? [] : [{ afterMs: 0, signal: told("Throwing") }]),
            { afterMs: 0, signal: commanded({ do: "go", scene, holdMs: 5_000 }) },
            { afterMs: 200, signal: commanded({ do: "went", n: now.made + 1 }) },
          ],
        };
      },
    },
    {
      id: "by-hand",
      label: "Somebody moves on",
      key: "i",
      weight: 2,
      make: ({ durable }) => {
        const { current } = (durable as StudioDurable).studio;
        const next = scenesOfPreview[(scenesOfPreview.findIndex((s) => s === current) + 1) % scenesOfPreview.length] ?? "Throwing";
        return one(`somebody goes to “${next}” by hand`, told(next));
      },
    },
    {
      id: "gone",
      label: "The studio goes",
      weight: 1,
      make: () =>
        one("the studio does not answer any more", commanded({ do: "stands", connected: false, name: "", scenes: [], current: null })),
    },
    { id: "back", label: "Back now", key: "o", weight: 1, make: () => one("you go back", commanded({ do: "back" })) },
  ],
};
