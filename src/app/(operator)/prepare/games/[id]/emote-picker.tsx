"use client";
import { Box, Text } from "@chakra-ui/react";
import Link from "next/link";
import type { Sprite } from "../../../../../core/wire/messages";
import { valueAt } from "../../../../../core/words/sentence";
import { PicturePicker } from "../../../../../ui/picture-picker";

/** Chooses from the channel's own emotes by picture; nothing is ever retyped. */
export function EmotePicker({
  sprites,
  settings,
  path,
  onChange,
}: Readonly<{ sprites: readonly Sprite[]; settings: unknown; path: string; onChange: (path: string, value: unknown) => void }>) {
  const value = valueAt(settings, path);
  const chosen = Array.isArray(value) ? (value as string[]) : [];
  if (sprites.length === 0)
    return (
      <Text>
        The channel has no emotes yet. <Link href="/prepare/emotes">Add the first</Link>.
      </Text>
    );
  return (
    <Box width="320px">
      <PicturePicker label="Emotes to choose from" sprites={sprites} chosen={chosen} most={50} onSet={(keys) => onChange(path, keys)} />
    </Box>
  );
}
