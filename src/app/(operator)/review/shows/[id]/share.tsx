"use client";
import { Button, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { tell, tellTrouble } from "../../../../../ui/toaster";
import { call } from "../../../../_frame/call";
import { CopyField } from "../../../../_frame/copy-field";
import { Part } from "./part";

/** A page of this show for whoever has its link: the link is told once, and taken back at any time. */
export function Share({ id, shared: first }: Readonly<{ id: number; shared: boolean }>) {
  const [shared, setShared] = useState(first);
  const [link, setLink] = useState("");
  const set = async (on: boolean): Promise<void> => {
    const said = await call<{ path: string } | null>("POST", `/review/shows/${id}/share`, { on });
    if (!said.ok) return tellTrouble(said.words);
    setShared(on);
    setLink("");
    if (!on) return tell("Taken back: the link leads nowhere any more.");
    const made = `${location.origin}${said.value?.path ?? ""}`;
    try {
      await navigator.clipboard.writeText(made);
      tell("The link is copied. It is told this once; making another ends it.");
    } catch {
      setLink(made);
    }
  };
  return (
    <Part title="A page to share">
      <Text fontSize="15px" mb="2">
        {shared
          ? "Whoever has its link sees the numbers of chat, the curve, kept moments and results. Nothing that was written, no sales, no points."
          : "A page for whoever has its link: the numbers of chat, the curve, kept moments and results. Nothing that was written, no sales, no points."}
      </Text>
      <Flex gap="2">
        <Button size="sm" variant="outline" onClick={() => void set(true)}>
          {shared ? "Copy a new link" : "Make it and copy its link"}
        </Button>
        {shared && (
          <Button size="sm" variant="outline" onClick={() => void set(false)}>
            Take it back
          </Button>
        )}
      </Flex>
      {link !== "" && <CopyField label="Link of the page to share" value={link} onDone={() => setLink("")} />}
    </Part>
  );
}
