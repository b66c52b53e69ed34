"use client";
import { useCallback, useEffect, useState } from "react";
import type { LabView } from "../../../../server/web/lab";
import { call } from "../../../_frame/call";

const busyMs = 700;

/** What was asked and how far it is; looked at again while something is being answered. */
export function useLab(first: LabView): Readonly<{ view: LabView; trouble: string; look: () => Promise<void> }> {
  const [view, setView] = useState(first);
  const [trouble, setTrouble] = useState("");
  const look = useCallback(async (): Promise<void> => {
    const said = await call<LabView>("GET", "/lab");
    if (said.ok) setView(said.value);
    setTrouble(said.ok ? "" : said.words);
  }, []);
  const busy = view.runs > 0;
  useEffect(() => {
    if (!busy) return;
    const timer = setInterval(() => void look(), busyMs);
    return () => clearInterval(timer);
  }, [busy, look]);
  return { view, trouble, look };
}
