"use client";
import { create } from "zustand";

/** The rehearsal whose booth this page is; empty everywhere else. Kept by the frame, from the address. */
export const useRehearsalHere = create<{ id: string }>(() => ({ id: "" }));
export const rehearsalHere = (): string => useRehearsalHere.getState().id;
export const rehearsalOf = (path: string): string => /^\/rehearse\/room\/([A-Za-z0-9_-]{1,26})$/.exec(path)?.[1] ?? "";
