"use client";
import { Box, Button, chakra, Flex, Grid, Stack, Text } from "@chakra-ui/react";
import { Plus } from "lucide-react";
import dynamic from "next/dynamic";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import type { AnyGame } from "../../../core/module/game";
import type { Sprite } from "../../../core/wire/messages";
import { count } from "../../../core/words/sentence";
import type { OverlaySummary } from "../../../server/ports/operator-store";
import type { Use } from "../../../server/web/uses";
import { type Act, useOffer } from "../../../ui/keys";
import { tell, tellTrouble } from "../../../ui/toaster";
import { When } from "../../../ui/when";
import { call } from "../../_frame/call";
import { ChatLine } from "../../_frame/chat-line";
import { useLive } from "../../_frame/live";
import { type GalleryGame, GameCard } from "./game-card";
import { RemoveGame } from "./remove-game";

/** All kinds with their set-ups come when one is to be added. */
const AddGame = dynamic(() => import("./add-game").then((m) => m.AddGame), { ssr: false });

export type Removed = Readonly<{ id: string; name: string; removedMs: number }>;

/** All that stands on the picture, each with a small living picture of itself; and what there could be. */
export function Gallery({
  games,
  removed,
  overlays,
  sprites,
  home,
  practice,
}: Readonly<{
  games: readonly GalleryGame[];
  removed: readonly Removed[];
  overlays: readonly OverlaySummary[];
  sprites: readonly Sprite[];
  home: string;
  practice: string;
}>) {
  const router = useRouter();
  const [adding, setAdding] = useState(false);
  const [busy, setBusy] = useState(false);
  const [removing, setRemoving] = useState<Readonly<{ game: GalleryGame; uses: readonly Use[] }> | null>(null);
  const acts = useMemo(
    (): Act[] => [{ id: "games.add", label: "Add a game", group: "Games", words: "new put on screen", run: () => setAdding(true) }],
    [],
  );
  useOffer("games", acts);
  const add = async (game: AnyGame, part: Readonly<{ setUp?: string; like?: string; name?: string }>): Promise<void> => {
    setBusy(true);
    const made = await call<{ id: string }>("POST", "/games", { kind: game.kind, ...part, name: part.name ?? freeName(games, game) });
    setBusy(false);
    if (!made.ok) return tellTrouble(made.words);
    setAdding(false);
    router.push(`/prepare/games/${made.value.id}?name=1`);
  };
  const copy = async (game: GalleryGame): Promise<void> => {
    const made = await call<{ id: string }>("POST", "/games", {
      kind: game.kind,
      like: game.id,
      name: unlike(games, `${game.name.slice(0, 70)} copy`),
    });
    if (!made.ok) return tellTrouble(made.words);
    router.push(`/prepare/games/${made.value.id}?name=1`);
  };
  const back = async ({ id, name }: Readonly<{ id: string; name: string }>): Promise<void> => {
    const done = await call("POST", `/games/${id}/restore`);
    if (!done.ok) return tellTrouble(done.words);
    tell(`${name} is back, with all that was kept of it.`);
    router.refresh();
  };
  const take = async (game: GalleryGame, instead = ""): Promise<void> => {
    const done = await call<{ left: readonly string[] }>("DELETE", `/games/${game.id}`, instead === "" ? {} : { instead });
    setRemoving(null);
    if (!done.ok) return tellTrouble(done.words);
    const other = games.find((g) => g.id === instead)?.name;
    const { left } = done.value;
    const waits = left.length === 0 ? "" : ` In the ${left.join(" and the ")} it waits with what else is not published yet.`;
    tell(
      other === undefined ? `${game.name} was removed.` : `${game.name} was removed; ${other} stands in its place.${waits}`,
      () => void back(game),
    );
    router.refresh();
  };
  const ask = async (game: GalleryGame): Promise<void> => {
    const uses = await call<readonly Use[]>("GET", `/games/${game.id}/uses`);
    if (!uses.ok) return tellTrouble(uses.words);
    // What nothing uses goes at once; it can be brought back.
    if (uses.value.length === 0) return take(game);
    setRemoving({ game, uses: uses.value });
  };
  return (
    <Box maxW="1280px" mx="auto" px="5" py="4">
      <Stack gap="4">
        <Box>
          <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="26px">
            On screen
          </Text>
          <Standing games={games} overlays={overlays} />
        </Box>
        <ChatLine practice={practice} />
        <Grid templateColumns="repeat(auto-fill, minmax(280px, 1fr))" gap="4" role="list" aria-label="Games">
          {games.map((game) => (
            <GameCard
              key={game.id}
              game={game}
              sprites={sprites}
              home={home}
              onCopy={() => void copy(game)}
              onRemove={() => void ask(game)}
            />
          ))}
          <chakra.button
            type="button"
            role="listitem"
            borderWidth="1.5px"
            borderStyle="dashed"
            borderColor="line"
            borderRadius="12px"
            minH="220px"
            p="4"
            cursor="pointer"
            _hover={{ borderColor: "ochreText" }}
            aria-label={games.length === 0 ? "Put the first game on screen" : "Put something else on screen"}
            onClick={() => setAdding(true)}
          >
            <Flex direction="column" align="center" gap="1">
              <Box color="ochreText">
                <Plus size={24} aria-hidden="true" />
              </Box>
              <Text fontWeight="700">{games.length === 0 ? "Put the first game on screen" : "Put something else on screen"}</Text>
              <Text color="inkSoft" fontSize="15px" maxW="26ch">
                Each kind has ready set-ups that work at once.
              </Text>
            </Flex>
          </chakra.button>
        </Grid>
        {removed.length > 0 && (
          <Box as="section" aria-label="Removed games">
            <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="1">
              Removed
            </Text>
            {removed.map((r) => (
              <Flex key={r.id} align="center" gap="3" py="1" fontSize="15.5px" data-removed={r.id}>
                <Text fontWeight="600">{r.name}</Text>
                <Text color="inkSoft" flex="1">
                  removed <When atMs={r.removedMs} />
                </Text>
                <Button size="xs" variant="outline" onClick={() => void back(r)}>
                  Bring back
                </Button>
              </Flex>
            ))}
          </Box>
        )}
      </Stack>
      {adding && (
        <AddGame
          open
          sprites={sprites}
          home={home}
          busy={busy}
          onClose={() => setAdding(false)}
          onAdd={({ game, setUp }) => void add(game, setUp === undefined ? {} : { setUp })}
        />
      )}
      <RemoveGame of={removing} onClose={() => setRemoving(null)} games={games} onRemove={(game, instead) => void take(game, instead)} />
    </Box>
  );
}

