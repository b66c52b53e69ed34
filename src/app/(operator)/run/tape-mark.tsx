"use client";
import { Box, Button, chakra, Flex, Text } from "@chakra-ui/react";
import type { TimelineEvent, Tone } from "../../../core/show/timeline";
import { wallClock } from "../../_frame/show";
import { clockOf } from "../../../core/words/clock";
import type { Placed } from "./tape-layout";

const colours: Readonly<Record<Tone, string>> = {
  slate: "slateText",
  brick: "brickText",
  moss: "mossText",
  ochre: "ochreText",
  soft: "inkSoft",
};

/** One thing that happened, on the tape: with its words where there is room, else a tick. */
export function MarkSpot({
  placed: { mark, x, row, label, flip, more },
  width,
  onOpen,
}: Readonly<{ placed: Placed; width: number; onOpen: (mark: TimelineEvent) => void }>) {
  return label ? (
    <chakra.button
      type="button"
      position="absolute"
      {...(flip ? { right: `${width - x - 5}px`, flexDirection: "row-reverse" } : { left: `${x - 5}px` })}
      top={`${24 + row * 23}px`}
      display="flex"
      alignItems="center"
      gap="1.5"
      maxW="215px"
      cursor="pointer"
      onClick={() => onOpen(mark)}
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
      onClick={() => onOpen(mark)}
    >
      <Box width={more > 2 ? "5px" : "2.5px"} height="13px" borderRadius="2px" mx="auto" bg={colours[mark.tone]} />
    </chakra.button>
  );
}

type CardProps = Readonly<{
  mark: TimelineEvent;
  left: number;
  top: number;
  sinceMs: number | null;
  game: Readonly<{ id: string; name: string }> | null;
  onGame: (id: string) => void;
  /** Starts the planned thing once more, if it was one. */
  onAgain: (() => void) | null;
  onClose: () => void;
}>;
/** What happened, when, and what can be done about it. */
export function MarkCard({ mark, left, top, sinceMs, game, onGame, onAgain, onClose }: CardProps) {
  return (
    <Box
      position="absolute"
      top={`${top}px`}
      left={`${left}px`}
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
      onKeyDown={(e) => e.key === "Escape" && onClose()}
    >
      <Text fontWeight="700">{mark.label}</Text>
      <Text color="inkSoft" fontSize="15px" mb="2">
        at {wallClock(mark.atMs)}
        {sinceMs !== null && mark.atMs >= sinceMs ? `, ${clockOf(mark.atMs - sinceMs)} into the show` : ""}
      </Text>
      <Flex gap="2" wrap="wrap">
        {game !== null && (
          <Button
            size="xs"
            variant="outline"
            onClick={() => {
              onGame(game.id);
              onClose();
            }}
          >
            Focus {game.name}
          </Button>
        )}
        {onAgain !== null && (
          <Button
            size="xs"
            variant="outline"
            onClick={() => {
              onAgain();
              onClose();
            }}
          >
            Start it once more
          </Button>
        )}
        <Button
          size="xs"
          variant="outline"
          onClick={() => {
            document.dispatchEvent(new CustomEvent("izzam:talk", { detail: mark.seq }));
            onClose();
          }}
        >
          Find it in the talk
        </Button>
        <Button size="xs" variant="ghost" autoFocus onClick={() => onClose()}>
          Close
        </Button>
      </Flex>
    </Box>
  );
}
