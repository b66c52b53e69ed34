import { z } from "zod";
import type { GameDefinition } from "../../module/game";
import { counted } from "../../words/sentence";
import { greetingActions } from "./actions";
import { laneDue } from "./lane";
import { greetingNoteInShort, greetingNoteInWords } from "./notes";
import { greetingRows, greetingStep } from "./rules";
import { greetingSamples } from "./samples";
import {
  freshGreeting,
  greetingDefaults,
  type GreetingDurable,
  greetingDurableSchema,
  type GreetingSettings,
  greetingSettingsSchema,
} from "./settings";
import { greetingView } from "./view";
import { greetingSentences, toldToViewers } from "./words";

/** Greetings, RULES section 13: whoever writes for the first time in a show is greeted by name. */
export const greeting: GameDefinition<GreetingSettings, GreetingDurable, null, never> = {
  kind: "greeting",
  name: "greeting",
  offer: {
    name: "greetings",
    about: "Whoever writes for the first time in a show is greeted by name and face, one after another, in words of yours.",
  },
  newNames: ["Come in", "At the door", "Hello there"],
  setUps: [
    {
      id: "new-only",
      name: "New faces only",
      about: "Only who was never here before is greeted, for longer.",
      settings: {
        ...greetingDefaults,
        showMs: 9_000,
        lines: { ...greetingDefaults.lines, away: [], everybody: [] },
      },
    },
    {
      id: "chat",
      name: "In chat as well",
      about: "Everybody is greeted on the picture and by a line in chat.",
      settings: { ...greetingDefaults, chat: true, showMs: 4_000 },
    },
  ],
  settings: greetingSettingsSchema,
  defaults: greetingDefaults,
  durable: greetingDurableSchema,
  freshDurable: freshGreeting,
  freshDust: () => null,
  rows: greetingRows,
  step: greetingStep,
  hears: ["arrival", "message", "raid", "live", "ended"],
  forget: (durable, viewer) => ({
    ...durable,
    greeted: durable.greeted.remove(viewer),
    forgot: { ...durable.forgot, ids: durable.forgot.ids.filter((id) => id !== viewer) },
    entrances: durable.entrances.filter((e) => e.id !== viewer),
  }),
  dueMs: (_, durable) => laneDue(durable),
  commands: { "drop-mine": z.object({}) },
  viewerCommands: ["drop-mine"],
  mine: (_, { entrances }, viewer) => {
    const own = entrances.find((e) => e.id === viewer);
    return own === undefined ? null : { line: own.line, picture: own.picture !== "", sound: own.sound !== "" };
  },
  view: greetingView,
  sentences: (settings) => greetingSentences(settings),
  toldToViewers: (settings) => toldToViewers(settings),
  hints: (settings) =>
    Object.values(settings.lines).every((lines) => lines.length === 0)
      ? [{ id: "no-lines", text: "No line is written yet, so nobody is greeted." }]
      : settings.lines.everybody.length === 0 && settings.lines.fresh.length === 0
        ? [{ id: "few", text: "There are lines for some only: most viewers are not greeted." }]
        : [],
  stands: (view) => `${counted(Number(view["greeted"] ?? 0), "viewer")} greeted`,
  told: {
    "greeting/greeted": { words: "somebody is greeted", unit: ["show", "shows"], from: ["greet"], example: "pulls up a chair" },
  },
  actions: greetingActions,
  samples: greetingSamples,
  place: { x: 0.27, y: 0.04, width: 0.4, height: 0.17 },
  previewPlace: { x: 0.14, y: 0.34, width: 0.72, height: 0.3 },
  unsaid: ["greeting/off", "greeting/ignored", "greeting/streamer"],
  striking: ["greeting/greeted"],
  takeBack: ({ did, subject = "" }) =>
    did === "greeting/greeted"
      ? [
          { label: "End this greeting", did: "The greeting was ended.", command: { do: "skip" } },
          {
            label: `Greet ${subject} again`,
            did: `${subject} is greeted again with their next word.`,
            command: { do: "forget", name: subject },
          },
        ]
      : [],
  noteInWords: greetingNoteInWords,
  noteInShort: greetingNoteInShort,
};
