import { z } from "zod";
import type { GameAsk, GameDefinition, Row } from "../../module/game";
import { commanded, one, said, sampleViewer } from "../../module/samples";
import { moneyInWords } from "../../signals/money";
import { counted, seconds } from "../../words/sentence";
import { clipsActions } from "./actions";
import { laneDue, nextOf, opensMs } from "./lane";
import { clipsStep } from "./rules";
import { type ClipsDust, freshDust } from "./outcome";
import {
  type Clip,
  type ClipsDurable,
  clipsDefaults,
  clipsDurableSchema,
  type ClipsSettings,
  clipsSettingsSchema,
  freshClips,
} from "./settings";
import { clipsNoteInShort, clipsNoteInWords, clipsSentences, clipsToViewers } from "./words";

const n = z.int().min(0);
const address = z.string().max(2_000);
const source = z.string().regex(/^(?:[0-9a-f]{64})?$/);
const stretch = { startMs: z.int().min(0).max(7_200_000), ms: z.int().min(500).max(3_600_000).nullable(), title: z.string().max(80) };
const sample = (times: number): string => `https://clips.marsh.example/sail.webm 0:0${times % 9} 6s my first sail`;

const told = (c: Clip) => ({
  n: c.n,
  name: c.viewer?.name ?? "",
  title: c.title,
  address: c.address,
  startMs: c.startMs,
  ms: c.facts?.ms ?? c.ms,
  phase: c.phase,
  askedMs: c.askedMs,
  paid:
    c.pay.by === "points" || c.pay.by === "money"
      ? { by: c.pay.by, amount: c.pay.amount, currency: c.pay.by === "money" ? c.pay.currency : "" }
      : null,
  facts: c.facts,
});

