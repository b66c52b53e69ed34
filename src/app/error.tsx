"use client";
import { Away } from "./_frame/away";

/** What a layout could not read: who is signed in, or which channel this is. */
export default function PageError({ reset }: { error: Error; reset: () => void }) {
  return <Away reset={reset} />;
}
