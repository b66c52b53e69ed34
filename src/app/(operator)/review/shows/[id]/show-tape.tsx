"use client";
import { Box, Button, chakra, Flex, Text } from "@chakra-ui/react";
import { scaleLinear, scaleTime } from "d3-scale";
import { area, curveMonotoneX } from "d3-shape";
import { Minus, Plus } from "lucide-react";
import { type PointerEvent, useEffect, useMemo, useRef, useState } from "react";
import type { TimelineEvent, Tone } from "../../../../../core/show/timeline";
import { call } from "../../../../_frame/call";
import { IconButton } from "../../../../../ui/icon-button";
import { Pick } from "../../../../../ui/pick";
import { wallClock } from "../../../../_frame/show";
import { MarkCard, MarkSpot } from "../../../run/tape-mark";
import { placeMarks } from "../../../run/tape-layout";

export type Span = Readonly<{ fromMs: number; toMs: number }>;
const height = 150;
/** So close one may look; at a very short show closer. */
const leastOf = (whole: Span): number => Math.min(20_000, (whole.toMs - whole.fromMs) / 4);
const kinds: Readonly<Record<string, Readonly<{ words: string; tones: readonly Tone[] }>>> = {
  all: { words: "everything", tones: ["slate", "brick", "moss", "ochre", "soft"] },
  given: { words: "what was given", tones: ["ochre", "slate"] },
  games: { words: "games and the show", tones: ["brick", "moss", "soft"] },
};
const Mark = chakra("g");

/** What a tape is drawn from; a show from outside has it too. */
export type TapeOf = Readonly<{
  marks: readonly TimelineEvent[];
  /** There are more marks than came. */
  cut: boolean;
  series: Readonly<{ fromMs: number; binMs: number; chat: readonly number[] }>;
  show: Readonly<{ fromMs: number }>;
}>;
type TapeMoment = Readonly<{ id: string; atMs: number; toMs: number; state: "found" | "kept" | "dropped" }>;

