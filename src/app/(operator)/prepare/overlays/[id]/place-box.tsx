"use client";
import { chakra } from "@chakra-ui/react";
import type { KeyboardEvent } from "react";
import { Rnd } from "react-rnd";
import type { Place } from "../../../../../core/wire/messages";
import { type Guide, snap } from "./snap";

/** One game on the board: dragged, resized, moved by keys. */
export function PlaceBox({
  name,
  game,
  place,
  order,
  board,
  chosen,
  others,
  onChoose,
  onGuides,
  onSet,
}: Readonly<{
  name: string;
  game: string;
  place: Place;
  order: number;
  /** The board's size in pixels. */
  board: Readonly<{ width: number; height: number }>;
  chosen: boolean;
  others: readonly Place[];
  onChoose: () => void;
  onGuides: (guides: readonly Guide[]) => void;
  onSet: (part: Partial<Place>) => void;
}>) {
  const nudge = (event: KeyboardEvent): void => {
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
    onSet(part);
  };
  return (
    <Rnd
      size={{ width: place.width * board.width, height: place.height * board.height }}
      position={{ x: place.x * board.width, y: place.y * board.height }}
      bounds="parent"
      disableDragging={place.locked}
      enableResizing={!place.locked && chosen}
      style={{ zIndex: 10 + order + (chosen ? 100 : 0) }}
      onDragStart={onChoose}
      onDrag={(_, d) => {
        onGuides(snap({ ...place, x: d.x / board.width, y: d.y / board.height }, others).guides);
      }}
      onDragStop={(_, d) => {
        onGuides([]);
        const next = snap({ ...place, x: d.x / board.width, y: d.y / board.height }, others).place;
        if (Math.abs(next.x - place.x) + Math.abs(next.y - place.y) > 0.0005) onSet({ x: next.x, y: next.y });
      }}
      onResizeStop={(_, __, el, ___, at) =>
        onSet({
          x: at.x / board.width,
          y: at.y / board.height,
          width: el.offsetWidth / board.width,
          height: el.offsetHeight / board.height,
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
        borderStyle={chosen ? "solid" : "dashed"}
        borderColor={chosen ? "#E0A025" : "#E0A02599"}
        borderRadius="6px"
        opacity={place.hidden ? 0.5 : 1}
        aria-label={`${name}, at ${Math.round(place.x * 100)} % from left, ${Math.round(place.y * 100)} % from top, ${Math.round(place.width * 100)} by ${Math.round(place.height * 100)} %. Arrow keys move it, with Alt they resize it`}
        aria-pressed={chosen}
        onFocus={onChoose}
        onKeyDown={nudge}
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
          {name}
          {place.hidden ? " · hidden" : ""}
          {place.locked ? " · locked" : ""}
        </chakra.span>
      </chakra.button>
    </Rnd>
  );
}