/** “Two things stand on Main stage; one page has it open.” */
function Standing({ games, overlays }: Readonly<{ games: readonly GalleryGame[]; overlays: readonly OverlaySummary[] }>) {
  const live = useLive((s) => s.standing?.overlays);
  const [first] = overlays.filter((o) => o.shows);
  if (first === undefined)
    return (
      <Text color="inkSoft">
        There is no overlay yet, so nothing is seen. <Link href="/prepare/overlays">Add one</Link>.
      </Text>
    );
  const on = live?.find((o) => o.id === first.id)?.places.length ?? first.games.filter((g) => games.some((x) => x.id === g)).length;
  return (
    <Text color="inkSoft">
      {on === 0 ? "Nothing stands" : on === 1 ? "One thing stands" : `${count(on)} things stand`} on <b>{first.name}</b>.{" "}
      <Link href={`/prepare/overlays/${first.id}`} style={{ textDecoration: "underline" }}>
        Arrange it
      </Link>{" "}
      ·{" "}
      <Link href="/prepare/overlays" style={{ textDecoration: "underline" }}>
        Copy its link
      </Link>
    </Text>
  );
}

const unlike = (games: readonly GalleryGame[], base: string): string => {
  const taken = new Set(games.map((g) => g.name));
  let name = base;
  for (let n = 2; taken.has(name); n += 1) name = `${base} ${n}`;
  return name;
};
/** The first of the kind's own names that is free. */
const freeName = (games: readonly GalleryGame[], game: AnyGame): string =>
  game.newNames.find((name) => !games.some((g) => g.name === name)) ?? unlike(games, game.newNames[0] ?? game.name);
