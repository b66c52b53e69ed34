import { List, Map as Entries } from "immutable";
import { z } from "zod";
import { happeningSchema } from "../../chance/record";
import type { ListChange } from "../../chance/scheme";
import { ruleEffectSchema } from "../../rules/effect";
import { roleSchema } from "../../signals/signal";
import { roles } from "../../signals/names";
import { checkTemplate } from "../../words/template";
import { replyKeys, replyOf } from "./replies";
import { mostTickets, owedStates } from "./limits";

export const mostPeople = 200_000;

const id = z.string().min(1).max(26);

export const prizeSchema = z.object({
  id,
  name: z.string().trim().min(1, "A prize needs a name.").max(60),
  /** How many of it. */
  count: z.int().min(1).max(1_000),
  /** How it is handed over, for the one who does it. */
  how: z.string().max(120),
});

export type Prize = z.infer<typeof prizeSchema>;

/** How a winner is shown: lifted out of the rack, stubs dealt and turned, names rolling by, names on a turning disc, or just told. */
export const presentations = ["rack", "dealt", "reel", "disc", "plain"] as const;

const colour = z.string().regex(/^#[0-9A-Fa-f]{6}$/);

/** A draw: who is in, what a ticket costs, how it is closed and drawn (RULES section 7). */
export const raffleSettingsSchema = z
  .object({
    schema: z.literal(1),
    title: z.string().trim().min(1, "A draw needs a title.").max(60),
    subtitle: z.string().max(80),
    /** Tickets, or the nearest of the numbers that viewers name. */
    by: z.enum(["tickets", "number"]),
    word: z.string().trim().min(1, "A draw needs a chat word.").max(30).regex(/^\S*$/u, "A chat word has no spaces."),
    /** Points for each ticket; 0 for none. */
    price: z.int().min(0).max(1_000_000_000),
    most: z.int().min(1).max(mostTickets),
    roles: z.array(roleSchema).min(1, "Someone must be allowed.").max(roles.length),
    /** Tickets are taken so often for a role; the highest that applies. */
    times: z.array(z.object({ role: roleSchema, times: z.int().min(2).max(100) })).max(roles.length),
    /** Names of viewers who may not enter, in whatever case. */
    barred: z.array(z.string().trim().min(1).max(80)).max(500),
    /** Shows, and days, for which a winner can't win again. */
    restShows: z.int().min(0).max(100),
    restDays: z.int().min(0).max(365),
    /** Somebody must have written within so many minutes; 0 for no such need. */
    chattedMin: z.int().min(0).max(240),
    number: z.object({ from: z.int().min(-1_000_000_000).max(1_000_000_000), to: z.int().min(-1_000_000_000).max(1_000_000_000) }),
    tries: z.int().min(1).max(20),
    locks: z.enum(["hand", "time"]),
    openMs: z
      .int()
      .min(10_000)
      .max(24 * 3_600_000),
    shake: z.boolean(),
    shakers: z.int().min(1).max(50),
    shakeMs: z.int().min(3_000).max(120_000),
    winners: z.int().min(1).max(100),
    /** Within so long a winner must write; 0 for no such need. */
    claimMs: z.int().min(0).max(3_600_000),
    prizes: z.array(prizeSchema).max(50),
    /** The word with which a viewer asks for their chance; empty for none. */
    chanceWord: z.string().trim().max(30).regex(/^\S*$/u, "A chat word has no spaces."),
    answers: z.enum(["all", "refusals", "nothing"]),
    /** What chat is told, case by case; what is left out is told in the usual words. */
    replies: z.partialRecord(z.enum(replyKeys), z.string().max(300)),
    /** What is done with each winner, as rules do it: a sound, a picture. */
    effects: z.array(ruleEffectSchema).max(10),
    looks: z.object({
      present: z.enum(presentations),
      /** The winner large, with the prize. */
      panel: z.boolean(),
      /** Names as they come in. */
      names: z.boolean(),
      tag: colour,
      wood: colour,
    }),
  })
  .refine((s) => s.number.from < s.number.to, { message: "The numbers must go up: the first is below the last.", path: ["number", "to"] })
  .superRefine((s, at) => {
    for (const key of replyKeys) {
      const checked = checkTemplate(s.replies[key] ?? "", replyOf(key).variables);
      if (!checked.ok)
        at.addIssue({ code: "custom", message: "A reply names a variable that is none there, or lacks a brace.", path: ["replies", key] });
    }
  });

export type RaffleSettings = z.infer<typeof raffleSettingsSchema>;

export const raffleDefaults: RaffleSettings = {
  schema: 1,
  title: "Last week’s mug",
  subtitle: "",
  by: "tickets",
  word: "!in",
  price: 0,
  most: 1,
  roles: ["viewer"],
  times: [],
  barred: [],
  restShows: 0,
  restDays: 0,
  chattedMin: 0,
  number: { from: 1, to: 100 },
  tries: 1,
  locks: "hand",
  openMs: 300_000,
  shake: true,
  shakers: 5,
  shakeMs: 20_000,
  winners: 1,
  claimMs: 60_000,
  prizes: [],
  chanceWord: "!mychance",
  answers: "all",
  replies: {},
  effects: [],
  looks: { present: "rack", panel: true, names: true, tag: "#FFF6E0", wood: "#8A5A34" },
};

/** Somebody who is in. `paid` is what is held of their points. */
export type Entrant = Readonly<{
  id: string;
  name: string;
  roles: readonly string[];
  tickets: number;
  /** Points of theirs that are held for it. */
  paid: number;
  /** The number they named, and where in the order of entries they named it. */
  guess: number | null;
  at: number;
  tries: number;
}>;

/** Keys are ids from outside behind a letter of our own: whatever somebody is called, it is an ordinary key. */
export type Entrants = Entries<`v:${string}`, Entrant>;

export const keyOf = (viewer: string): `v:${string}` => `v:${viewer}`;

export type Change = ListChange;

const entrants = z.preprocess(
  (v) => (Entries.isMap(v) ? v : Entries((v ?? {}) as Record<string, Entrant>)),
  z.custom<Entrants>((v) => Entries.isMap(v)),
);

const changes = z.preprocess(
  (v) => (List.isList(v) ? v : List((v ?? []) as Change[])),
  z.custom<List<Change>>((v) => List.isList(v)),
);

const winnerSchema = z.object({
  index: z.int().min(0),
  id: z.string(),
  name: z.string(),
  prize: z.string(),
  guess: z.int().nullable(),
  ticket: z.int(),
  attempts: z.int(),
  weight: z.int(),
  total: z.int(),
  state: z.enum(["drawn", "waits", "claimed", "passed"]),
  untilMs: z.number(),
});

export type RaffleWinner = z.infer<typeof winnerSchema>;

const roundSchema = z.object({
  n: z.int().min(1),
  id: z.string().max(80),
  phase: z.enum(["open", "shaking", "locked", "cancelled"]),
  /** Points go back, part by part: to all of an open round that is cleared, or of one that was cancelled. */
  returning: z.boolean(),
  rehearsal: z.boolean(),
  settings: raffleSettingsSchema,
  settingsHash: z.string(),
  commitment: z.string(),
  sealed: z.string(),
  chain: z.string(),
  openedMs: z.number(),
  locksMs: z.number().nullable(),
  lockedMs: z.number().nullable(),
  lockedBy: z.enum(["time", "operator"]).nullable(),
  /** The signal that opened it: its rows begin there. */
  since: z.object({ seq: z.int(), atMs: z.number() }),
  people: z.int().min(0),
  tickets: z.int().min(0),
  held: z.int().min(0),
  listHash: z.string(),
  shakenMs: z.number(),
  shake: z.array(z.object({ id: z.string(), text: z.string() })),
  shakeHash: z.string(),
  /** What happened after the last entry, each a link of the chain; null for a round that was opened before records. */
  record: z.array(happeningSchema).nullable().default(null),
  target: z.object({ number: z.int(), attempts: z.int() }).nullable(),
  /** Winners that were asked for beyond those that were planned. */
  more: z.int().min(0).default(0),
  winners: z.array(winnerSchema),
  /** Which round in a row this is of which nothing was drawn: 1, or more where those before it were given up. */
  tries: z.int().min(1).default(1),
  /** How it stood when it was cancelled. */
  gaveUp: z
    .object({
      phase: z.enum(["open", "shaking", "locked"]),
      people: z.int(),
      tickets: z.int(),
      atMs: z.number(),
      role: z.string().default(""),
    })
    .nullable()
    .default(null),
});

export type Round = z.infer<typeof roundSchema>;

const owedSchema = z.object({
  id: z.string(),
  round: z.string(),
  title: z.string(),
  viewer: z.string(),
  prize: z.string(),
  how: z.string(),
  atMs: z.number(),
  state: z.enum(owedStates),
});

export type Owed = z.infer<typeof owedSchema>;

export const mostOwed = 300;

export const raffleDurableSchema = z.object({
  on: z.boolean(),
  n: z.int().min(0),
  round: roundSchema.nullable(),
  entrants,
  changes,
  shows: z.int().min(0),
  /** Who won in which show, and when, of those that still rest. */
  won: z.array(z.tuple([z.string(), z.int(), z.number()])),
  /** Who was barred by hand. */
  barred: z.array(z.object({ id: z.string(), name: z.string() })),
  /** Prizes on their way to who won them. */
  owed: z.array(owedSchema),
  closedMs: z.number(),
  /** How many rounds in a row were cancelled, and when the last of them was. */
  givenUp: z.object({ count: z.int(), atMs: z.number() }).default({ count: 0, atMs: 0 }),
  results: z.array(
    z.object({
      n: z.int(),
      round: z.string(),
      title: z.string(),
      atMs: z.number(),
      people: z.int(),
      tickets: z.int(),
      winners: z.array(z.string()),
    }),
  ),
});

export type RaffleDurable = z.infer<typeof raffleDurableSchema>;

export const freshRaffle = (): RaffleDurable => ({
  on: true,
  n: 0,
  round: null,
  entrants: Entries(),
  changes: List(),
  shows: 0,
  won: [],
  barred: [],
  owed: [],
  closedMs: 0,
  givenUp: { count: 0, atMs: 0 },
  results: [],
});
