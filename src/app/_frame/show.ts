"use client";
import { useEffect, useState } from "react";
import type { Note } from "../../core/module/module";
import type { Command } from "../../core/signals/signal";
import type { ShowDurable } from "../../core/show/settings";
import { call } from "./call";
import { nowMs, useLive } from "./live";
import { tellTrouble } from "../../ui/toaster";

/** What operators see of the show: its state, rundown and questions. */
export type ShowView = Pick<ShowDurable, "state" | "show" | "plan" | "done" | "skipped" | "asks" | "muted"> &
  Readonly<{ noFaces?: ShowDurable["noFaces"]["list"] }> &
  Readonly<{ templates: readonly Readonly<{ id: string; name: string; things: number }>[] }>;

/** Null until the engine told it; the shape is its own view for operators. */
export const useShow = (): ShowView | null =>
  useLive((s) => (s.standing?.games.find((g) => g.kind === "show")?.view as ShowView | undefined) ?? null);

export const freshId = (): string => `command-${Array.from(crypto.getRandomValues(new Uint32Array(3))).join("-")}`;

/** Gives a module a command; what came of it, or null after telling why not. */
export async function sendCommand(module: string, command: Command): Promise<readonly Note[] | null> {
  const done = await call<readonly Note[]>("POST", `/games/${module}/command`, { command, id: freshId() });
  if (done.ok) return done.value;
  tellTrouble(done.words);
  return null;
}

/** The same, and what did not go through is told in words. What did is told by `done`, where it can't be seen. */
export async function commandAndTell(
  module: Readonly<{ id: string; kind: string }>,
  command: Command,
  done?: (words: string) => void,
): Promise<boolean> {
  const notes = await sendCommand(module.id, command);
  // The words of every game's notes: loaded with the first command that is given, not with every page.
  const { noteInWords } = await import("../../core/notes");
  for (const note of notes ?? []) {
    const words = noteInWords(module.kind, note);
    if (words === "") continue;
    if (note.refusal !== undefined) tellTrouble(asSentence(words));
    else done?.(asSentence(words));
  }
  return notes !== null && notes.every((n) => n.refusal === undefined);
}
/** The channel's one show, by its kind. */
export const theShow = { id: "show", kind: "show" } as const;
export const theRewards = { id: "rewards", kind: "rewards" } as const;
export const thePoints = { id: "points", kind: "points" } as const;
const asSentence = (words: string): string => `${words[0]?.toUpperCase() ?? ""}${words.slice(1)}.`;

/** The engine's time, again and again. */
export function useNow(everyMs: number): number {
  const [now, setNow] = useState(0);
  useEffect(() => {
    const tick = (): void => setNow(nowMs());
    tick();
    const timer = setInterval(tick, everyMs);
    return () => clearInterval(timer);
  }, [everyMs]);
  return now;
}

const two = (n: number): string => String(n).padStart(2, "0");
export const wallClock = (ms: number): string => {
  const at = new Date(ms);
  return `${two(at.getHours())}:${two(at.getMinutes())}`;
};
