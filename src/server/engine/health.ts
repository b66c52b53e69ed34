import { count, counted } from "../../core/words/sentence";
import type { HealthItem, OpenPage } from "../../core/wire/messages";
import type { ChatStanding } from "../ports/chat";
import { filmHealth, type OutsideFacts, speechHealth, studioHealth } from "./health-outside";

export type HealthFacts = Readonly<{
  chat: ChatStanding | null;
  channelName: string;
  perMinute: number;
  databaseAway: boolean;
  backlog: number;
  lost: number;
  /** Signals that could not be stored since the start. */
  unfit?: number;
  pages: readonly OpenPage[];
  lagMs: number;
  /** How long the oldest signal waits to be kept. */
  waitingMs?: number;
  /** How far the computer's clock was set back. */
  clockAheadMs?: number;
  events?: Readonly<{ on: boolean; perMinute: number; lastMs: number | null; refused: number }>;
  sounds?: number;
  /** Parts that do not run, since what is stored of them can't be read; each with why. */
  unreadable?: readonly string[];
  /** What the last check of the ledger found. */
  ledgerFaults?: number;
}> &
  OutsideFacts;

/** Each part of the installation: how it stands, what that means, what to do. */
export function healthOf(f: HealthFacts): HealthItem[] {
  return [
    chatHealth(f),
    eventsHealth(f),
    databaseHealth(f),
    pagesHealth(f),
    soundHealth(f),
    engineHealth(f),
    partsHealth(f),
    ledgerHealth(f),
    speechHealth(f),
    studioHealth(f),
    filmHealth(f),
  ].filter((item) => item !== null);
}

/** Follows, tips and the like. Silence is no fault: a quiet hour sends nothing. */
function eventsHealth({ events }: HealthFacts): HealthItem | null {
  if (events === undefined) return null;
  const base = { id: "events", name: "Platform events" };
  if (!events.on)
    return {
      ...base,
      state: "off",
      says: "Not set up.",
      means: "Follows, tips and the like reach no game.",
      todo: "Make a secret under Connections.",
    };
  const no = events.refused > 0 ? ` ${count(events.refused)} refused since the engine started.` : "";
  return {
    ...base,
    state: "good",
    says: `${count(events.perMinute)} in the last minute.${no}`,
    means: events.refused > 0 ? "What was refused changed nothing." : "",
    todo: events.refused > 0 ? "See why under Connections." : "",
  };
}

function partsHealth({ unreadable = [] }: HealthFacts): HealthItem | null {
  return unreadable.length === 0
    ? null
    : {
        id: "parts",
        name: "Games",
        state: "bad",
        says: `${unreadable.join("; ")}.`,
        means: `${unreadable.length === 1 ? "It does" : "They do"} not run. Nothing of ${unreadable.length === 1 ? "it" : "them"} is lost or written over.`,
        todo: "Start the version of Izzam that stored it, or publish its settings anew. If neither helps, keep the log of the engine and ask whoever looks after Izzam.",
      };
}

function ledgerHealth({ ledgerFaults = 0 }: HealthFacts): HealthItem | null {
  return ledgerFaults === 0
    ? null
    : {
        id: "ledger",
        name: "Points",
        state: "bad",
        says: `The check of the ledger found ${count(ledgerFaults)} ${ledgerFaults === 1 ? "thing that differs" : "things that differ"}.`,
        means: "A balance is not what its history makes it. Selling goes on.",
        todo: "After the show, run npm run ledger: it says what differs, and with --rebuild sets balances to what their entries say.",
      };
}

function soundHealth({ pages, sounds = 0 }: HealthFacts): HealthItem | null {
  if (sounds === 0 || pages.length === 0) return null;
  const base = { id: "sound", name: "Sound" };
  if (pages.some((p) => p.voice)) return { ...base, state: "good", says: "One page makes the sound.", means: "", todo: "" };
  // The page hangs, or has only just been chosen.
  if (pages.some((p) => p.asked))
    return {
      ...base,
      state: "waiting",
      says: "The page chosen for sound has not confirmed that it plays it.",
      means: "Viewers may hear no sound.",
      todo: "Wait a moment: Izzam keeps asking it. If this stays, refresh the browser source.",
    };
  return {
    ...base,
    state: "waiting",
    says: "No open page may make sound.",
    means: "Sounds are not heard on the broadcast.",
    todo: "Let the browser source play sound, or open an overlay that is for sound.",
  };
}

function chatHealth({ chat, perMinute }: HealthFacts): HealthItem {
  const base = { id: "chat", name: "Chat" };
  if (chat === null || chat.state === "off") {
    return {
      ...base,
      state: "off",
      says: "Not set up.",
      means: "Nothing typed in chat reaches any game.",
      todo: "Enter the chat server under Connections.",
    };
  }
  if (chat.state === "connected" && chat.lastError !== "")
    return {
      ...base,
      state: "waiting",
      says: chat.lastError,
      means: "Chat reaches the games; replies do not reach chat.",
      todo: "",
    };
  if (chat.state === "connected") {
    return {
      ...base,
      state: "good",
      says: `Connected. ${counted(perMinute, "message")} in the last minute.`,
      means: "",
      todo: "",
    };
  }
  if (chat.state === "connecting")
    return { ...base, state: "waiting", says: "Connecting…", means: "Chat does not reach the games yet.", todo: "" };
  return {
    ...base,
    state: "bad",
    says: chat.lastError,
    means: "Chat does not reach the games. Overlays stay as they are.",
    todo: "Izzam keeps trying by itself. If it lasts, check the settings under Connections.",
  };
}

