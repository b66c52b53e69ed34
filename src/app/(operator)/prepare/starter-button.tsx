"use client";
import { Button } from "@chakra-ui/react";
import { useState } from "react";
import { tell, tellTrouble } from "../../../ui/toaster";
import { call } from "../../_frame/call";

/** Begins with what Izzam comes with, where a channel has nothing yet. */
export function StarterButton({ what, label, onDone }: Readonly<{ what: "emotes" | "props"; label: string; onDone: () => Promise<void> }>) {
  const [busy, setBusy] = useState(false);
  const begin = async (): Promise<void> => {
    setBusy(true);
    const done = await call<{ added: number }>("POST", "/starter", { what });
    await onDone();
    setBusy(false);
    if (done.ok) tell(`${done.value.added} were added. Take out what you don’t want.`);
    else tellTrouble(done.words);
  };
  return (
    <Button variant="outline" fontWeight="700" loading={busy} loadingText="Adding them…" onClick={() => void begin()}>
      {label}
    </Button>
  );
}
