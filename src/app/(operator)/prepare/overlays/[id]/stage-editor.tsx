"use client";
import { Box, Button, Flex, Grid, Stack, Text } from "@chakra-ui/react";
import { Redo2, Undo2 } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { bareStage, type Place, type Sprite } from "../../../../../core/wire/messages";
import { count } from "../../../../../core/words/sentence";
import type { StagePlayer } from "../../../../../overlay/player";
import type { Layout, LayoutPlace } from "../../../../../server/ports/operator-store";
import { type Act, useOffer } from "../../../../../ui/keys";
import { Tick } from "../../../../../ui/tick";
import { tell, tellTrouble } from "../../../../../ui/toaster";
import { call } from "../../../../_frame/call";
import { Dressing } from "./dressing";
import { SetUp } from "./set-up";
import { PlaceBox } from "./place-box";
import { PlaceDetails } from "./place-details";
import { type StageGame, StageList } from "./stage-list";
import { backdropOf, backdrops } from "../../../../../ui/backdrops";
import { type Guide, within } from "./snap";

/** Arrange the games of one overlay: drag, resize, keys. What is on air is what stands here, or what was published. */
export function StageEditor({
  layout,
  games,
  sprites,
  owner,
}: Readonly<{ layout: Layout; games: readonly StageGame[]; sprites: readonly Sprite[]; owner: boolean }>) {
  const router = useRouter();
  const [places, setPlaces] = useState<readonly LayoutPlace[]>(layout.draft ?? layout.places);
  const [chosen, setChosen] = useState<string | null>(null);
  const [atOnce, setAtOnce] = useState(layout.atOnce);
  const [waits, setWaits] = useState(layout.draft !== null);
  const [backdrop, setBackdrop] = useState(layout.backdrop);
  const [dress, setDress] = useState(layout.dress);
  const [guides, setGuides] = useState<readonly Guide[]>([]);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [history, setHistory] = useState({ undo: 0, redo: 0 });
  const past = useRef<(readonly LayoutPlace[])[]>([]);
  const future = useRef<(readonly LayoutPlace[])[]>([]);
  const board = useRef<HTMLDivElement>(null);
  const screen = useRef<HTMLDivElement>(null);
  const [player, setPlayer] = useState<StagePlayer | null>(null);
  const timer = useRef(0);
  const current = useRef(places);
  current.current = places;

  useEffect(() => {
    if (board.current === null || screen.current === null) return;
    const look = (): void => {
      if (board.current !== null) setSize({ width: board.current.clientWidth, height: board.current.clientHeight });
    };
    const observer = new ResizeObserver(look);
    observer.observe(board.current);
    look();
    const place = screen.current;
    let made: StagePlayer | null = null;
    let gone = false;
    // What draws comes after what is arranged: the places can be moved meanwhile.
    void Promise.all([import("../../../../../overlay/player"), import("../../../../../games/registry-scenes")]).then(
      ([{ StagePlayer: Player }, { scenes }]) => {
        if (gone) return;
        made = new Player(place, scenes);
        setPlayer(made);
      },
      () => tellTrouble("The picture could not be loaded. Places can be arranged all the same; reload the page to see them."),
    );
    return () => {
      gone = true;
      observer.disconnect();
      made?.free();
    };
  }, []);
  useEffect(() => {
    player?.setStage({
      ...bareStage([], sprites),
      dress,
      games: places.flatMap(({ game, place }) => {
        const known = games.find((g) => g.id === game);
        return known === undefined || place.hidden ? [] : [{ id: game, kind: known.kind, place, view: known.view }];
      }),
    });
  }, [player, places, games, sprites, dress]);

  const save = useCallback(
    async (next: readonly LayoutPlace[], onAir: boolean): Promise<boolean> => {
      const done = await call("PUT", `/overlays/${layout.id}/layout`, { places: next, onAir });
      if (!done.ok) tellTrouble(done.words);
      else setWaits(!onAir);
      return done.ok;
    },
    [layout.id],
  );
  const keep = useCallback(
    (next: readonly LayoutPlace[]) => {
      current.current = next;
      setPlaces(next);
      setHistory({ undo: past.current.length, redo: future.current.length });
      clearTimeout(timer.current);
      timer.current = window.setTimeout(() => void save(next, atOnce), 400);
    },
    [save, atOnce],
  );
  const change = useCallback(
    (next: readonly LayoutPlace[]) => {
      past.current = [...past.current.slice(-80), current.current];
      future.current = [];
      keep(next);
    },
    [keep],
  );
  const walk = useCallback(
    (from: { current: (readonly LayoutPlace[])[] }, to: { current: (readonly LayoutPlace[])[] }) => {
      const next = from.current.pop();
      if (next === undefined) return;
      to.current.push(current.current);
      keep(next);
    },
    [keep],
  );
  const set = (game: string, part: Partial<Place>): void =>
    change(current.current.map((p) => (p.game === game ? { ...p, place: within({ ...p.place, ...part }) } : p)));
  const order = (game: string, by: number): void => {
    const next = [...current.current];
    const i = next.findIndex((p) => p.game === game);
    const [taken] = next.splice(i, 1);
    if (taken === undefined) return;
    next.splice(Math.max(0, Math.min(next.length, i + by)), 0, taken);
    change(next);
  };
  const publish = async (): Promise<void> => {
    clearTimeout(timer.current);
    if (await save(current.current, true)) {
      tell(`“${layout.name}” shows this arrangement now.`);
      router.refresh();
    }
  };
  const acts = useMemo(
    (): Act[] => [
      { id: "stage.undo", label: "Undo the last change", group: "This stage", key: "$mod+z", run: () => walk(past, future) },
      { id: "stage.redo", label: "Do it again", group: "This stage", key: "$mod+Shift+z", run: () => walk(future, past) },
    ],
    [walk],
  );
  useOffer("stage", acts);

  const now = places.find((p) => p.game === chosen) ?? null;
  const nameOf = (id: string): string => games.find((g) => g.id === id)?.name ?? "a game that is gone";
  const ratio = layout.width / layout.height;

  return (
    <Box>
      <Flex px="5" minH="52px" py="1.5" align="center" gap="3" borderBottomWidth="1px" borderColor="line" wrap="wrap">
        <Text color="inkSoft">
          <Link href="/prepare/overlays">Overlays</Link> ›
        </Text>
        <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="19px">
          {layout.name}
        </Text>
        <Text color="inkSoft">
          {count(layout.width)} × {count(layout.height)}
        </Text>
        <Box flex="1" />
        <Text fontSize="15px" color="inkSoft" role="status" data-testid="stage-state">
          {waits ? "kept, not on air yet" : "as on air"}
        </Text>
        <Tick
          label="Changes go on air at once"
          value={atOnce}
          disabled={!owner}
          onSet={(v) => {
            setAtOnce(v);
            void call("PATCH", `/overlays/${layout.id}/set-up`, { atOnce: v }).then((done) => {
              if (!done.ok) return tellTrouble(done.words);
              if (v) void save(current.current, true);
            });
          }}
        />
        <Button size="sm" variant="ghost" px="2" aria-label="Undo" disabled={history.undo === 0} onClick={() => walk(past, future)}>
          <Undo2 size={18} />
        </Button>
        <Button size="sm" variant="ghost" px="2" aria-label="Redo" disabled={history.redo === 0} onClick={() => walk(future, past)}>
          <Redo2 size={18} />
        </Button>
        <Button size="sm" colorPalette="ochre" fontWeight="700" disabled={!waits} onClick={() => void publish()}>
          Put on air
        </Button>
      </Flex>
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 330px" }} gap="6" px="5" py="4" maxW="1480px" mx="auto">
        <Box>
          <Box
            ref={board}
            position="relative"
            borderRadius="10px"
            overflow="hidden"
            borderWidth="1px"
            borderColor="line"
            mx="auto"
            css={{
              aspectRatio: `${layout.width} / ${layout.height}`,
              maxHeight: "calc(100vh - 240px)",
              maxWidth: `calc((100vh - 240px) * ${ratio})`,
            }}
            style={{ background: backdropOf(backdrop) }}
            data-testid="stage-board"
            onPointerDown={(e) => e.target === e.currentTarget && setChosen(null)}
          >
            <Box ref={screen} position="absolute" inset="0" pointerEvents="none" role="img" aria-label="The stage as viewers see it" />
            {size.width > 0 &&
              places.map(({ game, place }, i) => (
                <PlaceBox
                  key={game}
                  name={nameOf(game)}
                  game={game}
                  place={place}
                  order={i}
                  board={size}
                  chosen={chosen === game}
                  others={places.filter((p) => p.game !== game).map((p) => p.place)}
                  onChoose={() => setChosen(game)}
                  onGuides={setGuides}
                  onSet={(part) => set(game, part)}
                />
              ))}
            {guides.map((g) => (
              <Box
                key={`${g.axis}${g.at}`}
                position="absolute"
                pointerEvents="none"
                bg="#E0A025"
                zIndex={300}
                style={
                  g.axis === "x"
                    ? { left: `${g.at * 100}%`, top: 0, bottom: 0, width: 1 }
                    : { top: `${g.at * 100}%`, left: 0, right: 0, height: 1 }
                }
              />
            ))}
          </Box>
          <Flex mt="3" gap="2" align="center" wrap="wrap" fontSize="15px">
            <Text color="inkSoft">Behind it, never on air:</Text>
            {Object.keys(backdrops).map((b) => (
              <Button
                key={b}
                size="xs"
                variant={backdrop === b ? "solid" : "outline"}
                aria-pressed={backdrop === b}
                onClick={() => {
                  setBackdrop(b);
                  if (owner) void call("PATCH", `/overlays/${layout.id}/set-up`, { backdrop: b });
                }}
              >
                {b}
              </Button>
            ))}
          </Flex>
        </Box>
        <Stack gap="5">
          <StageList places={places} chosen={chosen} games={games} onChoose={setChosen} onOrder={order} onSet={set} onChange={change} />
          {now !== null && <PlaceDetails name={nameOf(now.game)} place={now.place} onSet={(part) => set(now.game, part)} />}
          <Dressing overlay={layout.id} dress={dress} owner={owner} onDress={setDress} />
          <SetUp layout={layout} owner={owner} />
        </Stack>
      </Grid>
    </Box>
  );
}
