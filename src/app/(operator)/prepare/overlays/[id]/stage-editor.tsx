"use client";
import { Box, Button, chakra, Flex, Grid, Stack, Text } from "@chakra-ui/react";
import { ArrowDown, ArrowUp, Eye, EyeOff, Lock, LockOpen, Redo2, Trash2, Undo2 } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { type KeyboardEvent, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Rnd } from "react-rnd";
import { bareStage, type Place, type Sprite, wholePlace } from "../../../../../core/wire/messages";
import { count } from "../../../../../core/words/sentence";
import { scenes } from "../../../../../games/registry-scenes";
import { StagePlayer } from "../../../../../overlay/player";
import type { Layout, LayoutPlace } from "../../../../../server/ports/operator-store";
import { Dial } from "../../../../../ui/dial";
import { type Act, useOffer } from "../../../../../ui/keys";
import { NumberField } from "../../../../../ui/number-field";
import { Tick } from "../../../../../ui/tick";
import { tell, tellTrouble } from "../../../../../ui/toaster";
import { call } from "../../../../_frame/call";
import { SetUp } from "./set-up";
import { backdropOf, backdrops } from "../../../../../ui/backdrops";
import { align, type Align, aligns, type Guide, snap, within } from "./snap";

export type StageGame = Readonly<{ id: string; kind: string; name: string; view: Record<string, unknown> }>;
const alignWords: Readonly<Record<Align, string>> = {
  left: "left edge",
  middle: "middle",
  right: "right edge",
  top: "top",
  centre: "centre height",
  bottom: "bottom",
  whole: "whole picture",
};

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
  const [guides, setGuides] = useState<readonly Guide[]>([]);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [history, setHistory] = useState({ undo: 0, redo: 0 });
  const past = useRef<(readonly LayoutPlace[])[]>([]);
  const future = useRef<(readonly LayoutPlace[])[]>([]);
  const board = useRef<HTMLDivElement>(null);
  const screen = useRef<HTMLDivElement>(null);
  const player = useRef<StagePlayer | null>(null);
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
    const made = new StagePlayer(screen.current, scenes);
    player.current = made;
    return () => {
      observer.disconnect();
      made.free();
    };
  }, []);
  useEffect(() => {
    player.current?.setStage({
      ...bareStage([], sprites),
      games: places.flatMap(({ game, place }) => {
        const known = games.find((g) => g.id === game);
        return known === undefined || place.hidden ? [] : [{ id: game, kind: known.kind, place, view: known.view }];
      }),
    });
  }, [places, games, sprites]);

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

  const nudge = (event: KeyboardEvent, { game, place }: LayoutPlace): void => {
    const step = event.shiftKey ? 0.05 : 0.005;
    const by: Readonly<Record<string, Partial<Place>>> = event.altKey
      ? {
          ArrowLeft: { width: place.width - step },
          ArrowRight: { width: place.width + step },
          ArrowUp: { height: place.height - step },
          ArrowDown: { height: place.height + step },
        }
      : {
          ArrowLeft: { x: place.x - step },
          ArrowRight: { x: place.x + step },
          ArrowUp: { y: place.y - step },
          ArrowDown: { y: place.y + step },
        };
    const part = by[event.key];
    if (part === undefined || place.locked) return;
    event.preventDefault();
    set(game, part);
  };
  const now = places.find((p) => p.game === chosen) ?? null;
  const absent = games.filter((g) => !places.some((p) => p.game === g.id));
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
                <Rnd
                  key={game}
                  size={{ width: place.width * size.width, height: place.height * size.height }}
                  position={{ x: place.x * size.width, y: place.y * size.height }}
                  bounds="parent"
                  disableDragging={place.locked}
                  enableResizing={!place.locked && chosen === game}
                  style={{ zIndex: 10 + i + (chosen === game ? 100 : 0) }}
                  onDragStart={() => setChosen(game)}
                  onDrag={(_, d) => {
                    const others = places.filter((p) => p.game !== game).map((p) => p.place);
                    setGuides(snap({ ...place, x: d.x / size.width, y: d.y / size.height }, others).guides);
                  }}
                  onDragStop={(_, d) => {
                    setGuides([]);
                    const others = places.filter((p) => p.game !== game).map((p) => p.place);
                    const next = snap({ ...place, x: d.x / size.width, y: d.y / size.height }, others).place;
                    if (Math.abs(next.x - place.x) + Math.abs(next.y - place.y) > 0.0005) set(game, { x: next.x, y: next.y });
                  }}
                  onResizeStop={(_, __, el, ___, at) =>
                    set(game, {
                      x: at.x / size.width,
                      y: at.y / size.height,
                      width: el.offsetWidth / size.width,
                      height: el.offsetHeight / size.height,
                    })
                  }
                >
                  <chakra.button
                    type="button"
                    width="100%"
                    height="100%"
                    display="block"
                    textAlign="left"
                    cursor={place.locked ? "default" : "move"}
                    borderWidth="2px"
                    borderStyle={chosen === game ? "solid" : "dashed"}
                    borderColor={chosen === game ? "#E0A025" : "#E0A02599"}
                    borderRadius="6px"
                    opacity={place.hidden ? 0.5 : 1}
                    aria-label={`${nameOf(game)}, at ${Math.round(place.x * 100)} % from left, ${Math.round(place.y * 100)} % from top, ${Math.round(place.width * 100)} by ${Math.round(place.height * 100)} %. Arrow keys move it, with Alt they resize it`}
                    aria-pressed={chosen === game}
                    onFocus={() => setChosen(game)}
                    onKeyDown={(e) => nudge(e, { game, place })}
                    data-place={game}
                  >
                    <chakra.span
                      position="absolute"
                      left="0"
                      top="0"
                      bg="#10131Bdd"
                      color="#F1ECE2"
                      fontSize="14px"
                      fontWeight="600"
                      px="2"
                      py="0.5"
                      borderRadius="4px 0 6px 0"
                    >
                      {nameOf(game)}
                      {place.hidden ? " · hidden" : ""}
                      {place.locked ? " · locked" : ""}
                    </chakra.span>
                  </chakra.button>
                </Rnd>
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
          <Box>
            <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="2">
              On this stage, front to back
            </Text>
            {places.length === 0 && <Text color="inkSoft">Nothing stands here yet. Put a game on it below.</Text>}
            <Stack gap="1.5" role="list" aria-label="On this stage">
              {[...places].reverse().map(({ game, place }) => (
                <Flex
                  key={game}
                  role="listitem"
                  align="center"
                  gap="0.5"
                  bg={chosen === game ? "blank" : "raised"}
                  borderRadius="8px"
                  pl="3"
                  pr="1"
                  minH="38px"
                >
                  <chakra.button type="button" flex="1" textAlign="left" fontWeight="600" cursor="pointer" onClick={() => setChosen(game)}>
                    {nameOf(game)}
                  </chakra.button>
                  <Button size="xs" variant="ghost" px="1" aria-label={`${nameOf(game)} to the front`} onClick={() => order(game, 1)}>
                    <ArrowUp size={15} />
                  </Button>
                  <Button size="xs" variant="ghost" px="1" aria-label={`${nameOf(game)} to the back`} onClick={() => order(game, -1)}>
                    <ArrowDown size={15} />
                  </Button>
                  <Button
                    size="xs"
                    variant="ghost"
                    px="1"
                    aria-pressed={place.hidden}
                    aria-label={place.hidden ? `Show ${nameOf(game)}` : `Hide ${nameOf(game)}`}
                    onClick={() => set(game, { hidden: !place.hidden })}
                  >
                    {place.hidden ? <EyeOff size={15} /> : <Eye size={15} />}
                  </Button>
                  <Button
                    size="xs"
                    variant="ghost"
                    px="1"
                    aria-pressed={place.locked}
                    aria-label={place.locked ? `Unlock ${nameOf(game)}` : `Lock ${nameOf(game)}`}
                    onClick={() => set(game, { locked: !place.locked })}
                  >
                    {place.locked ? <Lock size={15} /> : <LockOpen size={15} />}
                  </Button>
                  <Button
                    size="xs"
                    variant="ghost"
                    px="1"
                    aria-label={`Take ${nameOf(game)} off this stage`}
                    onClick={() => change(places.filter((p) => p.game !== game))}
                  >
                    <Trash2 size={15} />
                  </Button>
                </Flex>
              ))}
            </Stack>
            <Flex gap="2" mt="2" wrap="wrap">
              {absent.map((g) => (
                <Button
                  key={g.id}
                  size="xs"
                  variant="outline"
                  onClick={() =>
                    change([
                      ...places,
                      {
                        game: g.id,
                        place: g.kind === "boss-battle" ? { ...wholePlace, x: 0.73, y: 0.3, width: 0.26, height: 0.68 } : wholePlace,
                      },
                    ])
                  }
                >
                  Put {g.name} on it
                </Button>
              ))}
            </Flex>
          </Box>
          {now !== null && (
            <Box>
              <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="1">
                {nameOf(now.game)}
              </Text>
              <Box fontSize="15px" lineHeight="2.1">
                {(
                  [
                    ["From left", "x"],
                    ["from top", "y"],
                    ["width", "width"],
                    ["height", "height"],
                  ] as const
                ).map(([label, key]) => (
                  <chakra.span key={key}>
                    {label}{" "}
                    <NumberField
                      label={label}
                      value={Math.round(now.place[key] * 1000)}
                      min={0}
                      max={1000}
                      scale={10}
                      unit="%"
                      onSet={(v) => !now.place.locked && set(now.game, { [key]: v / 1000 })}
                    />{" "}
                  </chakra.span>
                ))}
              </Box>
              <Flex gap="1.5" wrap="wrap" my="2" role="group" aria-label="Align">
                {aligns.map((how) => (
                  <Button
                    key={how}
                    size="xs"
                    variant="outline"
                    disabled={now.place.locked}
                    onClick={() => set(now.game, align(now.place, how))}
                  >
                    {alignWords[how]}
                  </Button>
                ))}
              </Flex>
              <Dial
                label="Opacity"
                unit="%"
                value={Math.round(now.place.opacity * 100)}
                min={0}
                max={100}
                step={5}
                onSet={(v) => set(now.game, { opacity: v / 100 })}
              />
            </Box>
          )}
          <SetUp layout={layout} owner={owner} />
        </Stack>
      </Grid>
    </Box>
  );
}
