"use client";
import { Box, Button, chakra, Flex, Text } from "@chakra-ui/react";
import { scaleTime } from "d3-scale";
import { Check, Minus, Plus, SkipForward } from "lucide-react";
import Link from "next/link";
import { type KeyboardEvent, type PointerEvent, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { barsOf, type Mark, type Tone } from "../../../core/show/marks";
import { inOrder, type PlanItem } from "../../../core/show/plan";
import { type Act, useOffer } from "../../../ui/keys";
import { tell } from "../../../ui/toaster";
import { clockOf, lay, layAndTell, theShow, type ShowView, useNow, useShow, wallClock } from "../../_frame/show";
import { type PlacedStub, placeMarks, placeStubs } from "./tape-layout";
import { useTapeMarks } from "./use-tape";

type Game = Readonly<{ id: string; name: string; view: Record<string, unknown> }>;
const height = 128;
const minute = 60_000;
const zooms = [15, 30, 60, 90, 150, 240];
const colours: Readonly<Record<Tone, string>> = {
  slate: "slateText",
  brick: "brickText",
  moss: "mossText",
  ochre: "ochreText",
  soft: "inkSoft",
};

/** When each thing still planned is due: after the show's beginning, or as if it began now. */
function plannedOf(show: ShowView, nowMs: number): readonly Readonly<{ item: PlanItem; dueMs: number }>[] {
  const since = show.show?.sinceMs ?? nowMs;
  const doneAt = new Map(show.done.map((d) => [d.item, d.atMs]));
  const due = new Map<string, number>();
  const items = inOrder(show.plan.items);
  for (let round = 0; round < 3; round += 1)
    for (const item of items) {
      const { starts } = item;
      due.set(
        item.id,
        starts.how === "after"
          ? (doneAt.get(starts.item) ?? due.get(starts.item) ?? since + item.atMin * minute) + starts.delayMin * minute
          : since + item.atMin * minute,
      );
    }
  return items.filter((item) => !doneAt.has(item.id)).map((item) => ({ item, dueMs: due.get(item.id) ?? since }));
}

/** The show as a tape: what happened, now, and what is planned. */
export function Tape({ games, onGame }: Readonly<{ games: readonly Game[]; onGame: (id: string) => void }>) {
  const show = useShow();
  const now = useNow(1_000);
  const marks = useTapeMarks(show?.show?.sinceMs ?? null);
  const host = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  const [zoom, setZoom] = useState(3);
  /** How far the tape was pushed away from now, in milliseconds; 0 follows now. */
  const [pushed, setPushed] = useState(0);
  const [open, setOpen] = useState<Mark | null>(null);
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
      await layAndTell(theShow, { do: "plan-fire", item: item.id, times });
    },
    [show],
  );
  const acts = useMemo(
    (): Act[] => [
      { id: "tape.now", label: "Bring the tape to now", group: "The tape", key: "t", run: () => setPushed(0) },
      { id: "tape.closer", label: "Look closer at the tape", group: "The tape", key: "+", run: closer },
      { id: "tape.wider", label: "See more of the tape", group: "The tape", key: "-", run: wider },
      ...(next !== null && running
        ? [{ id: "tape.next", label: `Start what comes next: ${next.title}`, group: "The tape", key: "f", run: () => void start(next) }]
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
  const bars =
    width === 0
      ? []
      : barsOf(
          marks,
          games.map((g) => ({ id: g.id, on: g.view["on"] === true })),
          timeAt(0) - 60_000,
          now,
        );
  const stubs = show === null || now === 0 || width === 0 ? [] : placeStubs(plannedOf(show, now), xOf, Math.max(nowPx, -200), now);
  /** A mark of something planned that was started: it can be started once more. */
  const again = show?.plan.items.find((i) => i.title === open?.label && show.done.some((d) => d.item === i.id)) ?? null;
  const rowOf = new Map(games.slice(0, 2).map((g, i) => [g.id, i]));
  return (
    <Box
      ref={host}
      position="relative"
      height={`${height}px`}
      flexShrink="0"
      borderBottomWidth="1px"
      borderColor="line"
      role="region"
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
        {placed.map(({ mark, x, row, label, flip, more }) =>
          label ? (
            <chakra.button
              key={mark.seq}
              type="button"
              position="absolute"
              {...(flip ? { right: `${width - x - 5}px`, flexDirection: "row-reverse" } : { left: `${x - 5}px` })}
              top={`${24 + row * 23}px`}
              display="flex"
              alignItems="center"
              gap="1.5"
              maxW="215px"
              cursor="pointer"
              onClick={() => setOpen(mark)}
              data-mark={mark.seq}
            >
              <Box boxSize="10px" borderRadius="full" bg={colours[mark.tone]} flexShrink="0" />
              <Text fontSize="14.5px" truncate>
                {mark.label}
                {more > 0 && (
                  <Text as="span" color="inkSoft">
                    {" "}
                    +{more}
                  </Text>
                )}
              </Text>
            </chakra.button>
          ) : (
            <chakra.button
              key={mark.seq}
              type="button"
              position="absolute"
              left={`${x - 6}px`}
              top="72px"
              width="12px"
              height="16px"
              cursor="pointer"
              tabIndex={-1}
              aria-label={mark.label}
              title={more > 0 ? `${mark.label}, and ${more} more` : mark.label}
              onClick={() => setOpen(mark)}
            >
              <Box width={more > 2 ? "5px" : "2.5px"} height="13px" borderRadius="2px" mx="auto" bg={colours[mark.tone]} />
            </chakra.button>
          ),
        )}
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
        <Button
          size="xs"
          variant="ghost"
          height="24px"
          px="1"
          aria-label="See more of the tape"
          disabled={zoom === zooms.length - 1}
          onClick={wider}
        >
          <Minus size={15} />
        </Button>
        <Button size="xs" variant="ghost" height="24px" px="1" aria-label="Look closer at the tape" disabled={zoom === 0} onClick={closer}>
          <Plus size={15} />
        </Button>
      </Flex>
      {open !== null && (
        <Box
          position="absolute"
          top={`${height - 8}px`}
          left={`${Math.max(8, Math.min(width - 320, xOf(open.atMs) - 20))}px`}
          width="310px"
          zIndex="15"
          bg="raised"
          borderWidth="1px"
          borderColor="line"
          borderRadius="10px"
          p="3"
          boxShadow="lg"
          role="dialog"
          aria-label="What happened"
          onKeyDown={(e) => e.key === "Escape" && setOpen(null)}
        >
          <Text fontWeight="700">{open.label}</Text>
          <Text color="inkSoft" fontSize="15px" mb="2">
            at {wallClock(open.atMs)}
            {show?.show !== null && show?.show !== undefined && open.atMs >= show.show.sinceMs
              ? `, ${clockOf(open.atMs - show.show.sinceMs)} into the show`
              : ""}
          </Text>
          <Flex gap="2" wrap="wrap">
            {games.some((g) => g.id === open.game) && (
              <Button
                size="xs"
                variant="outline"
                onClick={() => {
                  onGame(open.game);
                  setOpen(null);
                }}
              >
                Focus {games.find((g) => g.id === open.game)?.name}
              </Button>
            )}
            {again !== null && running && (
              <Button
                size="xs"
                variant="outline"
                onClick={() => {
                  void start(again);
                  setOpen(null);
                }}
              >
                Start it once more
              </Button>
            )}
            <Button
              size="xs"
              variant="outline"
              onClick={() => {
                document.dispatchEvent(new CustomEvent("izzam:talk", { detail: open.seq }));
                setOpen(null);
              }}
            >
              Find it in the talk
            </Button>
            <Button size="xs" variant="ghost" autoFocus onClick={() => setOpen(null)}>
              Close
            </Button>
          </Flex>
        </Box>
      )}
    </Box>
  );
}

async function move(item: PlanItem, atMin: number): Promise<void> {
  if (atMin === item.atMin) return;
  const to = (at: number): Promise<unknown> => lay("show", { do: "plan-move", item: item.id, atMin: at });
  if ((await to(atMin)) !== null) tell(`${item.title} is planned for minute ${atMin}.`, () => void to(item.atMin));
}

/** One thing that is planned: dragged, started early, skipped. */
function PlanStub({
  stub: { item, x, width, dueMs, late },
  skipped,
  running,
  perMs,
  sinceMs,
  now,
  onStart,
  onMove,
}: Readonly<{
  stub: PlacedStub;
  skipped: boolean;
  running: boolean;
  perMs: number;
  sinceMs: number;
  now: number;
  onStart: () => void;
  onMove: (atMin: number) => void;
}>) {
  const [by, setBy] = useState(0);
  const from = useRef<number | null>(null);
  const fixed = item.starts.how === "after";
  const minuteOf = (ms: number): number => Math.max(0, Math.min(1_440, Math.round((ms - sinceMs) / minute)));
  const target = minuteOf(dueMs + by / perMs);
  const skip = (): void => {
    void lay("show", { do: skipped ? "plan-back" : "plan-skip", item: item.id }).then((notes) => {
      if (notes !== null && !skipped) tell(`${item.title} is skipped.`, () => void lay("show", { do: "plan-back", item: item.id }));
    });
  };
  const onKey = (event: KeyboardEvent): void => {
    if (!event.shiftKey || fixed || (event.key !== "ArrowLeft" && event.key !== "ArrowRight")) return;
    event.preventDefault();
    onMove(Math.max(0, item.atMin + (event.key === "ArrowLeft" ? -1 : 1)));
  };
  const how =
    item.starts.how === "time"
      ? "by itself"
      : fixed
        ? "by itself, after another"
        : late && running
          ? "due"
          : item.lengthMin > 0
            ? `${item.lengthMin} min`
            : "by hand";
  return (
    <Flex
      position="absolute"
      data-stub={item.id}
      data-minute={item.atMin}
      top="30px"
      height="58px"
      left={`${x + by}px`}
      width={`${width}px`}
      bg="raised"
      borderWidth="1px"
      borderColor={late && running && !skipped ? "ochre.solid" : "line"}
      borderRadius="10px"
      opacity={skipped ? 0.55 : 1}
      zIndex={by === 0 ? 3 : 5}
      role="group"
      aria-label={`Planned: ${item.title}`}
    >
      <Box
        flex="1"
        minW="0"
        px="2.5"
        py="1"
        tabIndex={0}
        css={{ cursor: fixed ? "default" : "ew-resize", touchAction: "none" }}
        title={item.note || (fixed ? undefined : "Drag it, or press Shift and an arrow, to plan it for another minute")}
        aria-label={`${item.title}, ${wallClock(dueMs)}, ${how}${skipped ? ", skipped" : ""}`}
        role="button"
        aria-roledescription="planned thing"
        onKeyDown={onKey}
        onPointerDown={(e) => {
          if (fixed) return;
          from.current = e.clientX;
          e.currentTarget.setPointerCapture(e.pointerId);
        }}
        onPointerMove={(e) => void (from.current !== null && setBy(e.clientX - from.current))}
        onPointerUp={() => {
          if (from.current !== null && Math.abs(by) > 4) onMove(target);
          from.current = null;
          setBy(0);
        }}
        onPointerCancel={() => {
          from.current = null;
          setBy(0);
        }}
      >
        <Text fontWeight="700" fontSize="15px" truncate textDecoration={skipped ? "line-through" : undefined}>
          {item.title}
        </Text>
        <Text fontSize="14px" color={late && running ? "ochreText" : "inkSoft"} truncate>
          {by !== 0 ? `minute ${target}` : `${running || now === 0 ? wallClock(dueMs) : clockOf(dueMs - sinceMs).slice(0, -3)} · ${how}`}
        </Text>
      </Box>
      <Flex direction="column" borderLeftWidth="2px" borderLeftStyle="dashed" borderColor="line" justify="center" px="1">
        <Button
          size="xs"
          variant="ghost"
          color="ochreText"
          fontWeight="700"
          height="26px"
          px="1.5"
          disabled={!running}
          onClick={onStart}
          title={running ? undefined : "Go on air or rehearse first"}
        >
          {item.does.do === "note" ? <Check size={16} aria-label="Done" /> : "Start"}
        </Button>
        <Button
          size="xs"
          variant="ghost"
          height="24px"
          px="1.5"
          disabled={!running}
          color="inkSoft"
          aria-label={skipped ? `Plan ${item.title} again` : `Skip ${item.title}`}
          onClick={skip}
        >
          {skipped ? "Back" : <SkipForward size={15} />}
        </Button>
      </Flex>
    </Flex>
  );
}
