"use client";
import { Flex, Stack } from "@chakra-ui/react";
import type { PresentingSettings } from "../../core/games/presenting/settings";
import { Tick } from "../../ui/tick";
import { CardMotion } from "../card-looks";
import type { LooksProps } from "../shown";

/** How the card looks, and what stands on it; its colours and letters are the overlay's. */
export function PresentingLooks({ settings, onChange }: LooksProps) {
  const { looks } = settings as PresentingSettings;
  const tick = (key: keyof PresentingSettings["looks"], label: string) => (
    <Tick label={label} value={looks[key] === true} onSet={(v) => onChange(`looks.${key}`, v)} />
  );
  return (
    <Stack gap="5">
      <CardMotion looks={looks} onSet={(key, value) => onChange(`looks.${key}`, value)} />
      <Flex gap="5" rowGap="3" wrap="wrap">
        {tick("face", "The face, or initials")}
        {tick("topic", "What they were about last")}
        {tick("about", "What they say of themselves")}
        {tick("page", "Their page, in words")}
        {tick("code", "Their page, as a square for cameras (QR code)")}
      </Flex>
    </Stack>
  );
}
