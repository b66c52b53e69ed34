"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import { sheets } from "../../../games/registry-sheets";
import type { GameSummary, OverlaySummary } from "../../../server/ports/operator-store";
import { type Act, useOffer } from "../../../ui/keys";
import { Stub } from "../../../ui/stub";
import { tellTrouble } from "../../../ui/toaster";
import { call } from "../../_frame/call";
import { ChatLine } from "../../_frame/chat-line";
import { useLive } from "../../_frame/live";

const kinds = Object.entries(sheets).map(([kind, sheet]) => ({ kind, ...sheet.offer }));

export function GamesList({
  games,
  overlays,
  practice,
}: Readonly<{ games: readonly GameSummary[]; overlays: readonly OverlaySummary[]; practice: string }>) {
  const router = useRouter();
  const [busy, setBusy] = useState("");
  const acts = useMemo(
    (): Act[] =>
      games.map((g) => ({ id: `open.${g.id}`, label: `Open ${g.name}`, group: "Games", run: () => router.push(`/prepare/games/${g.id}`) })),
    [games, router],
  );
  useOffer("games", acts);
  const add = async (kind: string, base: string): Promise<void> => {
    setBusy(kind);
    const taken = new Set(games.map((g) => g.name));
    let name = base;
    for (let n = 2; taken.has(name); n += 1) name = `${base} ${n}`;
    const done = await call<{ id: string }>("POST", "/games", { kind, name });
    setBusy("");
    if (!done.ok) return tellTrouble(done.words);
    router.push(`/prepare/games/${done.value.id}`);
  };
  return (
    <Stack gap="4">
      <ChatLine practice={practice} />
      {games.map((game) => (
        <GameStub key={game.id} game={game} overlays={overlays} />
      ))}
      {kinds.map(({ kind, name, about }) => {
        const first = !games.some((g) => g.kind === kind);
        return (
          <Flex
            key={kind}
            borderWidth="1px"
            borderStyle="dashed"
            borderColor="line"
            borderRadius="10px"
            p="4"
            align="center"
            gap="4"
            wrap={{ base: "wrap", lg: "nowrap" }}
          >
            <Box flex="1" minW={{ base: "100%", lg: "0" }}>
              <Text fontWeight="700">{first ? `Start with ${name}` : `Another ${name.replace(/^an? /, "")}`}</Text>
              <Text color="inkSoft">{about}</Text>
            </Box>
            <Button
              variant={games.length === 0 ? "solid" : "outline"}
              colorPalette={games.length === 0 ? "ochre" : "plain"}
              fontWeight="700"
              loading={busy === kind}
              onClick={() =>
                void add(
                  kind,
                  name.replace(/^an? /, "").replace(/^./, (c) => c.toUpperCase()),
                )
              }
            >
              Add {name}
            </Button>
          </Flex>
        );
      })}
    </Stack>
  );
}

function GameStub({ game, overlays }: Readonly<{ game: GameSummary; overlays: readonly OverlaySummary[] }>) {
  const running = useLive((s) => s.standing?.games.find((g) => g.id === game.id));
  const [wish, setWish] = useState<boolean | null>(null);
  const on = running === undefined ? null : running.view["on"] !== false;
  const where = overlays.filter((o) => o.games.includes(game.id)).map((o) => o.name);
  const flip = async (next: boolean): Promise<void> => {
    setWish(next);
    const done = await call("POST", `/games/${game.id}/hand`, {
      hand: { do: "switch", on: next },
      id: `hand-${crypto.getRandomValues(new Uint32Array(3)).join("-")}`,
    });
    setWish(null);
    if (!done.ok) tellTrouble(done.words);
  };
  return (
    <Stub
      data-game={game.id}
      end={
        <Link href={`/prepare/games/${game.id}`} style={{ textDecoration: "none" }}>
          <Button as="span" colorPalette="ochre" fontWeight="700">
            Set up
          </Button>
        </Link>
      }
    >
      <Flex align="center" gap={{ base: "2", lg: "4" }} wrap={{ base: "wrap", lg: "nowrap" }}>
        <Box flex="1" minW={{ base: "100%", lg: "0" }}>
          <Flex align="baseline" gap="3">
            <Text fontWeight="700" fontSize="18px" truncate>
              {game.name}
            </Text>
            <Text color="inkSoft">{sheets[game.kind]?.kindName ?? game.kind}</Text>
          </Flex>
          <Text color="inkSoft">
            {game.version === 0
              ? "Not published yet: viewers see nothing of it."
              : `Version ${game.version}${game.changed ? ", with changes not published" : ""}${where.length > 0 ? ` · stands on ${where.join(", ")}` : " · stands on no overlay"}`}
          </Text>
        </Box>
        {on !== null && (
          <Button
            size="sm"
            variant="outline"
            color={on ? "mossText" : "inkSoft"}
            aria-pressed={on}
            loading={wish !== null}
            onClick={() => void flip(!on)}
          >
            {on ? "Running" : "Switched off"}
          </Button>
        )}
      </Flex>
    </Stub>
  );
}
