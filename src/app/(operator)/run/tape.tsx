"use client";
import { IconButton } from "../../../ui/icon-button";
import { Box, Button, Flex, Text } from "@chakra-ui/react";
import { scaleTime } from "d3-scale";
import { Minus, Plus } from "lucide-react";
import Link from "next/link";
import { memo, type PointerEvent, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { frontOf } from "../../../core/games/fronts";
import { barsOf, type TimelineEvent } from "../../../core/show/timeline";
import type { PlanItem } from "../../../core/show/plan";
import { type Act, useOffer } from "../../../ui/keys";
import { fixedKey } from "../../_frame/fixed-keys";
import { commandAndTell, theShow, useNow, useShow, wallClock } from "../../_frame/show";
import { placeMarks, placeStubs, minute } from "./tape-layout";
import { useTapeMarks } from "./use-tape";
import { MarkCard, MarkSpot } from "./tape-mark";
import { move, PlanStub } from "./plan-stub";
import { plannedOf } from "./planned";

type Game = Readonly<{ id: string; kind: string; name: string; view: Record<string, unknown> }>;
export const height = 128;
const zooms = [15, 30, 60, 90, 150, 240];

/** The show as a tape: what happened, now, and what is planned. */
export const Tape = memo(function Tape({ games, onGame }: Readonly<{ games: readonly Game[]; onGame: (id: string) => void }>) {
  const show = useShow();
  const now = useNow(1_000);
  const marks = useTapeMarks(show?.show?.sinceMs ?? null);
  const host = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  const [zoom, setZoom] = useState(3);
  /** How far the tape was pushed away from now, in milliseconds; 0 follows now. */
  const [pushed, setPushed] = useState(0);
  const [open, setOpen] = useState<TimelineEvent | null>(null);
  useEffect(() => {
    if (host.current === null) return;
    const watch = new ResizeObserver(([entry]) => entry && setWidth(entry.contentRect.width));
    watch.observe(host.current);
    return () => watch.disconnect();
  }, []);
  const spanMs = (zooms[zoom] ?? 90) * minute;
  const perMs = width / spanMs;
  const nowPx = width * 0.34 - pushed * perMs;
  const xOf = useCallback((ms: number) => nowPx + (ms - now) * perMs, [nowPx, now, perMs]);
  const timeAt = (x: number): number => now + (x - nowPx) / perMs;
  const closer = useCallback(() => setZoom((z) => Math.max(0, z - 1)), []);
  const wider = useCallback(() => setZoom((z) => Math.min(zooms.length - 1, z + 1)), []);
  const next = show === null ? null : (plannedOf(show, now).find((p) => !show.skipped.includes(p.item.id))?.item ?? null);
  const running = show !== null && show.state !== "off";
  const start = useCallback(
    async (item: PlanItem): Promise<void> => {
      const times = show?.done.find((d) => d.item === item.id)?.times ?? 0;
      await commandAndTell(theShow, { do: "plan-fire", item: item.id, times });
    },
    [show],
  );
  const acts = useMemo(
    (): Act[] => [
      { id: "tape.now", label: "Bring the tape to now", group: "The tape", key: fixedKey("tape.now"), run: () => setPushed(0) },
      { id: "tape.closer", label: "Look closer at the tape", group: "The tape", key: fixedKey("tape.closer"), run: closer },
      { id: "tape.wider", label: "See more of the tape", group: "The tape", key: fixedKey("tape.wider"), run: wider },
      ...(next !== null && running
        ? [
            {
              id: "tape.next",
              label: `Start what comes next: ${next.title}`,
              group: "The tape",
              key: fixedKey("tape.next"),
              run: () => void start(next),
            },
          ]
        : []),
    ],
    [closer, wider, next, running, start],
  );
  useOffer("tape", acts);

  const drag = useRef<{ x: number; pushed: number } | null>(null);
  const onDown = (event: PointerEvent<HTMLDivElement>): void => {
    if (event.target !== event.currentTarget && (event.target as HTMLElement).closest("button, a, [data-stub]") !== null) return;
    drag.current = { x: event.clientX, pushed };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const onMove = (event: PointerEvent<HTMLDivElement>): void => {
    if (drag.current === null) return;
    const by = (drag.current.x - event.clientX) / perMs;
    setPushed(Math.max(-12 * 3_600_000, Math.min(12 * 3_600_000, drag.current.pushed + by)));
  };
  const ticks =
    width === 0
      ? []
      : scaleTime()
          .domain([timeAt(0), timeAt(width)])
          .range([0, width])
          .ticks(9);
  const placed = width === 0 ? [] : placeMarks(marks, xOf, 0, nowPx, 2);
  // What is under way in a game stands before what merely runs.
  const rounds = games.flatMap((game) => {
    const fromMs = frontOf(game.kind)?.roundSince?.(game.view) ?? null;
    return fromMs === null ? [] : [{ game, fromMs }];
  });
  const bars =
    width === 0
      ? []
      : [
          ...rounds.map(({ game, fromMs }) => ({ game: game.id, fromMs, toMs: now })),
          ...barsOf(
            marks,
            games.filter((g) => frontOf(g.kind)?.roundSince === undefined).map((g) => ({ id: g.id, on: g.view["on"] === true })),
            timeAt(0) - 60_000,
            now,
          ),
        ];
  const stubs = show === null || now === 0 || width === 0 ? [] : placeStubs(plannedOf(show, now), xOf, Math.max(nowPx, -200), now);
  /** A mark of something planned that was started: it can be started once more. */
  const again = show?.plan.items.find((i) => i.title === open?.label && show.done.some((d) => d.item === i.id)) ?? null;
  const rowOf = new Map(
    [...rounds.map((r) => r.game), ...games.filter((g) => frontOf(g.kind)?.roundSince === undefined)].slice(0, 2).map((g, i) => [g.id, i]),
  );
  return (
    <Box
      ref={host}
      position="relative"
      height={`${height}px`}
      flexShrink="0"
      borderBottomWidth="1px"
      borderColor="line"
      role="region"
      data-region=""
      aria-label="Tape of the show"
      data-testid="tape"
      css={{ touchAction: "pan-y", cursor: "grab" }}
      onPointerDown={onDown}
      onPointerMove={onMove}
      onPointerUp={() => (drag.current = null)}
      onPointerCancel={() => (drag.current = null)}
      onWheel={(e) =>
        Math.abs(e.deltaX) > Math.abs(e.deltaY) ? setPushed((p) => p + e.deltaX / perMs) : e.deltaY > 0 ? wider() : closer()
      }
    >
      <Box position="absolute" inset="0" overflow="hidden" pointerEvents="none">
        {ticks.map((t) => (
          <Box
            key={t.getTime()}
            position="absolute"
            top="0"
            bottom="0"
            left={`${xOf(t.getTime())}px`}
            borderLeftWidth="1px"
            borderLeftStyle="dashed"
            borderColor="line"
          >
            <Text fontFamily="mono" fontSize="14px" color="inkSoft" pl="1" lineHeight="1.6">
              {wallClock(t.getTime())}
            </Text>
          </Box>
        ))}
        {bars.map((bar) => {
          const row = rowOf.get(bar.game);
          if (row === undefined) return null;
          const from = Math.max(-4, xOf(bar.fromMs));
          return (
            <Box
              key={`${bar.game}${bar.fromMs}`}
              position="absolute"
              bottom={`${3 + row * 16}px`}
              height="14px"
              borderRadius="4px"
              overflow="hidden"
              borderLeftWidth="3px"
              borderColor={["mossText", "brickText", "slateText"][row]}
              bg={["mossText/30", "brickText/30", "slateText/30"][row]}
              left={`${from}px`}
              width={`${Math.max(2, xOf(bar.toMs) - from)}px`}
            >
              <Text fontSize="14px" lineHeight="13px" pl="6px" whiteSpace="nowrap">
                {games.find((g) => g.id === bar.game)?.name}
              </Text>
            </Box>
          );
        })}
      </Box>
      <Box position="absolute" inset="0" overflow="hidden" pointerEvents="none" css={{ "& > *": { pointerEvents: "auto" } }}>
        {placed.map((p) => (
          <MarkSpot key={p.mark.seq} placed={p} width={width} onOpen={setOpen} />
        ))}
        {stubs.map((stub) => (
          <PlanStub
            key={stub.item.id}
            stub={stub}
            skipped={show?.skipped.includes(stub.item.id) === true}
            running={running}
            perMs={perMs}
            sinceMs={show?.show?.sinceMs ?? now}
            now={now}
            onStart={() => void start(stub.item)}
            onMove={(atMin) => void move(stub.item, atMin)}
          />
        ))}
        {show !== null && stubs.length === 0 && (
          <Box position="absolute" left={`${Math.max(nowPx, 0) + 84}px`} top="44px" maxW="380px">
            <Text color="inkSoft" fontSize="15px">
              {show.plan.items.length === 0 ? "Nothing is planned. " : "Everything planned was started. "}
              <Link href="/prepare/show">{show.plan.items.length === 0 ? "Plan the show" : "Change the rundown"}</Link>
            </Text>
          </Box>
        )}
      </Box>
      {width > 0 && now > 0 && (
        <Box
          position="absolute"
          top="0"
          bottom="0"
          left={`${nowPx}px`}
          borderLeftWidth="2px"
          borderColor="ochre.solid"
          pointerEvents="none"
        >
          <Box
            bg="ochre.solid"
            color="#191C26"
            px="1.5"
            mt="0.5"
            borderRadius="0 5px 5px 0"
            fontFamily="mono"
            fontSize="14px"
            fontWeight="700"
            lineHeight="1.4"
          >
            {wallClock(now)}
          </Box>
        </Box>
      )}
      <Flex position="absolute" right="8px" top="3px" gap="0.5" bg="ground" borderRadius="6px" borderWidth="1px" borderColor="line">
        {Math.abs(pushed) > minute && (
          <Button size="xs" variant="ghost" height="24px" onClick={() => setPushed(0)}>
            To now
          </Button>
        )}
        <IconButton height="24px" label="See more of the tape" disabled={zoom === zooms.length - 1} onClick={wider}>
          <Minus size={15} />
        </IconButton>
        <IconButton height="24px" label="Look closer at the tape" disabled={zoom === 0} onClick={closer}>
          <Plus size={15} />
        </IconButton>
      </Flex>
      {open !== null && (
        <MarkCard
          mark={open}
          left={Math.max(8, Math.min(width - 320, xOf(open.atMs) - 20))}
          top={height - 8}
          sinceMs={show?.show?.sinceMs ?? null}
          game={games.find((g) => g.id === open.game) ?? null}
          onGame={onGame}
          onAgain={again !== null && running ? () => void start(again) : null}
          onClose={() => setOpen(null)}
        />
      )}
    </Box>
  );
});
