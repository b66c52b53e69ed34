"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { create } from "zustand";
import type { Unfinished } from "../../core/module/game";
import type { Command } from "../../core/signals/signal";
import { Modal } from "../../ui/modal";
import { tell } from "../../ui/toaster";
import { useLive } from "./live";
import { commandAndTell } from "./show";

type Game = Readonly<{ id: string; kind: string; name: string; view: Record<string, unknown> }>;
type Open = Readonly<{ game: Game; what: Unfinished }>;
type Find = (games: readonly Game[]) => readonly Open[];

/** What is to be done when the show may end, and how what is unfinished is found; null while nobody ends it. */
const useEnding = create<Readonly<{ ending: Readonly<{ then: () => Promise<unknown>; find: Find }> | null }>>(() => ({ ending: null }));

/** Ends the show by `then`, at once where nothing is unfinished, else after it was asked what becomes of each. */
export async function endWith(then: () => Promise<unknown>): Promise<void> {
  // The fronts of all games: loaded when a show ends, not with every page.
  const { frontOf } = await import("../../core/games/fronts");
  const find: Find = (games) =>
    games.flatMap((game) => (frontOf(game.kind)?.unfinished?.(game.view) ?? []).map((what) => ({ game, what })));
  if (find(useLive.getState().standing?.games ?? []).length === 0) return void (await then());
  useEnding.setState({ ending: { then, find } });
}

/** What is unfinished when a show is to end, with what can be done about each: open rounds, winners who have not claimed, points that are held. */
export function EndShow() {
  const ending = useEnding((s) => s.ending);
  const games = useLive((s) => s.standing?.games);
  const open = ending?.find(games ?? []) ?? [];
  const close = (): void => useEnding.setState({ ending: null });
  const end = async (): Promise<void> => {
    close();
    await ending?.then();
  };
  return (
    <Modal
      title="Before the show ends"
      about={
        <Text color="inkSoft" fontSize="15.5px">
          {open.length === 0
            ? "Nothing is left open."
            : "You can decide each now, or leave it as it is. What stays open goes on after the show."}
        </Text>
      }
      open={ending !== null}
      urgent
      onClose={close}
    >
      <Stack gap="3" role="list" aria-label="Left open">
        {open.map(({ game, what }) => (
          <Box key={`${game.id}.${what.id}`} role="listitem" bg="raised" borderWidth="1px" borderColor="line" borderRadius="10px" p="3">
            <Text mb="2">
              <b>{game.name}</b>: <bdi>{what.words}</bdi>
            </Text>
            <Flex gap="2" wrap="wrap">
              {what.ways.map(({ label, command }) => (
                <Button key={label} size="sm" variant="outline" px="3" onClick={() => void commandAndTell(game, command as Command, tell)}>
                  {label}
                </Button>
              ))}
            </Flex>
          </Box>
        ))}
      </Stack>
      <Flex gap="3" mt="5" justify="flex-end" wrap="wrap">
        <Button variant="ghost" px="3" onClick={close}>
          Go on with the show
        </Button>
        <Button colorPalette="brick" px="4" onClick={() => void end()}>
          {open.length === 0 ? "End the show" : "Leave the rest and end the show"}
        </Button>
      </Flex>
    </Modal>
  );
}
