"use client";
import { IconButton } from "../../../../../ui/icon-button";
import { Box, Button, chakra, Flex, Stack, Text } from "@chakra-ui/react";
import { ArrowDown, ArrowUp, Eye, EyeOff, Lock, LockOpen, Trash2 } from "lucide-react";
import { frontOf } from "../../../../../core/games/fronts";
import { type Place, wholePlace } from "../../../../../core/wire/messages";
import { SortableList, SortableRow } from "../../../../../ui/sortable";
import type { LayoutPlace } from "../../../../../server/ports/operator-store";

export type StageGame = Readonly<{ id: string; kind: string; name: string; view: Record<string, unknown> }>;
type Props = Readonly<{
  places: readonly LayoutPlace[];
  chosen: string | null;
  games: readonly StageGame[];
  onChoose: (game: string) => void;
  onOrder: (game: string, by: number) => void;
  onSet: (game: string, part: Partial<Place>) => void;
  onChange: (places: readonly LayoutPlace[]) => void;
}>;

/** What stands on the stage, front to back, and what can be put on it. */
export function StageList({ places, chosen, games, onChoose, onOrder, onSet, onChange }: Props) {
  const shown = [...places].reverse();
  const absent = games.filter((g) => !places.some((p) => p.game === g.id));
  const nameOf = (id: string): string => games.find((g) => g.id === id)?.name ?? "a game that is gone";
  return (
    <Box>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="2">
        On this stage, front to back
      </Text>
      {places.length === 0 && <Text color="inkSoft">Nothing stands here yet. Put a game on it below.</Text>}
      <Stack gap="1.5" role="list" aria-label="On this stage">
        <SortableList
          ids={shown.map((p) => p.game)}
          nameOf={nameOf}
          // Front to back on the screen, back to front in the layout.
          onMove={(from, to) => onOrder(shown[from]?.game ?? "", from - to)}
        >
          {shown.map(({ game, place }) => (
            <SortableRow key={game} id={game} name={nameOf(game)}>
              <Flex align="center" gap="0.5" bg={chosen === game ? "blank" : "raised"} borderRadius="8px" pl="3" pr="1" minH="38px">
                <chakra.button type="button" flex="1" textAlign="left" fontWeight="600" cursor="pointer" onClick={() => onChoose(game)}>
                  {nameOf(game)}
                </chakra.button>
                <IconButton label={`${nameOf(game)} to the front`} onClick={() => onOrder(game, 1)}>
                  <ArrowUp size={15} />
                </IconButton>
                <IconButton label={`${nameOf(game)} to the back`} onClick={() => onOrder(game, -1)}>
                  <ArrowDown size={15} />
                </IconButton>
                <IconButton
                  aria-pressed={place.hidden}
                  label={place.hidden ? `Show ${nameOf(game)}` : `Hide ${nameOf(game)}`}
                  onClick={() => onSet(game, { hidden: !place.hidden })}
                >
                  {place.hidden ? <EyeOff size={15} /> : <Eye size={15} />}
                </IconButton>
                <IconButton
                  aria-pressed={place.locked}
                  label={place.locked ? `Unlock ${nameOf(game)}` : `Lock ${nameOf(game)}`}
                  onClick={() => onSet(game, { locked: !place.locked })}
                >
                  {place.locked ? <Lock size={15} /> : <LockOpen size={15} />}
                </IconButton>
                <IconButton label={`Take ${nameOf(game)} off this stage`} onClick={() => onChange(places.filter((p) => p.game !== game))}>
                  <Trash2 size={15} />
                </IconButton>
              </Flex>
            </SortableRow>
          ))}
        </SortableList>
      </Stack>
      <Flex gap="2" mt="2" wrap="wrap">
        {absent.map((g) => (
          <Button
            key={g.id}
            size="xs"
            variant="outline"
            onClick={() =>
              onChange([
                ...places,
                {
                  game: g.id,
                  place: { ...wholePlace, ...frontOf(g.kind)?.place },
                },
              ])
            }
          >
            Put {g.name} on it
          </Button>
        ))}
      </Flex>
    </Box>
  );
}
