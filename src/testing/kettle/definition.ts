import { z } from "zod";
import { actionsOf } from "../../core/module/action";
import type { CommandOf } from "../../core/module/fields";
import type { GameDefinition } from "../../core/module/game";
import type { StepOutcome } from "../../core/module/module";
import { commanded, one, said, sampleViewer } from "../../core/module/samples";
import { fold } from "../../core/kernel/fold";
import { refusal } from "../../core/kernel/refusal";
import { count } from "../../core/words/sentence";

/**
 * A small game, kept for the tests alone: a word in chat fills a kettle by a cup; when it is full it whistles and is
 * empty again. It is added through the one line, and a test walks every place that must know of it.
 */
const settings = z.object({ schema: z.literal(1), word: z.string().min(1).max(20), cups: z.int().min(1).max(100) });
type Settings = z.infer<typeof settings>;
const durable = z.object({ on: z.boolean(), cups: z.int().min(0), whistles: z.int().min(0) });
type Durable = z.infer<typeof durable>;
const actions = actionsOf({
  pour: {
    label: "Pour",
    form: "Pour {cups} into {game}",
    input: { cups: { kind: "amount", label: "Cups", start: 2, min: 0, most: 100 } },
    quick: [{ label: "+1 cup", amount: 1 }],
    key: "p",
    word: "pour",
    tape: (input, by, byOperator) =>
      byOperator ? { tone: "slate", weight: 1, label: `${by} poured ${count(Number(input["cups"]))}` } : null,
  },
  empty: { label: "Empty", form: "Empty {game}", input: {}, key: "e", word: "empty", sure: true, done: "The kettle is empty." },
});
type KettleCommand = CommandOf<typeof actions> | Readonly<{ do: "switch"; on: boolean }>;
type Effect = Readonly<{ do: "whistle" | "fill"; cups: number }>;
type At = Readonly<{ settings: Settings; durable: Durable; transient: null }>;
type Outcome = StepOutcome<Durable, null, Effect>;

const still = (at: At): Outcome => ({ durable: at.durable, transient: null, effects: [], notes: [] });
const no = (at: At, code: string): Outcome => ({ ...still(at), notes: [{ refusal: refusal(code), count: 1 }] });

function fill(at: At, cups: number, who: Parameters<typeof nameless>[0], seq: number): Outcome {
  if (!at.durable.on) return no(at, "kettle/off");
  const level = at.durable.cups + cups;
  const full = level >= at.settings.cups;
  return {
    durable: full ? { ...at.durable, cups: 0, whistles: at.durable.whistles + 1 } : { ...at.durable, cups: level },
    transient: null,
    effects: [{ do: full ? "whistle" : "fill", cups: level }],
    notes: [{ did: full ? "kettle/whistled" : "kettle/filled", count: cups, subject: nameless(who), facts: { seq } }],
    ...(full ? { orders: [{ do: "emit", what: "kettle/whistled", viewer: who, amount: level, text: "tea" }] } : {}),
  };
}
const nameless = (
  who: Readonly<{ id: string; name: string; roles: readonly ("viewer" | "member" | "guest" | "moderator" | "streamer")[] }> | null,
) => who?.name ?? "someone";

export const kettle: GameDefinition<Settings, Durable, null, Effect> = {
  kind: "kettle",
  name: "kettle",
  offer: { name: "a kettle", about: "A word in chat fills it; when it is full it whistles." },
  newNames: ["The tin kettle", "The copper kettle"],
  settings,
  defaults: { schema: 1, word: "tea", cups: 5 },
  durable,
  freshDurable: () => ({ on: true, cups: 0, whistles: 0 }),
  freshDust: () => null,
  step: (at, signal) => {
    if (signal.kind === "message" && fold(signal.text) === fold(at.settings.word)) return fill(at, 1, signal.viewer, signal.seq);
    if (signal.kind !== "command") return still(at);
    const command = signal.command as KettleCommand;
    switch (command.do) {
      case "pour":
        return fill(at, command.cups, signal.viewer, signal.seq);
      case "empty":
        return { ...still(at), durable: { ...at.durable, cups: 0 }, notes: [{ did: "kettle/emptied", count: at.durable.cups }] };
      case "switch":
        return {
          ...still(at),
          durable: { ...at.durable, on: command.on },
          notes: [{ did: command.on ? "kettle/on" : "kettle/stopped", count: 1 }],
        };
    }
  },
  view: (s, d) => ({ on: d.on, cups: d.cups, of: s.cups }),
  sentences: (s) => [
    {
      id: "fills",
      parts: [
        "Who writes ",
        { path: "word", label: "Word", text: s.word, field: { kind: "text", most: 20, placeholder: "a word" } },
        " pours a cup; at ",
        { path: "cups", label: "Cups", text: count(s.cups), field: { kind: "whole", min: 1, max: 100 } },
        " it whistles.",
      ],
    },
  ],
  stands: (view) => `${count(Number(view["cups"]))} of ${count(Number(view["of"]))} cups`,
  told: {
    "kettle/whistled": {
      words: "a kettle whistles",
      unit: ["cup", "cups"],
      logged: true,
      tape: ({ by }) => ({ tone: "slate", weight: 3, label: `${by} made it whistle` }),
      from: ["pour"],
      example: "tea",
    },
  },
  actions,
  samples: [
    {
      id: "word",
      label: "A word",
      key: "q",
      weight: 5,
      make: ({ times, settings: s }) => one("one says it", said(sampleViewer(times), (s as Settings).word)),
    },
    { id: "pour", label: "Pour", weight: 1, make: ({ amount }) => one("you pour", commanded({ do: "pour", cups: amount })) },
  ],
  sampleAmount: { label: "Cups", start: 2 },
  place: { x: 0.02, y: 0.6, width: 0.2, height: 0.38 },
  unsaid: ["kettle/off"],
  striking: ["kettle/whistled"],
  takeBack: ({ did }) => (did === "kettle/filled" ? [{ label: "Empty it", did: "It was emptied.", command: { do: "empty" } }] : []),
  noteInWords: ({ did, refusal: why, count: n, subject }) => {
    if (why !== undefined) return "the kettle is off the stove";
    if (did === "kettle/filled") return `${subject ?? ""} poured ${count(n)}`;
    if (did === "kettle/whistled") return `${subject ?? ""} made it whistle`;
    return did === "kettle/emptied" ? `${count(n)} poured away` : did === "kettle/on" ? "on the stove" : "off the stove";
  },
  noteInShort: ({ did, count: n }) => (did === "kettle/filled" ? `+${count(n)}` : null),
};
