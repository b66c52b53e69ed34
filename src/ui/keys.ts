"use client";
import { useEffect } from "react";
import { create } from "zustand";
import { persist } from "zustand/middleware";

/**
 * One list of all actions: the keys sheet (`?`), the search (`Ctrl/⌘ K`) and the key presses read it.
 * Single keys can be re-assigned or turned off; what was chosen is kept in this browser.
 */
export type Act = Readonly<{
  id: string;
  label: string;
  group: string;
  key?: string;
  /** What people call it beside its label, for the search. */
  words?: string;
  /** It silences or ends something: found by its own words alone, and after all else. */
  grave?: boolean;
  run: () => void;
}>;
type Acts = {
  lists: Readonly<Record<string, readonly Act[]>>;
  put: (owner: string, acts: readonly Act[]) => void;
  take: (owner: string) => void;
};

export const useActs = create<Acts>((set) => ({
  lists: {},
  put: (owner, acts) => set((s) => ({ lists: { ...s.lists, [owner]: acts } })),
  take: (owner) => set((s) => ({ lists: Object.fromEntries(Object.entries(s.lists).filter(([k]) => k !== owner)) })),
}));

/** Offers actions while the caller is on screen. `acts` must keep its identity while nothing changed. */
export function useOffer(owner: string, acts: readonly Act[]): void {
  const { put, take } = useActs.getState();
  useEffect(() => {
    put(owner, acts);
    return () => take(owner);
  }, [owner, acts, put, take]);
}

type Chosen = { keys: Readonly<Record<string, string | null>>; set: (id: string, key: string | null | undefined) => void };
export const useChosenKeys = create<Chosen>()(
  persist(
    (set) => ({
      keys: {},
      set: (id, key) =>
        set((s) => ({
          keys: Object.fromEntries([
            ...Object.entries(s.keys).filter(([k]) => k !== id),
            ...(key === undefined ? [] : [[id, key] as const]),
          ]),
        })),
    }),
    { name: "izzam.keys" },
  ),
);

/** The key that fires an action now; null when it is turned off or has none. */
export const keyOf = (act: Act, chosen: Readonly<Record<string, string | null>>): string | null =>
  Object.hasOwn(chosen, act.id) ? (chosen[act.id] ?? null) : (act.key ?? null);
export const keyLabel = (key: string): string =>
  key
    .replace("$mod", "Ctrl/⌘")
    .replaceAll("+", " ")
    .replace(/\b[a-z]\b/g, (c) => c.toUpperCase());

/** Typing is never a command. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    target instanceof HTMLTextAreaElement ||
    target instanceof HTMLSelectElement ||
    (target instanceof HTMLInputElement && !["checkbox", "radio", "range", "button"].includes(target.type)));