function databaseHealth({ databaseAway, backlog, lost, unfit = 0 }: HealthFacts): HealthItem {
  const base = { id: "database", name: "Database" };
  if (!databaseAway && unfit > 0)
    return {
      ...base,
      state: "waiting",
      says: `Answers. ${counted(unfit, "signal")} could not be stored since the engine started.`,
      means: "Each was refused by itself; nothing else was lost.",
      todo: "The log of the engine says why. If it goes on, keep that log and tell whoever looks after Izzam.",
    };
  if (!databaseAway) return { ...base, state: "good", says: "Answers.", means: "", todo: "" };
  const dropped = lost > 0 ? ` ${count(lost)} chat lines could not be kept for the log.` : "";
  return {
    ...base,
    state: "bad",
    says: `Does not answer. ${count(backlog)} chat lines wait to be logged.${dropped}`,
    means: "Overlays go on and emotes fly. Settings can’t be saved or published until it is back; nothing accepted before is lost.",
    todo: "Izzam reconnects by itself. If it lasts longer than a minute, start Izzam again.",
  };
}

function pagesHealth({ pages }: HealthFacts): HealthItem {
  const base = { id: "overlays", name: "Overlay pages" };
  if (pages.length === 0) {
    return {
      ...base,
      state: "waiting",
      says: "None is open.",
      means: "Viewers see nothing of Izzam.",
      todo: "Copy an overlay’s link into a browser source of your broadcast software.",
    };
  }
  const hidden = pages.filter((p) => p.hidden).length;
  const dimmed = pages.filter((p) => p.dimmed).length;
  if (dimmed > 0)
    return {
      ...base,
      state: "bad",
      says: `${count(pages.length)} open; the picture of ${count(dimmed)} flashes more than three times a second.`,
      means: "It is dimmed until it has been calm for a while: flashes can cause seizures.",
      todo: "Take what flashes off the stage, or clear it by Hush.",
    };
  const lowered = pages.filter((p) => p.lowered > 0 && p.live > 0);
  const slow = pages.filter((p) => p.framesPerSecond > 0 && p.framesPerSecond < 24 && p.live > 0);
  const late = pages.reduce((sum, p) => sum + p.late, 0);
  if (slow.length > 0) {
    const rate = Math.round(Math.min(...slow.map((p) => p.framesPerSecond)));
    return {
      ...base,
      state: "waiting",
      says: `${count(pages.length)} open; one draws only ${rate} frames a second.`,
      means: "The picture may stutter.",
      todo: "Allow fewer emotes at once, or turn on hardware acceleration in your broadcast software.",
    };
  }
  if (lowered.length > 0)
    return {
      ...base,
      state: "waiting",
      says: `${count(pages.length)} open; ${count(lowered.length)} ${lowered.length === 1 ? "draws" : "draw"} ${lessDrawn(Math.max(...lowered.map((p) => p.lowered)))}.`,
      means: "The computer that shows it can’t keep up with all that is on the picture; nothing is lost that counts.",
      todo: "Allow fewer pieces and emotes at once, or turn on hardware acceleration in your broadcast software.",
    };
  return {
    ...base,
    state: "good",
    says: `${count(pages.length)} open${hidden > 0 ? `, ${count(hidden)} of them hidden` : ""}.${late > 0 ? ` ${count(late)} frames came late so far.` : ""}`,
    means: late > 0 ? "Frames that come late look like a short stutter." : "",
    todo: "",
  };
}

/** What a page leaves out at each level of its governor. */
const lessDrawn = (level: number): string =>
  level <= 1 ? "less finely" : level <= 4 ? "fewer pieces and emotes than there are" : "fewer pieces, and half as many frames";

function engineHealth({ lagMs, waitingMs = 0, clockAheadMs = 0 }: HealthFacts): HealthItem {
  const base = { id: "engine", name: "Engine" };
  if (waitingMs > 2_000)
    return {
      ...base,
      state: "bad",
      says: `The oldest signal has waited ${Math.round(waitingMs / 1000)} s to be kept.`,
      means: "Nothing is lost, but games answer late.",
      todo: "Look at the database; if it answers, close other heavy programs on this computer.",
    };
  if (clockAheadMs > 1_000)
    return {
      ...base,
      state: "waiting",
      says: `This computer’s clock was set back by ${count(Math.round(clockAheadMs / 1000))} s.`,
      means: "Izzam’s time runs on from where it was, so that no cooldown lasts longer than it should.",
      todo: "Times in the log are ahead until Izzam is started again after the show.",
    };
  if (lagMs < 250) return { ...base, state: "good", says: "Keeps up.", means: "", todo: "" };
  return {
    ...base,
    state: "waiting",
    says: `Runs ${Math.round(lagMs / 50) * 50} ms behind.`,
    means: "Emotes show later than they should.",
    todo: "Close other heavy programs on this computer.",
  };
}
