"use client";
import { Flex, Stack } from "@chakra-ui/react";
import type { GreetingSettings } from "../../core/games/greeting/settings";
import { Tick } from "../../ui/tick";
import { CardMotion } from "../card-looks";
import type { LooksProps } from "../shown";

/** How the card of a greeting looks; its colours and letters are the overlay's. */
export function GreetingLooks({ settings, onChange }: LooksProps) {
  const { looks } = settings as GreetingSettings;
  return (
    <Stack gap="5">
      <CardMotion looks={looks} onSet={(key, value) => onChange(`looks.${key}`, value)} />
      <Flex gap="5" wrap="wrap">
        <Tick label="The face, or initials" value={looks.face} onSet={(v) => onChange("looks.face", v)} />
        <Tick label="For the how-manieth time they are here" value={looks.times} onSet={(v) => onChange("looks.times", v)} />
      </Flex>
    </Stack>
  );
}
