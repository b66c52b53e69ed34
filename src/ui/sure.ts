"use client";
import { useState } from "react";

/**
 * What ends something, or can't be taken back, is asked twice, in its own place: once pressed it says “Yes, …”, and
 * pressed again it is done. Whoever goes elsewhere has not said yes.
 */
export function useSure(words: string, run: () => void): Readonly<{ sure: boolean; words: string; press: () => void; leave: () => void }> {
  const [sure, setSure] = useState(false);
  return {
    sure,
    words: sure ? `Yes, ${words.charAt(0).toLowerCase()}${words.slice(1)}` : words,
    press: () => {
      if (sure) run();
      setSure(!sure);
    },
    leave: () => setSure(false),
  };
}
