"use client";
import { Box, Button, chakra, Flex, Input, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Layout } from "../../../../../server/ports/operator-store";
import { Pick } from "../../../../../ui/pick";
import { tell, tellTrouble } from "../../../../../ui/toaster";
import { call } from "../../../../_frame/call";

/** What the overlay is for, and its own style sheet. */
export function SetUp({ layout, owner }: Readonly<{ layout: Layout; owner: boolean }>) {
  const [use, setUse] = useState(layout.shows ? (layout.sounds ? "both" : "picture") : "sound");
  const [note, setNote] = useState(layout.note);
  const [css, setCss] = useState(layout.css);
  const [kept, setKept] = useState(layout.css);
  if (!owner) return null;
  const send = async (part: Record<string, unknown>, said: string): Promise<boolean> => {
    const done = await call("PATCH", `/overlays/${layout.id}/set-up`, part);
    if (done.ok) tell(said);
    else tellTrouble(done.words);
    return done.ok;
  };
  return (
    <Stack gap="3">
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px">
        What it is for
      </Text>
      <Flex gap="2" align="center" wrap="wrap">
        <Pick
          label="What this overlay carries"
          value={use}
          options={[
            { value: "both", words: "picture and sound" },
            { value: "picture", words: "picture only" },
            { value: "sound", words: "sound only" },
          ]}
          onSet={(v) => {
            setUse(v);
            void send({ shows: v !== "sound", sounds: v !== "picture" }, "Pages that have it open follow at once.");
          }}
        />
        <Input
          size="sm"
          flex="1"
          minW="150px"
          aria-label="A note on it"
          placeholder="a note: not for recordings…"
          value={note}
          maxLength={120}
          onChange={(e) => setNote(e.target.value)}
          onBlur={() => note !== layout.note && void send({ note }, "Noted.")}
        />
      </Flex>
      <chakra.details>
        <chakra.summary cursor="pointer" fontWeight="600">
          Its own style sheet
        </chakra.summary>
        <Text color="inkSoft" fontSize="15px" my="1">
          CSS for this overlay alone: .izzam-alert, .izzam-alert-text, .izzam-alert-picture. It can load nothing from elsewhere.
        </Text>
        <chakra.textarea
          aria-label="Style sheet"
          value={css}
          onChange={(e) => setCss(e.currentTarget.value)}
          rows={6}
          width="100%"
          fontFamily="mono"
          fontSize="14px"
          p="2"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          bg="ground"
          spellCheck={false}
        />
        <Box>
          <Button
            size="sm"
            variant="outline"
            disabled={css === kept}
            onClick={() => void send({ css }, "The style sheet is on air.").then((ok) => ok && setKept(css))}
          >
            Use it
          </Button>
        </Box>
      </chakra.details>
    </Stack>
  );
}
