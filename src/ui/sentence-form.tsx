"use client";
import { Box, Stack } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { type Sentence, valueAt } from "../core/words/sentence";
import { Blank } from "./blank";

/** The rules as the sentences that explain them; their blanks are the form. */
export function SentenceForm({
  sentences,
  settings,
  onChange,
  emotes,
}: Readonly<{
  sentences: readonly Sentence[];
  settings: unknown;
  onChange: (path: string, value: unknown) => void;
  /** Chooses emotes for the blank at a path; left out where no blank is of emotes. */
  emotes?: (path: string) => ReactNode;
}>) {
  return (
    <Stack gap="2.5" fontSize="17px" lineHeight="1.75">
      {sentences.map((sentence) => (
        <Box as="p" key={sentence.id} data-sentence={sentence.id}>
          {sentence.parts.map((part, i) =>
            typeof part === "string" ? (
              part
            ) : (
              <Blank
                key={`${part.path}.${i}`}
                blank={part}
                value={valueAt(settings, part.path)}
                emotes={part.field.kind === "emotes" ? emotes?.(part.path) : null}
                onChange={(value) => onChange(part.path, value)}
              />
            ),
          )}
        </Box>
      ))}
    </Stack>
  );
}
