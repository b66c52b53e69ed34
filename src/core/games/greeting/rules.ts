import { Set as Ids } from "immutable";
import { fold } from "../../kernel/fold";
import { mix32 } from "../../kernel/chance";
import { refusal } from "../../kernel/refusal";
import type { Kept, Note, StepContext, StepOutcome } from "../../module/module";
import type { Order } from "../../module/order";
import type { ArrivalSignal, CommandSignal, Signal } from "../../signals/signal";
import type { Role, Viewer } from "../../signals/names";
import { showable } from "../../words/template";
import type { GreetingCommand } from "./actions";
import { daysAway, draw, filled, type Known, listFor } from "./choose";
import { enqueue, pass } from "./lane";
import { type Entrance, type GreetingDurable, type GreetingSettings, mostEntrances } from "./settings";

type At = Readonly<{ settings: GreetingSettings; durable: GreetingDurable; transient: null }>;
type Outcome = StepOutcome<GreetingDurable, null, never>;

const still = (at: At, notes: readonly Note[] = []): Outcome => ({ durable: at.durable, transient: null, effects: [], notes });
const no = (at: At, code: string, facts: Record<string, string | number> = {}): Outcome =>
  still(at, [{ refusal: refusal(code, facts), count: 1 }]);
const namesRaided = 4;

/** One signal, or one command, through the rules of section 13. */
export function greetingStep(given: At, signal: Signal, ctx: StepContext): Outcome {
  switch (signal.kind) {
    case "arrival":
      return onArrival(given, signal, ctx);
    case "message": {
      const { durable } = given;
      const { all, ids } = durable.forgot;
      // Those who were forgotten have arrived long ago.
      if (!durable.on || !(all || ids.includes(signal.viewer.id)) || durable.greeted.has(signal.viewer.id)) return still(given);
      return greet(given, signal.viewer, knownOf(signal.viewer, ctx), signal, ctx);
    }
    case "raid": {
      const { settings, durable } = given;
      if (!durable.on || settings.raidMs === 0) return still(given);
      // Another raid in the middle: those who came with the one before are greeted now.
      const ended =
        durable.raid === null
          ? { durable, orders: [] }
          : pass(settings, { ...durable, raid: { ...durable.raid, untilMs: signal.atMs } }, signal.atMs);
      const raid = { name: signal.viewer.name, untilMs: signal.atMs + settings.raidMs, names: [], count: 0 };
      return { ...still(given), durable: { ...ended.durable, raid }, orders: ended.orders };
    }
    case "live":
    case "ended":
      return { ...still(given), durable: begun(given.durable, signal, ctx.rehearsing) };
    case "timer": {
      const { durable, orders } = pass(given.settings, given.durable, signal.atMs);
      return { ...still(given), durable, orders };
    }
    case "command":
      return onCommand(given, signal, ctx);
    default:
      return still(given);
  }
}

/** With a show everything begins anew, but the entrances that were given and the order of the lines. */
const begun = (durable: GreetingDurable, signal: Signal, rehearsal: boolean): GreetingDurable => ({
  ...durable,
  greeted: Ids(),
  since: { seq: signal.seq, atMs: signal.atMs },
  rehearsal,
  forgot: { all: false, ids: [] },
  now: null,
  freeMs: 0,
  waiting: [],
  more: null,
  raid: null,
});

const knownOf = (viewer: Viewer, ctx: StepContext): Known => {
  const known = ctx.ledgerView.attendance(viewer.id);
  return { shows: Math.max(1, known?.shows ?? 1), beforeMs: known === null || known.shows <= 1 ? null : known.lastMs };
};

function onArrival(at: At, signal: ArrivalSignal, ctx: StepContext): Outcome {
  if (!at.durable.on) return no(at, "greeting/off");
  if (at.durable.greeted.has(signal.viewer.id)) return still(at);
  return greet(at, signal.viewer, signal, signal, ctx);
}

/** The entrance of one's own, as long as the role lasts that it hangs on. */
const entranceOf = ({ entrances }: GreetingDurable, viewer: Viewer): Entrance | null =>
  entrances.find((e) => e.id === viewer.id && (e.role === null || viewer.roles.includes(e.role))) ?? null;

