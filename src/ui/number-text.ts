"use client";
import { type ChangeEvent, type FocusEvent, type KeyboardEvent, useEffect, useRef, useState } from "react";
import { count } from "../core/words/sentence";

export type NumberLimits = Readonly<{
  min: number;
  max: number;
  /** What is kept is so many times what is typed: 1000 for seconds that are kept as milliseconds. */
  scale?: number;
  /** Whether what is typed may have a fraction. */
  broken?: boolean;
  unit?: string;
  inWords?: (typed: number) => string;
}>;

/** `min` and `max` are of what is kept. Null where it is allowed. */
export function numberProblem(typed: string, { min, max, scale = 1, broken = false, unit = "" }: NumberLimits): string | null {
  const n = numberIn(typed);
  if (typed.trim() === "" || !Number.isFinite(n)) return "A number goes here.";
  if (!broken && !Number.isInteger(n)) return "Whole numbers only.";
  const kept = Math.round(n * scale);
  const least = min / scale;
  if (Number.isSafeInteger(kept) && kept >= min && kept <= max) return null;
  return `From ${least < 1 ? least : count(least)} to ${count(max / scale)}${unit === "" ? "" : ` ${unit}`}.`;
}
/** “1,000” is a thousand; “0,5” is a half, as many write it. */
function numberIn(typed: string): number {
  const bare = typed.replace(/\s/g, "");
  return Number(/^-?\d+,\d{1,2}$/.test(bare) ? bare.replace(",", ".") : bare.replace(/,(?=\d{3}(\D|$))/g, ""));
}

/**
 * A number that is typed: what is allowed is taken at once, what is not is told while the last good value stays.
 * Arrows go up and down by one (with Shift by ten), Enter is done with it, Escape brings back what stood there.
 */
export function useNumberText(value: number, limits: NumberLimits, onSet: (value: number) => void) {
  const { min, max, scale = 1, inWords = String } = limits;
  const shown = inWords(value / scale);
  const [text, setText] = useState(shown);
  const [problem, setProblem] = useState("");
  const typing = useRef(false);
  const before = useRef(shown);
  const atFocus = useRef(value);
  useEffect(() => {
    // What is being typed stays; what was only looked at follows.
    setText((now) => (!typing.current || now === before.current ? shown : now));
    before.current = shown;
  }, [shown]);
  const put = (next: number): void => {
    setText(inWords(next / scale));
    setProblem("");
    if (next !== value) onSet(next);
  };
  return {
    text,
    problem,
    field: {
      inputMode: "decimal" as const,
      autoComplete: "off",
      value: text,
      "aria-invalid": problem !== "",
      onFocus: (e: FocusEvent<HTMLInputElement>): void => {
        typing.current = true;
        atFocus.current = value;
        e.currentTarget.select();
      },
      onBlur: (): void => {
        typing.current = false;
        setText(shown);
        setProblem("");
      },
      onChange: (e: ChangeEvent<HTMLInputElement>): void => {
        const typed = e.currentTarget.value;
        const wrong = numberProblem(typed, limits);
        setText(typed);
        setProblem(wrong ?? "");
        if (wrong === null) onSet(Math.round(numberIn(typed) * scale));
      },
      onKeyDown: (e: KeyboardEvent<HTMLInputElement>): void => {
        if (e.key === "Enter") e.currentTarget.blur();
        // Where there is nothing to bring back, Escape is for whatever this stands in.
        if (e.key === "Escape" && text !== inWords(atFocus.current / scale)) {
          put(atFocus.current);
          e.stopPropagation();
        }
        if (e.key === "ArrowUp" || e.key === "ArrowDown") {
          e.preventDefault();
          const by = (e.key === "ArrowUp" ? 1 : -1) * (e.shiftKey ? 10 : 1) * scale;
          put(Math.min(max, Math.max(min, value + by)));
        }
      },
    },
  };
}
