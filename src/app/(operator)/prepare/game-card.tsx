"use client";
import { IconButton } from "../../../ui/icon-button";
import { Box, Flex, Menu, Portal, Text } from "@chakra-ui/react";
import { Ellipsis } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { frontOf } from "../../../core/games/fronts";
import type { Sprite } from "../../../core/wire/messages";
import type { GameSummary } from "../../../server/ports/operator-store";
import { useLive } from "../../_frame/live";
import { commandAndTell } from "../../_frame/show";
import { LivingPicture } from "./living-picture-later";

export type GalleryGame = GameSummary & Readonly<{ settings: unknown; where: readonly string[] }>;

/** One game: a living picture of it, how it stands, and its one next step. */
export function GameCard({
  game,
  sprites,
  home,
  onCopy,
  onRemove,
}: Readonly<{ game: GalleryGame; sprites: readonly Sprite[]; home: string; onCopy: () => void; onRemove: () => void }>) {
  const router = useRouter();
  const running = useLive((s) => s.standing?.games.find((g) => g.id === game.id));
  const overlays = useLive((s) => s.standing?.overlays);
  const [over, setOver] = useState(false);
  const kind = frontOf(game.kind);
  // What the engine says is newer than what the page was made with.
  const where = overlays?.filter((o) => o.places.some((p) => p.game === game.id)).map((o) => o.name) ?? game.where;
  // What stands on no picture needs no place.
  const lost = where.length === 0 && kind?.bodiless !== true;
  const on = running === undefined ? null : running.view["on"] !== false;
  const [state, colour] =
    game.version === 0
      ? (["Not published yet", "inkSoft"] as const)
      : lost
        ? (["Stands on no overlay", "ochreText"] as const)
        : on === false
          ? (["Stopped", "inkSoft"] as const)
          : ([running === undefined ? "Asking…" : (kind?.stands?.(running.view) ?? "Running"), "mossText"] as const);
  const next = game.version === 0 ? "Publish it" : lost ? "Place it" : "Set up";
  const path = `/prepare/games/${game.id}${game.version > 0 && lost ? "?tab=overlay" : ""}`;
  return (
    <Box
      role="listitem"
      bg="raised"
      borderWidth="1px"
      borderColor="line"
      borderRadius="12px"
      overflow="hidden"
      data-game={game.id}
      onMouseEnter={() => setOver(true)}
      onMouseLeave={() => setOver(false)}
    >
      <Link href={path} tabIndex={-1} aria-hidden="true">
        {kind !== null && game.settings !== null && (
          <LivingPicture kind={game.kind} settings={game.settings} sprites={sprites} home={home} playing={over} />
        )}
      </Link>
      <Flex px="3.5" pt="2.5" pb="2" align="start" gap="2">
        <Box flex="1" minW="0">
          <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="18px" truncate>
            {game.name}
          </Text>
          <Text color="inkSoft" fontSize="15px" truncate>
            {kind?.name ?? game.kind}
            {where.length === 0 ? "" : ` · on ${where.join(", ")}`}
            {game.changed && game.version > 0 ? " · changes not published" : ""}
          </Text>
        </Box>
        <Menu.Root positioning={{ placement: "bottom-end" }}>
          <Menu.Trigger asChild>
            <IconButton label={`More for ${game.name}`}>
              <Ellipsis size={18} />
            </IconButton>
          </Menu.Trigger>
          <Portal>
            <Menu.Positioner>
              <Menu.Content>
                <Menu.Item value="rename" onClick={() => router.push(`/prepare/games/${game.id}?name=1`)}>
                  Rename
                </Menu.Item>
                <Menu.Item value="copy" onClick={onCopy}>
                  Copy
                </Menu.Item>
                {on !== null && (
                  <Menu.Item value="switch" onClick={() => void commandAndTell(game, { do: "switch", on: !on })}>
                    {on ? "Stop" : "Start"}
                  </Menu.Item>
                )}
                <Menu.Item value="remove" color="brickText" onClick={onRemove}>
                  Remove
                </Menu.Item>
              </Menu.Content>
            </Menu.Positioner>
          </Portal>
        </Menu.Root>
      </Flex>
      <Flex borderTopWidth="2px" borderTopStyle="dashed" borderColor="line" px="3.5" py="2" align="center" gap="2">
        <Box boxSize="9px" borderRadius="full" bg={colour} flexShrink="0" aria-hidden="true" />
        <Text fontSize="15px" flex="1" minW="0" truncate>
          {state}
        </Text>
        <Link href={path} style={{ fontWeight: 700 }} aria-label={`${next}: ${game.name}`}>
          <Text as="span" color="ochreText">
            {next}
          </Text>
        </Link>
      </Flex>
    </Box>
  );
}