function greet(at: At, viewer: Viewer, known: Known, signal: Signal, ctx: StepContext, byHand = false): Outcome {
  const { settings, durable } = at;
  const name = showable(viewer.name, ctx.hiddenWords, 40) || "someone";
  if (!byHand && settings.ignored.some((ignored) => fold(ignored) === fold(viewer.name) || ignored === viewer.id))
    return no(at, "greeting/ignored");
  if (!byHand && !settings.streamer && viewer.roles.includes("streamer")) return no(at, "greeting/streamer");
  const own = entranceOf(durable, viewer);
  const list = listFor(settings, viewer, known, signal.atMs);
  if (list === null && (own === null || own.line === "")) return no(at, "greeting/no-line");
  // Who comes with a raid is greeted with those who came with it.
  const { raid } = durable;
  const greeted = durable.greeted.add(viewer.id);
  const forgot = { ...durable.forgot, ids: durable.forgot.ids.filter((id) => id !== viewer.id) };
  const kept: Kept = {
    kind: "greeted",
    viewer: { id: viewer.id, name: viewer.name },
    fromMs: signal.atMs,
    toMs: signal.atMs,
    body: { shows: known.shows, days: known.beforeMs === null ? null : daysAway(known, signal.atMs) },
  };
  const facts = { shows: known.shows, days: daysAway(known, signal.atMs) };
  if (raid !== null && raid.untilMs > signal.atMs && own === null && !byHand) {
    const names = raid.names.length < namesRaided ? [...raid.names, name] : raid.names;
    return {
      ...still(at, [{ did: "greeting/with-raid", count: 1, subject: name, facts: { raider: raid.name } }]),
      durable: { ...durable, greeted, forgot, raid: { ...raid, names, count: raid.count + 1 } },
      kept: [kept],
    };
  }
  const seed = mix32(mix32(durable.since?.seq ?? 0, ctx.salt), durable.made);
  const drawn = own !== null && own.line !== "" ? null : draw(settings.lines[list ?? "everybody"], durable.bags[list ?? "everybody"], seed);
  // What somebody chose for themselves is words, and no format.
  const line = drawn === null ? (own?.line ?? "") : filled(drawn.line, { ...viewer, name }, known, signal.atMs, ctx.channelName);
  const there = (what: "picture" | "sound", id: string): string => (id !== "" && ctx.has(what, id) ? id : "");
  const card = {
    kind: "one" as const,
    name,
    line,
    picture: there("picture", own?.picture ?? ""),
    sound: there("sound", own?.sound ?? ""),
    shows: known.shows,
    names: [name],
    count: 1,
  };
  const bags = drawn === null || list === null ? durable.bags : { ...durable.bags, [list]: drawn.bag };
  const laned = enqueue(settings, { ...durable, greeted, forgot, bags }, card, signal.atMs);
  const orders: Order[] = [...laned.orders];
  if (settings.chat) orders.push({ do: "say", text: `@${name} ${line}` });
  orders.push({ do: "emit", what: "greeting/greeted", viewer, amount: known.shows, text: line, touches: { people: [name] } });
  return {
    ...still(at, [
      { did: "greeting/greeted", count: known.shows, subject: name, facts: { ...facts, line, list: own === null ? (list ?? "") : "own" } },
    ]),
    durable: laned.durable,
    orders,
    kept: [kept],
  };
}

/** Whom a command names: somebody known by that name, or who brought it. */
function whom(name: string, viewer: Viewer | null, ctx: StepContext): Viewer | null {
  const given = name.trim().replace(/^@/, "");
  if (given === "") return viewer;
  const known = ctx.ledgerView.named(given);
  return known === null ? null : { ...known, roles: [] };
}

