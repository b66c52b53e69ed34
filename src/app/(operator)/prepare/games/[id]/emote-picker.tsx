"use client";
import { chakra, Grid, Text } from "@chakra-ui/react";
import Link from "next/link";
import type { Sprite } from "../../../../../core/wire/messages";
import { valueAt } from "../../../../../core/words/sentence";
import { SpriteView } from "../../../../../ui/sprite-view";

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
  const flip = (key: string): void =>
    onChange(path, chosen.includes(key) ? chosen.filter((k) => k !== key) : [...chosen, key].slice(0, 50));
  return (
    <Grid templateColumns="repeat(5, 56px)" gap="2" maxH="320px" overflowY="auto">
      {sprites.map((sprite) => (
        <chakra.button
          key={sprite.key}
          type="button"
          title={sprite.word}
          aria-label={sprite.word}
          aria-pressed={chosen.includes(sprite.key)}
          onClick={() => flip(sprite.key)}
          boxSize="56px"
          display="grid"
          placeItems="center"
          borderWidth="2px"
          borderColor={chosen.includes(sprite.key) ? "ochre.solid" : "line"}
          bg={chosen.includes(sprite.key) ? "blank" : "transparent"}
          borderRadius="8px"
          cursor="pointer"
        >
          <SpriteView sprite={sprite} size={42} />
        </chakra.button>
      ))}
    </Grid>
  );
}
