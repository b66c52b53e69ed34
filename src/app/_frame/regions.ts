"use client";
import { useEffect } from "react";

/** The parts of a screen, in the order they stand: F6 goes to the next, Shift F6 to the one before. */
const selector = "header, [data-region]";
const focusable = 'a[href], button:not([disabled]), input:not([disabled]), select, textarea, [tabindex="0"]';

const seen = (element: HTMLElement): boolean => element.getClientRects().length > 0;

/** Which part comes next; they go round. Pure. */
export const nextRegion = (at: number, many: number, by: 1 | -1): number =>
  many === 0 ? -1 : at < 0 ? (by === 1 ? 0 : many - 1) : (at + by + many) % many;

export function useRegions(): void {
  useEffect(() => {
    const go = (event: KeyboardEvent): void => {
      if (event.key !== "F6" || event.ctrlKey || event.altKey || event.metaKey) return;
      if (document.querySelector("[role=dialog][data-state=open]") !== null) return;
      event.preventDefault();
      const parts = [...document.querySelectorAll<HTMLElement>(selector)].filter(seen);
      const at = parts.findLastIndex((part) => part.contains(document.activeElement));
      const part = parts[nextRegion(at, parts.length, event.shiftKey ? -1 : 1)];
      if (part === undefined) return;
      const first = part.matches(focusable)
        ? part
        : [...part.querySelectorAll<HTMLElement>(focusable)].find((f) => seen(f) && f.tabIndex >= 0);
      if (first !== undefined) return first.focus();
      part.tabIndex = -1;
      part.focus();
    };
    window.addEventListener("keydown", go);
    return () => window.removeEventListener("keydown", go);
  }, []);
}
