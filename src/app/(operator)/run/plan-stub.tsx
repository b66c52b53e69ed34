"use client";
import { Box, Button, Flex, Text } from "@chakra-ui/react";
import { Check, SkipForward } from "lucide-react";
import { type KeyboardEvent, useRef, useState } from "react";
import { type PlanItem } from "../../../core/show/plan";
import { tell } from "../../../ui/toaster";
import { sendCommand, wallClock } from "../../_frame/show";
import { clockOf } from "../../../core/words/clock";
import { type PlacedStub } from "./tape-layout";
import { minute } from "./tape-layout";

export async function move(item: PlanItem, atMin: number): Promise<void> {
  if (atMin === item.atMin) return;
  const to = (at: number): Promise<unknown> => sendCommand("show", { do: "plan-move", item: item.id, atMin: at });
  if ((await to(atMin)) !== null) tell(`${item.title} is planned for minute ${atMin}.`, () => void to(item.atMin));
}

/** One thing that is planned: dragged, started early, skipped. */
export function PlanStub({
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
    void sendCommand("show", { do: skipped ? "plan-back" : "plan-skip", item: item.id }).then((notes) => {
      if (notes !== null && !skipped) tell(`${item.title} is skipped.`, () => void sendCommand("show", { do: "plan-back", item: item.id }));
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
  // What is read aloud begins with what is seen, so that it can be asked for by it.
  const when =
    by !== 0 ? `minute ${target}` : `${running || now === 0 ? wallClock(dueMs) : clockOf(dueMs - sinceMs).slice(0, -3)} · ${how}`;
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
        aria-label={`${item.title} ${when}${skipped ? ", skipped" : ""}`}
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
          {when}
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
