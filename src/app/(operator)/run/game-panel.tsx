"use client";
import { Box, Button, Flex, Text } from "@chakra-ui/react";
import Link from "next/link";
import { useCallback, useEffect, useMemo } from "react";
import type { Command } from "../../../core/signals/signal";
import type { StandingOverlay } from "../../../core/wire/messages";
import { shownOf, useShown } from "../../../games/registry-shown";
import { KeyCap } from "../../../ui/key-cap";
import { type Act, keyLabel, keyOf, useChosenKeys, useOffer } from "../../../ui/keys";
import { useRehearsalHere } from "../../_frame/rehearsal-here";
import { fixedKey } from "../../_frame/fixed-keys";
import { useLive } from "../../_frame/live";
import { tell, tellTrouble } from "../../../ui/toaster";
import { call } from "../../_frame/call";
import { commandAndTell, useShow } from "../../_frame/show";
import { usePeople } from "./people";
import { ActionPad } from "./action-pad";

type Game = Readonly<{ id: string; kind: string; name: string; view: Record<string, unknown> }>;

/** The game one points at: how it stands, and its few actions. */
export function GamePanel({ game, overlay }: Readonly<{ game: Game | null; overlay: StandingOverlay | null }>) {
  const chosen = useChosenKeys((s) => s.keys);
  const show = useShow();
  const rehearsal = useRehearsalHere((r) => r.id);
  const id = game?.id ?? "";
  const kind = game?.kind ?? "";
  const place = overlay?.places.find((p) => p.game === id)?.place;
  const on = game?.view["on"] === true;
  const command = useCallback(
    // What did not go through is said; what did is seen.
    (what: Command): Promise<boolean> => commandAndTell({ id, kind }, what),
    [id, kind],
  );
  const overlayId = overlay?.id ?? "";
  const hide = useCallback(
    async (hidden: boolean): Promise<void> => {
      const done = await call("POST", `/overlays/${overlayId}/game`, { game: id, hidden });
      if (!done.ok) return tellTrouble(done.words);
      if (hidden)
        tell("It is hidden; it goes on counting.", () => void call("POST", `/overlays/${overlayId}/game`, { game: id, hidden: false }));
    },
    [overlayId, id],
  );
  const front = useCallback(async (): Promise<void> => {
    const done = await call("POST", `/overlays/${overlayId}/game`, { game: id, front: true });
    if (!done.ok) tellTrouble(done.words);
  }, [overlayId, id]);
  const hidden = place?.hidden === true;
  const acts = useMemo(
    (): Act[] =>
      id === ""
        ? []
        : [
            ...(place === undefined
              ? []
              : [
                  {
                    id: "focus.hide",
                    label: hidden ? "Show the focused game again" : "Hide the focused game",
                    group: "The focused game",
                    key: fixedKey("focus.hide"),
                    run: () => void hide(!hidden),
                  },
                ]),
            {
              id: "focus.switch",
              label: on ? "Stop the focused game" : "Start the focused game",
              group: "The focused game",
              key: fixedKey("focus.switch"),
              run: () => void command({ do: "switch", on: !on }),
            },
          ],
    [id, place, hidden, on, hide, command],
  );
  const people = usePeople();
  useOffer("focus", acts);
  const keyFor = (act: string): string | null => {
    const found = acts.find((a) => a.id === act);
    return found === undefined ? null : keyOf(found, chosen);
  };
  // Its own part of the booth comes after the page; those of the others are fetched meanwhile, for the key that leads to them.
  const shown = useShown(kind);
  const Own = shown?.Booth;
  const kinds = useLive((s) => [...new Set(s.standing?.games.map((g) => g.kind))].join(" "));
  useEffect(() => {
    for (const one of kinds.split(" ")) void shownOf(one).catch(() => undefined);
  }, [kinds]);
  if (game === null)
    return (
      <Box p="4" minH="240px">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px">
          No game is running yet
        </Text>
        <Text color="inkSoft" my="2">
          Set one up and publish it; then its actions stand here.
        </Text>
        <Link href="/prepare">Choose a game</Link>
      </Box>
    );
  const cap = (key: string | null) => key !== null && <KeyCap>{keyLabel(key)}</KeyCap>;
  return (
    <Box p="3" flexShrink="0" data-region="" data-testid="focus" data-game={game.id} aria-busy={shown === undefined || undefined}>
      <Flex align="baseline" gap="2">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="19px" truncate>
          {game.name}
        </Text>
        {!on && (
          <Text color="brickText" fontWeight="700" fontSize="15px">
            stopped
          </Text>
        )}
        {hidden && (
          <Text color="ochreText" fontWeight="700" fontSize="15px">
            hidden
          </Text>
        )}
      </Flex>
      {Own !== undefined && (
        <Own gameId={game.id} view={game.view} sinceMs={show?.show?.sinceMs ?? 0} rehearsal={rehearsal} command={command} people={people} />
      )}
      <ActionPad kind={game.kind} view={game.view} run={command} />
      <Box display="grid" gridTemplateColumns="1fr 1fr" gap="2" mt="2">
        <Button
          size="sm"
          variant="outline"
          justifyContent="space-between"
          px="2.5"
          onClick={() => void command({ do: "switch", on: !on })}
          aria-keyshortcuts={keyFor("focus.switch") ?? undefined}
        >
          {on ? "Stop" : "Start"} {cap(keyFor("focus.switch"))}
        </Button>
        {place !== undefined && (
          <Button
            size="sm"
            variant="outline"
            justifyContent="space-between"
            px="2.5"
            onClick={() => void hide(!hidden)}
            aria-keyshortcuts={keyFor("focus.hide") ?? undefined}
          >
            {hidden ? "Show" : "Hide"} {cap(keyFor("focus.hide"))}
          </Button>
        )}
        {place !== undefined && (overlay?.places.length ?? 0) > 1 && overlay?.places.at(-1)?.game !== game.id && (
          <Button size="sm" variant="outline" px="2.5" justifyContent="flex-start" onClick={() => void front()}>
            To the front
          </Button>
        )}
      </Box>
    </Box>
  );
}
