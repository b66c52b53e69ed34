"use client";
import { Box, Progress, Text } from "@chakra-ui/react";
import { type Askable, askable } from "../../core/games/companion/settings";
import { counted } from "../../core/words/sentence";
import type { BoothProps } from "../shown";
import { stateWords } from "./state-words";

type Doing = Readonly<{ state: string; bubble: string }>;
const known = (state: string): state is Askable => askable.some((a) => a === state);

/** A companion in the booth: what it does just now, and how it feels. */
export function CompanionBooth({ view }: BoothProps) {
  // Views of operators are written by its own rules.
  const doing = (view["doing"] ?? null) as Doing | null;
  const mood = Number(view["mood"] ?? 0);
  const waiting = Number(view["waiting"] ?? 0);
  const name = String(view["name"] ?? "");
  const does =
    doing !== null && known(doing.state)
      ? `${stateWords[doing.state]}${doing.bubble === "" ? "" : `: “${doing.bubble}”`}`
      : view["asleep"] === true
        ? "sleeps"
        : view["dancing"] === true
          ? "dances until you end it"
          : "is awake";
  return (
    <Box data-testid="companion-booth">
      <Text fontWeight="700" aria-live="polite" lineHeight="1.25">
        {name} {does}
      </Text>
      {waiting > 0 && (
        <Text fontSize="15px" color="inkSoft">
          {counted(waiting, "more thing")} to do
        </Text>
      )}
      <Progress.Root value={mood} mt="1.5" colorPalette={mood < 30 ? "brick" : "moss"} size="sm">
        <Progress.Label fontSize="15px" fontWeight="400">
          Mood {mood} of 100, fed {counted(Number(view["fed"] ?? 0), "time")}
        </Progress.Label>
        <Progress.Track mt="1">
          <Progress.Range />
        </Progress.Track>
      </Progress.Root>
    </Box>
  );
}
