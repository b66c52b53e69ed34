"use client";
import { Box, Input } from "@chakra-ui/react";
import { type FormEvent, useState } from "react";
import { tellTrouble } from "../../../ui/toaster";
import { call } from "../../_frame/call";

/** Says something in chat as the channel. */
export function Speak({ field }: Readonly<{ field: React.RefObject<HTMLInputElement | null> }>) {
  const [text, setText] = useState("");
  const [busy, setBusy] = useState(false);
  const send = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (text.trim() === "" || busy) return;
    setBusy(true);
    const done = await call("POST", "/say", { text: text.trim() });
    setBusy(false);
    // What could not be said stays to be said again.
    if (done.ok) setText("");
    else tellTrouble(done.words);
  };
  return (
    <form onSubmit={(e) => void send(e)}>
      <Box p="2.5" borderTopWidth="1px" borderColor="line">
        <Input
          ref={field}
          size="sm"
          fontSize="15px"
          aria-label="Say something in chat"
          placeholder="Say something in chat"
          value={text}
          maxLength={400}
          onChange={(e) => setText(e.currentTarget.value)}
          onKeyDown={(e) => e.key === "Escape" && e.currentTarget.blur()}
        />
      </Box>
    </form>
  );
}
