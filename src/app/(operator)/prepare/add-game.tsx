"use client";
import { Modal } from "../../../ui/modal";
import { Box, Button, Grid, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";
import { allGames } from "../../../core/games/registry";
import type { AnyGame } from "../../../core/module/game";
import type { Sprite } from "../../../core/wire/messages";
import { LivingPicture } from "./living-picture-later";

type Chosen = Readonly<{ game: AnyGame; setUp?: string }>;

/** The kinds there are, each moving while it is pointed at, with a sentence and a few ready set-ups. */
export function AddGame({
  open,
  sprites,
  home,
  busy,
  onClose,
  onAdd,
}: Readonly<{
  open: boolean;
  sprites: readonly Sprite[];
  home: string;
  busy: boolean;
  onClose: () => void;
  onAdd: (chosen: Chosen) => void;
}>) {
  return (
    <Modal title="Put something else on screen" open={open} size="xl" onClose={onClose}>
      <Grid templateColumns="repeat(auto-fill, minmax(300px, 1fr))" gap="4">
        {allGames().map((game) => (
          <Kind key={game.kind} game={game} sprites={sprites} home={home} busy={busy} onAdd={onAdd} />
        ))}
      </Grid>
    </Modal>
  );
}

function Kind({
  game,
  sprites,
  home,
  busy,
  onAdd,
}: Readonly<{ game: AnyGame; sprites: readonly Sprite[]; home: string; busy: boolean; onAdd: (chosen: Chosen) => void }>) {
  const [over, setOver] = useState(false);
  const title = `${game.name[0]?.toUpperCase() ?? ""}${game.name.slice(1)}`;
  return (
    <Box
      as="section"
      aria-label={title}
      borderWidth="1px"
      borderColor="line"
      borderRadius="12px"
      overflow="hidden"
      onMouseEnter={() => setOver(true)}
      onMouseLeave={() => setOver(false)}
      onFocus={() => setOver(true)}
      onBlur={() => setOver(false)}
    >
      <LivingPicture kind={game.kind} sprites={sprites} home={home} playing={over} />
      <Box p="3.5">
        <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="18px">
          {title}
        </Text>
        <Text color="inkSoft" fontSize="15.5px" mb="2.5">
          {game.offer.about}
        </Text>
        <Stack gap="1.5">
          <Button size="sm" colorPalette="ochre" fontWeight="700" disabled={busy} onClick={() => onAdd({ game })}>
            Add {game.offer.name}
          </Button>
          {(game.setUps ?? []).map((s) => (
            <Button
              key={s.id}
              size="sm"
              variant="outline"
              height="auto"
              py="1.5"
              whiteSpace="normal"
              textAlign="left"
              justifyContent="flex-start"
              fontWeight="500"
              disabled={busy}
              onClick={() => onAdd({ game, setUp: s.id })}
            >
              <Box>
                <b>{s.name}.</b> {s.about}
              </Box>
            </Button>
          ))}
        </Stack>
      </Box>
    </Box>
  );
}