function onCommand(at: At, signal: CommandSignal, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  // The engine has read it by its schemas.
  const command = signal.command as GreetingCommand;
  const did = (name: string, part: Partial<GreetingDurable>, subject = "", orders: readonly Order[] = []): Outcome => ({
    ...still(at, [{ did: name, count: 1, subject }]),
    durable: { ...durable, ...part },
    orders,
  });
  if ("name" in command && ctx.ledgerView.areSeveral(command.name.trim().replace(/^@/, "")))
    return no(at, "viewer/several", { name: showable(command.name, ctx.hiddenWords, 40) });
  switch (command.do) {
    case "switch":
      if (command.on === durable.on) return no(at, command.on ? "greeting/already-on" : "greeting/already-off");
      return did(command.on ? "greeting/switched-on" : "greeting/switched-off", {
        on: command.on,
        now: null,
        waiting: [],
        more: null,
        raid: null,
      });
    case "greet": {
      if (!durable.on) return no(at, "greeting/off");
      const viewer = whom(command.name, signal.viewer, ctx);
      if (viewer === null) return no(at, "greeting/unknown", { name: showable(command.name, ctx.hiddenWords, 40) });
      return greet(at, viewer, knownOf(viewer, ctx), signal, ctx, true);
    }
    case "skip": {
      if (durable.now === null) return no(at, "greeting/nothing-shown");
      const { card } = durable.now;
      const next = pass(settings, { ...durable, now: null, freeMs: signal.atMs }, signal.atMs);
      return { ...did("greeting/skipped", {}, card.name), durable: next.durable, orders: next.orders };
    }
    case "clear":
      if (durable.waiting.length === 0 && durable.more === null) return no(at, "greeting/nobody-waits");
      return did("greeting/cleared", { waiting: [], more: null });
    case "forget": {
      if (command.name.trim() === "")
        return did("greeting/forgot-all", {
          greeted: Ids(),
          // What was kept of them before does not count any more, after a restart either.
          since: durable.since === null ? null : { seq: signal.seq, atMs: signal.atMs },
          forgot: { all: true, ids: [] },
        });
      const viewer = whom(command.name, signal.viewer, ctx);
      if (viewer === null || !durable.greeted.has(viewer.id))
        return no(at, "greeting/not-greeted", { name: showable(command.name, ctx.hiddenWords, 40) });
      const ids = [...durable.forgot.ids.filter((id) => id !== viewer.id), viewer.id].slice(-200);
      return did("greeting/forgot", { greeted: durable.greeted.remove(viewer.id), forgot: { ...durable.forgot, ids } }, viewer.name);
    }
    case "entrance": {
      const viewer = whom(command.name, signal.viewer, ctx);
      if (viewer === null) return no(at, "greeting/unknown", { name: showable(command.name, ctx.hiddenWords, 40) });
      const others = durable.entrances.filter((e) => e.id !== viewer.id);
      if (others.length >= mostEntrances) return no(at, "greeting/entrances-full", { most: mostEntrances });
      for (const what of ["picture", "sound"] as const)
        if (command[what] !== "" && !ctx.has(what, command[what])) return no(at, `greeting/no-${what}`);
      const entrance: Entrance = {
        id: viewer.id,
        name: viewer.name,
        line: showable(command.line, ctx.hiddenWords, 160),
        picture: command.picture,
        sound: command.sound,
        role: command.role === "always" ? null : (command.role as Role),
        by: signal.by,
      };
      if (entrance.line === "" && entrance.picture === "" && entrance.sound === "") return no(at, "greeting/empty-entrance");
      return did("greeting/entrance-given", { entrances: [...others, entrance] }, viewer.name);
    }
    case "take-entrance":
    case "drop-mine": {
      const viewer = command.do === "drop-mine" ? signal.viewer : whom(command.name, signal.viewer, ctx);
      const entrances = durable.entrances.filter((e) => e.id !== viewer?.id);
      if (viewer === null || entrances.length === durable.entrances.length)
        return no(at, "greeting/no-entrance", { name: command.do === "drop-mine" ? "" : showable(command.name, ctx.hiddenWords, 40) });
      return did("greeting/entrance-taken", { entrances }, viewer.name);
    }
  }
}

/** Who was greeted is kept row by row: what is written with each commit is the lane without them. */
export const greetingRows = {
  kinds: ["greeted"],
  stored: (durable: GreetingDurable): unknown => {
    if (durable.rehearsal) return durable;
    const { greeted: _, ...rest } = durable;
    return rest;
  },
  since: ({ rehearsal, since }: GreetingDurable) => (rehearsal ? null : since),
  recall: (durable: GreetingDurable, rows: readonly Readonly<{ viewer: Readonly<{ id: string }> | null }>[]): GreetingDurable =>
    durable.rehearsal
      ? durable
      : { ...durable, greeted: Ids(rows.flatMap((r) => (r.viewer === null ? [] : [r.viewer.id]))).subtract(durable.forgot.ids) },
};