/** Short films that viewers send, RULES section 17. */
export const clips: GameDefinition<ClipsSettings, ClipsDurable, ClipsDust, never> = {
  kind: "clips",
  name: "clips",
  offer: {
    name: "clips",
    about:
      "Viewers send a few seconds of a film, by points or a tip; a moderator sees its stills, and it plays in a window with a curtain.",
  },
  newNames: ["Clips", "The little window", "Lantern show"],
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
  view: (settings, durable, audience) => {
    const { on, held, now, queue, lately, barred, owed } = durable;
    if (audience === "viewer")
      return {
        on,
        word: settings.word,
        perSecond: settings.points.perSecond,
        least: settings.points.least,
        usualMs: settings.usualMs,
        mostMs: settings.mostMs,
        approve: settings.approve,
        waiting: queue.length,
      };
    const { looks, volume } = settings;
    const { clip } = now ?? {};
    const film = clip?.facts ?? null;
    if (audience === "overlay")
      return {
        on,
        looks,
        now:
          now === null || clip === undefined || film === null
            ? null
            : {
                n: clip.n,
                name: looks.name ? (clip.viewer?.name ?? "") : "",
                line: looks.line === "" ? clip.title : looks.line,
                url: film.url,
                poster: film.poster,
                ms: film.ms,
                fromMs: now.sinceMs + opensMs,
                shown: now.shown,
                volume: volume / 100,
                width: film.width,
                height: film.height,
              },
      };
    return {
      on,
      held,
      now: now === null ? null : { ...told(now.clip), shown: now.shown, seen: now.seen, sinceMs: now.sinceMs, untilMs: now.untilMs },
      next: nextOf(durable)?.n ?? null,
      waiting: queue.length,
      clips: queue.map(told),
      lately: lately.map((c) => ({ ...told(c), atMs: c.atMs, ended: c.ended })),
      barred: { viewers: barred.viewers.map((v) => v.name), files: barred.files },
      owed,
    };
  },
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
  stands: (view) => (view["held"] === true ? "held" : `${counted(Number(view["waiting"] ?? 0), "clip")} waiting`),
  asks: (view) => [...waitsForYes(view), ...isOwed(view)],
  told: {
    "clips/shown": {
      words: "a clip was shown",
      unit: ["second", "seconds"],
      from: ["send", "own", "again", "play"],
      logged: true,
      example: "my first sail",
      tape: ({ text, by }) => ({ tone: "slate", weight: 2, label: `Clip${by === "" ? "" : ` of ${by}`}${text === "" ? "" : `: ${text}`}` }),
    },
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
  actions: clipsActions,
  samples: [
    {
      id: "send",
      label: "Somebody sends one",
      key: "q",
      weight: 4,
      make: ({ settings, durable, times }) => {
        const { word, approve } = settings as ClipsSettings;
        const viewer = sampleViewer(times);
        const made = (durable as ClipsDurable).made + 1;
        return {
          says: `${viewer.name} sends six seconds of a film`,
          signals: [
            { afterMs: 0, signal: said({ ...viewer, id: `${viewer.id}-${times}` }, `${word} ${sample(times)}`) },
            // In a preview nobody fetches films: a drawn one comes at once.
            { afterMs: 600, signal: commanded({ do: "filmed", n: made, facts: drawn, sha: `sample-${times}` }) },
            ...(approve ? [{ afterMs: 1_600, signal: commanded({ do: "approve", n: made }) }] : []),
            { afterMs: 3_000, signal: commanded({ do: "seen", n: made }) },
          ],
        };
      },
    },
    {
      id: "tip",
      label: "A tip with one",
      key: "w",
      weight: 2,
      make: ({ settings, durable, times }) => {
        const viewer = sampleViewer(times + 3);
        const made = (durable as ClipsDurable).made + 1;
        return {
          says: `${viewer.name} tips 5.00 and names a film`,
          signals: [
            {
              afterMs: 0,
              signal: {
                kind: "tip",
                viewer,
                amountMinor: 500,
                currency: "EUR",
                homeMinor: 500,
                text: `${(settings as ClipsSettings).word} ${sample(times + 4)}`,
              },
            },
            { afterMs: 600, signal: commanded({ do: "filmed", n: made, facts: drawn, sha: `sample-t${times}` }) },
            { afterMs: 1_600, signal: commanded({ do: "approve", n: made }) },
            { afterMs: 3_000, signal: commanded({ do: "seen", n: made }) },
          ],
        };
      },
    },
    {
      id: "bad",
      label: "A broken one",
      weight: 1,
      make: ({ durable }) =>
        one("the film can’t be read", commanded({ do: "not-filmed", n: (durable as ClipsDurable).made, code: "video/broken", facts: {} })),
    },
    { id: "hide", label: "Hide it", key: "e", weight: 1, make: () => one("you hide it", commanded({ do: "hide" })) },
    { id: "show", label: "Show it", key: "r", weight: 1, make: () => one("you show it", commanded({ do: "show" })) },
    { id: "skip", label: "Skip it", key: "t", weight: 1, make: () => one("you skip it", commanded({ do: "skip" })) },
    { id: "hold", label: "Hold", weight: 0, make: () => one("you hold what waits", commanded({ do: "hold" })) },
    { id: "go-on", label: "Go on", weight: 1, make: () => one("you let it go on", commanded({ do: "go-on" })) },
  ],
  place: { x: 0.66, y: 0.06, width: 0.31, height: 0.36 },
  previewPlace: { x: 0.2, y: 0.08, width: 0.6, height: 0.7 },
  unsaid: [],
  takeBack: ({ did, facts = {} }) => {
    const number = facts["n"];
    if (typeof number !== "number") return [];
    const drop = { label: "Leave it out", did: "It was given back.", command: { do: "drop", n: number } };
    const skip = { label: "Skip it", did: "It was skipped.", command: { do: "skip" } };
    if (did === "clips/taken" || did === "clips/asks" || did === "clips/made" || did === "clips/approved") return [drop, skip];
    return did === "clips/plays" || did === "clips/shown" ? [skip] : [];
  },
  noteInWords: clipsNoteInWords,
  noteInShort: clipsNoteInShort,
};

/** A film that is there without being fetched: the scene draws it. */
const drawn = {
  url: "",
  poster: "",
  strip: null,
  ms: 6_000,
  width: 16,
  height: 9,
  audible: true,
  black: false,
  flashes: "none",
  flashesAtMs: 0,
};

// Views of operators are written above.
type Told = ReturnType<typeof told>;
const waitsForYes = (view: Row): readonly GameAsk[] =>
  (view["clips"] as readonly Told[])
    .filter((c) => c.phase === "asks")
    .map((c) => ({
      id: `clip.${c.n}`,
      sinceMs: c.askedMs,
      words: `Let this clip play? ${c.title === "" ? "" : `“${c.title}”, `}${seconds(c.ms)}`,
      about: c.name,
      ...(c.facts?.strip == null ? {} : { strip: c.facts.strip }),
      main: { label: "Let it play", command: { do: "approve", n: c.n } },
      other: { label: "Leave it out", command: { do: "drop", n: c.n } },
    }));
const isOwed = (view: Row): readonly GameAsk[] =>
  (view["owed"] as ClipsDurable["owed"]).map((o) => ({
    id: `owed.${o.id}`,
    sinceMs: o.atMs,
    words: `${moneyInWords(o.minor, o.currency)} is owed back: ${o.why}${o.title === "" ? "" : ` (“${o.title}”)`}`,
    about: o.viewer?.name ?? "somebody unknown",
    main: { label: "Paid back", command: { do: "settled", n: o.id } },
    other: o.viewer === null ? null : { label: "For their next", command: { do: "credit", n: o.id } },
  }));

function clipResult(body: Row): string {
  const seenMs = Number(body["seenMs"]);
  const paid = Number(body["paid"]);
  const price =
    body["by"] === "points" && paid > 0
      ? `, for ${counted(paid, "point")}`
      : body["by"] === "money"
        ? `, for ${moneyInWords(paid, String(body["currency"]))}`
        : "";
  return `${seenMs <= 0 ? "never seen" : `seen for ${seconds(seenMs)}`}${body["skipped"] === true ? ", skipped" : ""}${price}`;
}
