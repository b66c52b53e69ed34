import { z } from "zod";
import { voicesLab } from "./lab";
import type { GameDefinition } from "../../module/game";
import { commanded, one, said, sampleViewer } from "../../module/samples";
import { laneDue } from "./lane";
import { freshDust, type VoicesDust, voicesStep } from "./rules";
import {
  freshVoices,
  voicesDefaults,
  type VoicesDurable,
  voicesDurableSchema,
  type VoicesSettings,
  voicesSettingsSchema,
} from "./settings";
import { voicesSentences, voicesToViewers } from "./words";
import { voicesFront } from "./front";

const n = z.int().min(0);
const texts = [
  "the tall vase will survive, I am quite sure of it",
  "that rim!! so gooooooood https://example.com/rim look",
  "wobblePot wobblePot wobblePot hello hello hello hello 🫖🫖🫖",
  "good evening from the ferry",
];

/** Spoken messages, RULES section 16; and messages that are only shown. */
export const voices: GameDefinition<VoicesSettings, VoicesDurable, VoicesDust, never> = {
  ...voicesFront,
  setUps: [
    {
      id: "approve",
      name: "Only with a yes",
      about: "Every text waits in the booth until a moderator lets it through.",
      settings: { ...voicesDefaults, approve: true },
    },
    {
      id: "members",
      name: "For members",
      about: "Members alone are spoken, with no pause; everybody else by reward.",
      settings: { ...voicesDefaults, roles: ["member", "guest", "moderator"], ownRestMs: 0 },
    },
    {
      id: "shown",
      name: "Shown, not spoken",
      about: "Messages with a tip stand on the picture for a while. Nothing is heard.",
      settings: { ...voicesDefaults, how: "shown", words: [], tipLeast: 100 },
    },
  ],
  settings: voicesSettingsSchema,
  defaults: voicesDefaults,
  durable: voicesDurableSchema,
  freshDurable: freshVoices,
  freshDust,
  step: voicesStep,
  leavesTaken: ({ taken }) => !taken,
  hears: ["message", "tip"],
  forget: (durable, viewer) => ({
    ...durable,
    waiting: durable.waiting.filter((t) => t.viewer?.id !== viewer),
    own: durable.own.filter((o) => o.id !== viewer),
  }),
  dueMs: (_, durable) => laneDue(durable),
  commands: {
    take: z.object({ shown: z.string().max(600), spoken: z.string().max(700), voice: z.string().max(26), answer: z.boolean() }),
    made: z.object({ n, url: z.string().regex(/^(\/speech\/[0-9a-f]{64})?$/), ms: z.int().min(0).max(600_000) }),
    "not-made": z.object({ n }),
    approve: z.object({ n }),
    drop: z.object({ n }),
    "usual-voice": z.object({}),
  },
  viewerCommands: ["usual-voice"],
  chatWords: (settings) => settings.words.map((w) => w.word),
  wordsForViewers: (settings) => settings.words.map((w) => ({ word: w.word, what: "have a message spoken" })),
  mine: (settings, { own }, viewer) => {
    const voice = own.find((o) => o.id === viewer)?.voice;
    return voice === undefined ? null : { voice: settings.voices.find((v) => v.id === voice)?.name ?? "" };
  },
  view: (settings, { on, held, now, waiting }, audience) => {
    if (audience === "viewer") return { on };
    const shown = now?.phase === "said" && now.text.shown !== "" ? now : null;
    if (audience === "overlay")
      return {
        on,
        now:
          shown === null
            ? null
            : {
                n: shown.text.n,
                name: shown.text.viewer?.name ?? "",
                text: shown.text.shown,
                ms: shown.untilMs - shown.sinceMs,
                spoken: shown.text.spoken !== "",
              },
        looks: settings.looks,
      };
    const nameOf = (id: string): string => settings.voices.find((v) => v.id === id)?.name ?? "";
    const told = (t: VoicesDurable["waiting"][number]) => ({
      n: t.n,
      name: t.viewer?.name ?? "",
      text: t.shown || t.spoken,
      voice: t.spoken === "" ? "" : nameOf(t.voice),
      asks: t.asks,
      fromMs: t.fromMs,
    });
    return {
      on,
      held,
      now: now === null ? null : { ...told(now.text), phase: now.phase, untilMs: now.untilMs },
      waiting: waiting.length,
      texts: waiting.map(told),
      voices: settings.voices.map((v) => v.name),
    };
  },
  sentences: (settings, { home }) => voicesSentences(settings, home),
  toldToViewers: (settings) => voicesToViewers(settings),
  hints: (settings) => [
    ...(settings.every && !settings.approve && settings.ownRestMs === 0
      ? [{ id: "flood", text: "Every message is spoken without a pause: a lively room will be talked over.", path: "ownRestMs" }]
      : []),
    ...(settings.words.some((w) => w.voice !== "" && !settings.voices.some((v) => v.id === w.voice))
      ? [{ id: "voice-gone", text: "A word asks for a voice that is gone; the usual one speaks." }]
      : []),
  ],
  aired: {
    spoken: (body) => ({
      how: body["how"] === "shown" ? "a text shown" : body["how"] === "spoken" ? "spoken" : "spoken and shown",
      what: String(body["text"] ?? ""),
      link: "",
    }),
  },
  lists: ({ voices: kept }) => ({ voices: kept.map((v) => v.name) }),
  lab: voicesLab,
  samples: [
    {
      id: "say",
      label: "Somebody says",
      key: "q",
      weight: 6,
      make: ({ settings, durable, times }) => {
        const word = (settings as VoicesSettings).words[0]?.word ?? "";
        const text = texts[times % texts.length] ?? "";
        const viewer = sampleViewer(times);
        return {
          says: `${viewer.name} writes “${`${word} ${text}`.slice(0, 40)}…”`,
          signals: [
            { afterMs: 0, signal: said({ ...viewer, id: `${viewer.id}-${times}` }, `${word} ${text}`.trim()) },
            // In a preview nobody speaks: it is as if it took a moment.
            { afterMs: 400, signal: commanded({ do: "made", n: (durable as VoicesDurable).made + 1, url: "", ms: 3_600 }) },
          ],
        };
      },
    },
    {
      id: "tip",
      label: "A tip with a text",
      key: "w",
      weight: 3,
      make: ({ durable, times }) => {
        const viewer = sampleViewer(times);
        return {
          says: `${viewer.name} tips 10.00 with a text`,
          signals: [
            {
              afterMs: 0,
              signal: {
                kind: "tip",
                viewer,
                amountMinor: 1_000,
                currency: "EUR",
                homeMinor: 1_000,
                text: texts[times % texts.length] ?? "",
              },
            },
            { afterMs: 400, signal: commanded({ do: "made", n: (durable as VoicesDurable).made + 1, url: "", ms: 3_600 }) },
          ],
        };
      },
    },
    { id: "skip", label: "Skip", key: "i", weight: 1, make: () => one("you skip what is said", commanded({ do: "skip" })) },
    { id: "clear", label: "Drop what waits", weight: 1, make: () => one("you drop what waits", commanded({ do: "clear" })) },
    { id: "hold", label: "Hold", weight: 1, make: () => one("you hold what waits", commanded({ do: "hold" })) },
    { id: "go-on", label: "Go on", weight: 2, make: () => one("you let it go on", commanded({ do: "go-on" })) },
  ],
};
