import { z } from "zod";
import type { GameDefinition } from "../../module/game";
import { laneDue } from "./lane";
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
import { greetingFront } from "./front";

/** Greetings, RULES section 13: whoever writes for the first time in a show is greeted by name. */
export const greeting: GameDefinition<GreetingSettings, GreetingDurable, null, never> = {
  ...greetingFront,
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
  samples: greetingSamples,
};