/** The tape of a show that is over, over how much was written: zoomed by buttons, scrolling and keys, pushed by hand. */
export function ShowTape({
  view,
  moments,
  whole,
  span,
  onSpan,
}: Readonly<{ view: TapeOf; moments: readonly TapeMoment[]; whole: Span; span: Span; onSpan: (span: Span) => void }>) {
  const { marks, series, show } = view;
  const host = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  const [kind, setKind] = useState("all");
  const [open, setOpen] = useState<TimelineEvent | null>(null);
  useEffect(() => {
    if (host.current === null) return;
    const watch = new ResizeObserver(([entry]) => entry && setWidth(entry.contentRect.width));
    watch.observe(host.current);
    return () => watch.disconnect();
  }, []);
  // Of a very long show not all marks came with it: those of what is looked at are asked for.
  const [closer, setCloser] = useState<readonly TimelineEvent[] | null>(null);
  const looksCloser = view.cut && span.toMs - span.fromMs < (whole.toMs - whole.fromMs) / 2;
  useEffect(() => {
    if (!looksCloser) return setCloser(null);
    let gone = false;
    const timer = setTimeout(() => {
      void call<{ marks: readonly TimelineEvent[] }>("GET", `/show/tape?from=${Math.round(span.fromMs)}&to=${Math.round(span.toMs)}`).then(
        (said) => !gone && said.ok && setCloser(said.value.marks),
      );
    }, 250);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [looksCloser, span]);
  const x = useMemo(() => scaleTime([span.fromMs, span.toMs], [0, Math.max(1, width)]), [span, width]);
  const xOf = (ms: number): number => x(ms);
  const within = ({ fromMs, toMs }: Span): Span => {
    const ms = Math.min(whole.toMs - whole.fromMs, Math.max(leastOf(whole), toMs - fromMs));
    const from = Math.max(whole.fromMs, Math.min(whole.toMs - ms, fromMs));
    return { fromMs: from, toMs: from + ms };
  };
  const zoom = (by: number, aroundMs = (span.fromMs + span.toMs) / 2): void => {
    const ms = Math.max(leastOf(whole), (span.toMs - span.fromMs) * by);
    const share = (aroundMs - span.fromMs) / (span.toMs - span.fromMs);
    onSpan(within({ fromMs: aroundMs - share * ms, toMs: aroundMs + (1 - share) * ms }));
  };
  const push = (byMs: number): void => onSpan(within({ fromMs: span.fromMs + byMs, toMs: span.toMs + byMs }));
  const drag = useRef<{ x: number; span: Span } | null>(null);
  const onMove = (event: PointerEvent<HTMLDivElement>): void => {
    if (drag.current === null || width === 0) return;
    const by = ((drag.current.x - event.clientX) / width) * (drag.current.span.toMs - drag.current.span.fromMs);
    onSpan(within({ fromMs: drag.current.span.fromMs + by, toMs: drag.current.span.toMs + by }));
  };
  const wanted = kinds[kind]?.tones ?? [];
  const placed =
    width === 0
      ? []
      : placeMarks(
          (closer ?? marks).filter((m) => wanted.includes(m.tone)),
          xOf,
          0,
          width,
          2,
        );
  const most = Math.max(1, ...series.chat);
  const y = scaleLinear([0, most], [height, 82]);
  const shape = area<number>()
    .x((_, i) => x(series.fromMs + (i + 0.5) * series.binMs))
    .y0(height)
    .y1((v) => y(v))
    .curve(curveMonotoneX);
  /** So close that minutes do not tell its lines apart. */
  const fine = span.toMs - span.fromMs < 9 * 60_000;
  const zoomed = span.toMs - span.fromMs < whole.toMs - whole.fromMs;
  return (
    <Box>
      <Flex gap="2" align="center" mb="1.5" wrap="wrap">
        <Text fontSize="15px" color="inkSoft">
          On the tape
        </Text>
        <Pick
          label="What stands on the tape"
          value={kind}
          options={Object.entries(kinds).map(([value, k]) => ({ value, words: k.words }))}
          onSet={setKind}
        />
        <Text fontSize="15px" color="inkSoft" fontFamily="mono" data-testid="span">
          {wallClock(span.fromMs)}–{wallClock(span.toMs)}
        </Text>
        <Box flex="1" />
        {zoomed && (
          <Button size="xs" variant="outline" onClick={() => onSpan(whole)}>
            The whole show
          </Button>
        )}
        <IconButton label="See more of the tape" disabled={!zoomed} onClick={() => zoom(2)}>
          <Minus size={15} aria-hidden="true" />
        </IconButton>
        <IconButton label="Look closer at the tape" onClick={() => zoom(0.5)}>
          <Plus size={15} aria-hidden="true" />
        </IconButton>
      </Flex>
      <Box
        ref={host}
        position="relative"
        height={`${height}px`}
        borderWidth="1px"
        borderColor="line"
        borderRadius="10px"
        overflow="hidden"
        role="group"
        aria-label="Tape of the show"
        aria-describedby="tape-keys"
        tabIndex={0}
        data-testid="show-tape"
        css={{ touchAction: "pan-y", cursor: "grab" }}
        onKeyDown={(e) => {
          if (e.target !== e.currentTarget) return;
          const by = (span.toMs - span.fromMs) / 4;
          const does: Readonly<Record<string, () => void>> = {
            ArrowLeft: () => push(-by),
            ArrowRight: () => push(by),
            "+": () => zoom(0.5),
            "-": () => zoom(2),
            "0": () => onSpan(whole),
          };
          if (!Object.hasOwn(does, e.key)) return;
          e.preventDefault();
          does[e.key]?.();
        }}
        onPointerDown={(e) => {
          if ((e.target as HTMLElement).closest("button") !== null) return;
          drag.current = { x: e.clientX, span };
          e.currentTarget.setPointerCapture(e.pointerId);
        }}
        onPointerMove={onMove}
        onPointerUp={() => (drag.current = null)}
        onPointerCancel={() => (drag.current = null)}
        onWheel={(e) => {
          if (width === 0) return;
          if (Math.abs(e.deltaX) > Math.abs(e.deltaY)) push((e.deltaX / width) * (span.toMs - span.fromMs));
          else
            zoom(
              e.deltaY > 0 ? 1.25 : 0.8,
              span.fromMs + ((e.clientX - (host.current?.getBoundingClientRect().left ?? 0)) / width) * (span.toMs - span.fromMs),
            );
        }}
      >
        <Box position="absolute" inset="0" pointerEvents="none">
          <svg
            width={width}
            height={height}
            role="img"
            aria-label={`How much was written: at most ${most} in ${series.binMs / 1_000} seconds`}
          >
            {moments
              .filter((m) => m.state !== "dropped")
              .map((m) => (
                <Mark key={m.id} fill="ochreText" opacity={m.state === "kept" ? 0.34 : 0.16}>
                  <rect x={xOf(m.atMs)} y={20} width={Math.max(2, xOf(m.toMs) - xOf(m.atMs))} height={height - 20} />
                </Mark>
              ))}
            <Mark fill="slateText" opacity={0.4}>
              <path d={shape([...series.chat]) ?? ""} />
            </Mark>
          </svg>
          {width > 0 &&
            x.ticks(Math.max(2, Math.min(9, Math.floor(width / 110)))).map((t) => (
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
                  {fine ? t.toLocaleTimeString("en-GB") : wallClock(t.getTime())}
                </Text>
              </Box>
            ))}
        </Box>
        <Box position="absolute" inset="0" overflow="hidden" pointerEvents="none" css={{ "& > *": { pointerEvents: "auto" } }}>
          {placed.map((p) => (
            <MarkSpot key={p.mark.seq} placed={p} width={width} onOpen={setOpen} />
          ))}
        </Box>
      </Box>
      <Text id="tape-keys" fontSize="14px" color="inkSoft" mt="0.5">
        Ochre: moments. Grey-blue: how much was written. Drag it or use ← →, + and − and 0.
        {view.cut && " More happened than fits: its oldest things show when you look closer."}
      </Text>
      {open !== null && (
        <Box position="relative">
          <MarkCard
            mark={open}
            left={Math.max(8, Math.min(width - 320, xOf(open.atMs) - 20))}
            top={-24}
            sinceMs={show.fromMs}
            game={null}
            onGame={() => undefined}
            onAgain={null}
            onClose={() => setOpen(null)}
          />
        </Box>
      )}
    </Box>
  );
}
