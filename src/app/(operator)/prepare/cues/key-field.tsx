"use client";
import { Box, Button, chakra } from "@chakra-ui/react";
import { useState } from "react";
import type { Cue } from "../../../../core/cues/settings";
import { inputLook } from "../../../../ui/input-look";
import { useChosenKeys } from "../../../../ui/keys";
import { keyUse } from "../../../_frame/key-owners";
import type { Available } from "../_effects/available";

type Taken = Readonly<{ key: string; from: Cue | null; words: string }>;

/** The key that fires a cue. One that is taken says by whom, and is not put in: from another cue it can be taken. */
export function KeyField({
  cue,
  cues,
  games,
  onSet,
  onTake,
}: Readonly<{
  cue: Cue;
  cues: readonly Cue[];
  games: Available["games"];
  onSet: (key: string) => void;
  onTake: (key: string, from: Cue) => void;
}>) {
  const chosen = useChosenKeys((s) => s.keys);
  const [taken, setTaken] = useState<Taken | null>(null);
  const type = (typed: string): void => {
    const key = typed.toLowerCase().trim();
    const other = cues.find((c) => c.id !== cue.id && key !== "" && c.key === key);
    const use = key === "" ? null : key === "?" ? "the list of keys" : keyUse(key, { chosen, games });
    const words =
      other !== undefined
        ? `fires “${other.name}”.`
        : use !== null
          ? `is used for ${use}. Choose another, or press ? and change that one.`
          : "";
    setTaken(words === "" ? null : { key, from: other ?? null, words });
    if (words === "") onSet(key);
  };
  return (
    <Box as="span" position="relative">
      <chakra.input
        {...inputLook}
        aria-label="Key"
        aria-invalid={taken !== null}
        aria-describedby={taken === null ? undefined : `${cue.id}-key`}
        width="52px"
        textAlign="center"
        value={cue.key}
        maxLength={1}
        placeholder="none"
        onFocus={(e) => e.currentTarget.select()}
        onBlur={(e) => {
          if (!(e.relatedTarget instanceof HTMLElement && e.relatedTarget.closest(`[id="${cue.id}-key"]`) !== null)) setTaken(null);
        }}
        onChange={(e) => type(e.currentTarget.value)}
      />
      {taken !== null && (
        <Box
          as="span"
          id={`${cue.id}-key`}
          role="alert"
          // Over what follows where there is room for it, a line of its own on a phone.
          display="block"
          position={{ md: "absolute" }}
          left="0"
          top="calc(100% + 8px)"
          zIndex="3"
          width={{ md: "max-content" }}
          maxW="300px"
          bg="ground"
          borderWidth="1px"
          borderColor="brickText"
          borderRadius="8px"
          px="3"
          py="2"
          color="brickText"
          fontWeight="600"
          lineHeight="1.4"
        >
          {taken.key.toUpperCase()} {taken.words}
          {taken.from !== null && (
            <Button
              size="xs"
              variant="outline"
              ml="2"
              onClick={() => {
                if (taken.from !== null) onTake(taken.key, taken.from);
                setTaken(null);
              }}
            >
              Take it from there
            </Button>
          )}
        </Box>
      )}
    </Box>
  );
}
