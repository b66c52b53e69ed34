import { z } from "zod";
import type { GameDefinition } from "../../module/game";
import { laneDue } from "./lane";
import { type ClipsDust, freshDust } from "./outcome";
import { clipsStep, takesText } from "./rules";
import { clipsSamples } from "./samples";
import { clipsDefaults, type ClipsDurable, clipsDurableSchema, type ClipsSettings, clipsSettingsSchema, freshClips } from "./settings";
import { clipResult, clipsView } from "./view";
import { clipsSentences, clipsToViewers } from "./words";
import { clipsFront } from "./front";

const n = z.int().min(0);
const address = z.string().max(2_000);
const source = z.string().regex(/^(?:[0-9a-f]{64})?$/);
const stretch = { startMs: z.int().min(0).max(7_200_000), ms: z.int().min(500).max(3_600_000).nullable(), title: z.string().max(80) };

/** Short films that viewers send, RULES section 17. */
export const clips: GameDefinition<ClipsSettings, ClipsDurable, ClipsDust, never> = {
  ...clipsFront,
  setUps: [
    {
      id: "trust",
      name: "Without a yes",
      about: "Clips that pass the checks begin by themselves.",
      settings: { ...clipsDefaults, approve: false },
    },
    {
      id: "curtain",
      name: "Behind the curtain",
      about: "Clips begin hidden, and a moderator opens the curtain.",
      settings: { ...clipsDefaults, approve: false, shownAtOnce: false },
    },
    {
      id: "tips",
      name: "For tips alone",
      about: "Money buys seconds; points buy none.",
      settings: { ...clipsDefaults, points: { perSecond: 0, least: 0 } },
    },
  ],
  settings: clipsSettingsSchema,
  defaults: clipsDefaults,
  durable: clipsDurableSchema,
  freshDurable: freshClips,
  freshDust,
  step: clipsStep,
  takesText,
  hears: ["message", "tip"],
  forget: (durable, viewer) => ({
    ...durable,
    // What they wait for is still theirs to be given back; their name goes.
    queue: durable.queue.map((c) => (c.viewer?.id === viewer ? { ...c, title: "", viewer: { id: viewer, name: "" } } : c)),
    lately: durable.lately.filter((c) => c.viewer?.id !== viewer),
    credits: durable.credits.filter((c) => c.id !== viewer),
    barred: { ...durable.barred, viewers: durable.barred.viewers.filter((v) => v.id !== viewer) },
  }),
  dueMs: (settings, durable) => laneDue(settings, durable),
  commands: {
    take: z.object({ address, source, ...stretch, answer: z.boolean() }),
    mine: z.object({
      address: address.default(""),
      source: source.default(""),
      from: z.string().max(9).default(""),
      seconds: z.string().max(3),
      title: z.string().max(80).default(""),
    }),
    // A form's fields are texts.
    withdraw: z.object({ n: z.coerce.number().int().min(0) }),
    filmed: z.object({ n, facts: z.unknown(), sha: z.string().max(64) }),
    "not-filmed": z.object({
      n,
      code: z.string().max(60),
      facts: z.record(z.string(), z.union([z.string(), z.number(), z.boolean(), z.null()])),
    }),
    seen: z.object({ n }),
    approve: z.object({ n }),
    drop: z.object({ n }),
    front: z.object({ n }),
    move: z.object({ n, by: z.int().min(-50).max(50) }),
    replay: z.object({ n }),
    settled: z.object({ n }),
    credit: z.object({ n }),
    "bar-file": z.object({ n }),
    "let-file": z.object({ sha: z.string().max(64) }),
  },
  // What viewers paid with points lies in the pool until their clip has been shown, or is given back.
  pool: ({ queue, now }) =>
    [...queue, ...(now === null ? [] : [now.clip])].reduce((sum, c) => sum + (c.pay.by === "points" ? c.pay.amount : 0), 0),
  viewerCommands: ["mine", "withdraw"],
  chatWords: (settings) => [settings.word],
  wordsForViewers: (settings) => [{ word: settings.word, what: "show a few seconds of a film" }],
  mine: (_, { queue, now, credits }, viewer) => {
    const own = queue.filter((c) => c.viewer?.id === viewer);
    const plays = now?.clip.viewer?.id === viewer;
    const credit = credits.find((c) => c.id === viewer)?.minor ?? 0;
    if (own.length === 0 && !plays && credit === 0) return null;
    return {
      plays,
      credit,
      clips: own.map((c) => ({ n: c.n, title: c.title, phase: c.phase, place: queue.indexOf(c) + 1, ms: c.ms })),
    };
  },
  view: clipsView,
  sentences: clipsSentences,
  toldToViewers: clipsToViewers,
  hints: (settings) => [
    ...(!settings.approve && settings.byThemselves && settings.shownAtOnce
      ? [{ id: "open", text: "Whatever a viewer sends is on the picture without anybody having looked at it.", path: "approve" }]
      : []),
    ...(settings.points.perSecond === 0 && settings.tips.perSecond === 0
      ? [
          {
            id: "unsold",
            text: "Nobody can send a clip but by a reward or a rule: neither points nor tips buy any.",
            path: "points.perSecond",
          },
        ]
      : []),
    ...(settings.usualMs > settings.mostMs
      ? [{ id: "usual", text: "The usual length is over the longest: the longest counts.", path: "usualMs" }]
      : []),
  ],
  aired: {
    clip: (body) => ({
      how: "a clip",
      what: `${String(body["title"]) || "without a title"}: ${clipResult(body)}`,
      link: String(body["address"] ?? ""),
    }),
  },
  rounds: {
    kept: {
      clip: (body) => ({
        title: String(body["title"]) === "" ? "a clip" : String(body["title"]),
        result: clipResult(body),
        people: null,
        round: "",
      }),
    },
  },
  samples: clipsSamples,
};
