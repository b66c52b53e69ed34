"use client";
import { Flex } from "@chakra-ui/react";
import type { VoicesSettings } from "../../core/games/voices/settings";
import { Tick } from "../../ui/tick";
import type { LooksProps } from "../shown";

/** How what is said stands on the picture; its colours and letters are the overlay's. */
export function VoicesLooks({ settings, onChange }: LooksProps) {
  const { looks } = settings as VoicesSettings;
  return (
    <Flex gap="5" rowGap="3" wrap="wrap">
      <Tick label="A panel behind the words" value={looks.panel} onSet={(v) => onChange("looks.panel", v)} />
      <Tick label="Bars that move while it is spoken" value={looks.wave} onSet={(v) => onChange("looks.wave", v)} />
      <Tick label="Words grow bright as they are said" value={looks.follow} onSet={(v) => onChange("looks.follow", v)} />
    </Flex>
  );
}
