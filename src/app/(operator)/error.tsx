"use client";
import { Away } from "../_frame/away";

export default function OperatorError({ reset }: { error: Error; reset: () => void }) {
  return <Away reset={reset} more="Overlays go on as they are, and nothing that was accepted is lost. " />;
}
