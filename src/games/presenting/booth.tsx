"use client";
import { Box, Text } from "@chakra-ui/react";
import type { BoothProps } from "../shown";
import { NameForm } from "../name-form";

/** Presenting in the booth: who is shown, who is looked for and who waits, and naming somebody. */
export function PresentingBooth({ view, command }: BoothProps) {
  // Views of operators are written by the presenting's own rules.
  const person = (view["person"] ?? null) as Readonly<{ name: string; page: string }> | null;
  const asked = (view["asked"] ?? []) as readonly string[];
  const next = (view["next"] ?? []) as readonly string[];
  return (
    <Box data-testid="presenting-booth">
      <Text fontWeight="700" aria-live="polite" lineHeight="1.25">
        {person === null ? "Nobody is being presented." : <bdi>{person.name}</bdi>}
      </Text>
      {person !== null && person.page !== "" && (
        <Text fontSize="15px" color="inkSoft" truncate>
          {person.page}
        </Text>
      )}
      {asked.length > 0 && <Text fontSize="15px">Looking for {asked.join(", ")}…</Text>}
      {next.length > 0 && (
        <Text fontSize="15px" color="inkSoft">
          Next: {next.join(", ")}
        </Text>
      )}
      <NameForm label="Whom to present" act="Present" onName={(name) => command({ do: "present", name })} />
    </Box>
  );
}
