"use client";
import { Box, Flex, Text } from "@chakra-ui/react";
import Link from "next/link";
import { type ReactNode, useCallback, useEffect, useMemo, useState } from "react";
import type { RuleHint } from "../../../core/rules/hints";
import type { Sprite } from "../../../core/wire/messages";
import { type Act, useOffer } from "../../../ui/keys";
import { fixedKey } from "../../_frame/fixed-keys";
import { asksFor, buttonsOf } from "../../../core/games/buttons";
import { isGame } from "../../../core/games/fronts";
import { useLive } from "../../_frame/live";
import { CueKeys } from "./cue-keys";
import { GamePanel } from "./game-panel";
import { Picture } from "./picture";
import { Playing } from "./playing";
import { Tape } from "./tape";
import { Talk } from "./talk";
import { Waiting } from "./waiting";

export type BoothProps = Readonly<{
  emotes: readonly Sprite[];
  props: readonly Readonly<{ id: string; name: string }>[];
  problems: readonly RuleHint[];
  lan: boolean;
  /** The game to look at first, as the address says: a reload, or a link to a game's part of the booth, finds it again. */
  first?: string | null;
  /** What stands above it, and how high that is: the hands on a rehearsal's time. */
  above?: Readonly<{ strip: ReactNode; px: number }>;
}>;

/** The screen a moderator lives in during a show: tape, picture, keys, what waits, and talk. */
export function Booth({ emotes, props, problems, lan, first = null, above }: BoothProps) {
  const standing = useLive((s) => s.standing);
  const games = useMemo(() => (standing?.games ?? []).filter((g) => isGame(g.kind)), [standing]);
  const overlays = useMemo(() => (standing?.overlays ?? []).filter((o) => o.shows), [standing]);
  const [overlayId, setOverlayId] = useState<string | null>(null);
  const [gameId, setGameId] = useState<string | null>(first);
  // The same function each time: picture and tape are drawn anew only for what they are given.
  const lookAt = useCallback((id: string): void => {
    setGameId(id);
    history.replaceState(null, "", `?game=${encodeURIComponent(id)}`);
  }, []);
  const overlay = overlays.find((o) => o.id === overlayId) ?? overlays[0] ?? null;
  const game =
    games.find((g) => g.id === gameId) ?? games.find((g) => buttonsOf(g.kind).some(([, a]) => asksFor(a) !== null)) ?? games[0] ?? null;
  const focused = game?.id ?? null;
  // The screen fits as it is: nothing scrolls but what has its own list.
  useEffect(() => {
    const html = document.documentElement;
    const wide = matchMedia("(min-width: 62em)");
    const fit = (): void => {
      html.style.overflowY = wide.matches ? "hidden" : "";
      // Messages stand where they cover no hands: see the theme.
      if (wide.matches) html.dataset["screen"] = "booth";
      else delete html.dataset["screen"];
    };
    fit();
    wide.addEventListener("change", fit);
    return () => {
      wide.removeEventListener("change", fit);
      html.style.overflowY = "";
      delete html.dataset["screen"];
    };
  }, []);
  const acts = useMemo(
    (): Act[] => [
      {
        id: "booth.next-game",
        label: "Focus the next game",
        group: "The booth",
        key: fixedKey("booth.next-game"),
        run: () => {
          const at = games.findIndex((g) => g.id === focused);
          const next = games[(at + 1) % Math.max(1, games.length)];
          if (next !== undefined) lookAt(next.id);
        },
      },
      ...games.map((g): Act => ({ id: `booth.focus.${g.id}`, label: `Focus ${g.name}`, group: "The booth", run: () => lookAt(g.id) })),
    ],
    [games, focused, lookAt],
  );
  useOffer("booth", acts);
  const hushed = standing?.hushed === true;
  const on = useLive((s) => s.standing?.games.find((g) => g.kind === "show")?.view["state"] === "on");
  const top = 57 + (on && above === undefined ? 4 : 0) + (hushed ? 53 : 0) + (above?.px ?? 0);
  return (
    <>
      {above?.strip}
      <Flex
        direction="column"
        height={{ base: "auto", lg: `calc(100dvh - ${top}px)` }}
        minH={above === undefined ? "560px" : "500px"}
        data-testid="booth"
      >
        <Box as="h1" srOnly>
          {above === undefined ? "Booth" : "Booth of a rehearsal"}
        </Box>
        <Tape games={games} onGame={lookAt} />
        <Text display={{ base: "block", lg: "none" }} px="3" pt="2" fontSize="15px">
          This screen is made for a desk. On a phone, <Link href="/remote">the remote</Link> has the same hands for one thumb.
        </Text>
        <Flex flex="1" minH="0" direction={{ base: "column", lg: "row" }}>
          <Flex
            direction="column"
            flex={{ base: "none", lg: "1.32" }}
            minW="0"
            p="3"
            gap="3"
            minH="0"
            height={{ base: "500px", lg: "auto" }}
          >
            <Picture overlay={overlay} overlays={overlays} onOverlay={setOverlayId} games={games} focused={focused} onGame={lookAt} />
            <CueKeys problems={problems} />
          </Flex>
          <Flex direction="column" width={{ base: "100%", lg: "290px" }} flexShrink="0" borderLeftWidth="1px" borderColor="line" minH="0">
            <GamePanel game={game} overlay={overlay} />
            <Playing />
            <Waiting props={props} lan={lan} />
          </Flex>
          <Flex
            direction="column"
            width={{ base: "100%", lg: "310px", xl: "340px" }}
            height={{ base: "70dvh", lg: "auto" }}
            flexShrink="0"
            borderLeftWidth="1px"
            borderColor="line"
            minH="0"
          >
            <Talk emotes={emotes} />
          </Flex>
        </Flex>
      </Flex>
    </>
  );
}
