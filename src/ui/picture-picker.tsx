"use client";
import { chakra, Grid } from "@chakra-ui/react";
import type { Sprite } from "../core/wire/messages";
import { SpriteView } from "./sprite-view";

/** Pictures picked by how they look; nothing is ever retyped. */
export function PicturePicker({
  label,
  sprites,
  chosen,
  most,
  onSet,
}: Readonly<{ label: string; sprites: readonly Sprite[]; chosen: readonly string[]; most: number; onSet: (keys: string[]) => void }>) {
  const flip = (key: string): void => onSet(chosen.includes(key) ? chosen.filter((k) => k !== key) : [...chosen, key].slice(0, most));
  return (
    <Grid templateColumns="repeat(auto-fill, 52px)" gap="1.5" maxH="300px" overflowY="auto" p="1" role="group" aria-label={label}>
      {sprites.map((sprite) => (
        <chakra.button
          key={sprite.key}
          type="button"
          title={sprite.word}
          aria-label={sprite.word}
          aria-pressed={chosen.includes(sprite.key)}
          onClick={() => flip(sprite.key)}
          boxSize="52px"
          display="grid"
          placeItems="center"
          borderWidth="2px"
          borderColor={chosen.includes(sprite.key) ? "ochre.solid" : "line"}
          bg={chosen.includes(sprite.key) ? "blank" : "transparent"}
          borderRadius="8px"
          cursor="pointer"
        >
          <SpriteView sprite={sprite} size={40} />
        </chakra.button>
      ))}
    </Grid>
  );
}
