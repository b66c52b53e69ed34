"use client";
import { counted } from "../../../core/words/sentence";
import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import { Eye, EyeOff } from "lucide-react";
import Link from "next/link";
import { memo, useEffect, useState } from "react";
import type { StandingOverlay } from "../../../core/wire/messages";
import { backdropOf } from "../../../ui/backdrops";
import { Pick } from "../../../ui/pick";
import { useLive } from "../../_frame/live";
import { useRehearsalHere } from "../../_frame/rehearsal-here";

type Game = Readonly<{ id: string; kind: string; name: string; view: Record<string, unknown> }>;
type Props = Readonly<{
  overlay: StandingOverlay | null;
  overlays: readonly StandingOverlay[];
  onOverlay: (id: string) => void;
  games: readonly Game[];
  focused: string | null;
  onGame: (id: string) => void;
}>;

/** The overlay as viewers see it, with hands on it: point at a game to focus it. */
export const Picture = memo(function Picture({ overlay, overlays, onOverlay, games, focused, onGame }: Props) {
  const standing = useLive((s) => s.standing);
  const rehearsal = useRehearsalHere((r) => r.id);
  const [host, setHost] = useState<HTMLDivElement | null>(null);
  const [room, setRoom] = useState({ width: 0, height: 0 });
  useEffect(() => {
    if (host === null) return;
    const watch = new ResizeObserver(([entry]) => entry && setRoom({ width: entry.contentRect.width, height: entry.contentRect.height }));
    watch.observe(host);
    return () => watch.disconnect();
  }, [host]);
  if (standing === null) return <Box flex="1" bg="raised" borderRadius="10px" />;
  if (overlay === null)
    return (
      <Flex flex="1" bg="raised" borderRadius="10px" direction="column" align="center" justify="center" gap="2" p="6">
        <Text fontFamily="heading" fontWeight="700" fontSize="18px">
          There is no overlay with a picture yet
        </Text>
        <Text color="inkSoft" textAlign="center">
          An overlay is the transparent page that your broadcast software shows. Make one, and it stands here live.
        </Text>
        <Link href="/prepare/overlays">Make an overlay</Link>
      </Flex>
    );
  const pages = standing.pages.filter((p) => p.overlay === overlay.id);
  const shape = overlay.width / overlay.height;
  const width = Math.floor(Math.min(room.width, room.height * shape));
  const height = Math.floor(width / shape);
  const nameOf = (id: string): string => games.find((g) => g.id === id)?.name ?? "a game";
  return (
    <Flex direction="column" flex="1" minH="0" gap="2">
      <Flex align="center" gap="3" fontSize="14.5px" minH="26px">
        {overlays.length > 1 ? (
          <Pick
            label="Which overlay"
            value={overlay.id}
            options={overlays.map((o) => ({ value: o.id, words: o.name }))}
            onSet={onOverlay}
          />
        ) : (
          <Text fontWeight="700">{overlay.name}</Text>
        )}
        {rehearsal !== "" && pages.length === 0 ? (
          <Text color="inkSoft" role="status" data-testid="pages">
            Seen here alone: no overlay page takes part.
          </Text>
        ) : pages.length === 0 ? (
          <Flex align="center" gap="1.5" color="brickText" fontWeight="600" role="status" data-testid="pages">
            <EyeOff size={16} aria-hidden="true" /> No page of it is open: viewers see nothing.{" "}
            <Link href="/prepare/overlays" style={{ whiteSpace: "nowrap" }}>
              Copy its link
            </Link>
          </Flex>
        ) : (
          <Flex align="center" gap="1.5" color="mossText" role="status" data-testid="pages">
            <Eye size={16} aria-hidden="true" /> {counted(pages.length, "page")} open
            {pages.every((p) => p.hidden) ? ", hidden" : ""}
          </Flex>
        )}
      </Flex>
      <Box ref={setHost} flex="1" minH="0" position="relative">
        <Box
          position="absolute"
          left="0"
          top="0"
          width={`${width}px`}
          height={`${height}px`}
          borderRadius="10px"
          overflow="hidden"
          // Which game stands before which is the picture's own affair: nothing of it stands before what opens over it.
          isolation="isolate"
          style={{ background: backdropOf(overlay.backdrop) }}
          data-testid="picture"
        >
          <iframe
            key={`${overlay.id} ${rehearsal}`}
            src={`/overlay#peek:${overlay.id}${rehearsal === "" ? "" : `@${rehearsal}`}`}
            title={`What ${overlay.name} shows now`}
            tabIndex={-1}
            style={{
              position: "absolute",
              inset: 0,
              width: "100%",
              height: "100%",
              border: 0,
              pointerEvents: "none",
              colorScheme: "light",
            }}
          />
          {overlay.places.map(({ game, place }) => {
            const mine = game === focused;
            return (
              <chakra.button
                key={game}
                type="button"
                position="absolute"
                cursor="pointer"
                borderRadius="8px"
                borderWidth="2px"
                borderStyle={place.hidden ? "dashed" : "solid"}
                borderColor={mine ? "#E0A025" : place.hidden ? "#F1ECE288" : "transparent"}
                _hover={{ borderColor: mine ? "#E0A025" : "#F1ECE2aa" }}
                _focusVisible={{ outline: "3px solid #86A9D6", outlineOffset: "-3px" }}
                aria-pressed={mine}
                aria-label={`Focus ${nameOf(game)}${place.hidden ? ", hidden" : ""}`}
                onClick={() => onGame(game)}
                style={{
                  left: `${place.x * 100}%`,
                  top: `${place.y * 100}%`,
                  width: `${place.width * 100}%`,
                  height: `${place.height * 100}%`,
                  // What is small stands before what is large, and can be pointed at wherever it lies.
                  zIndex: 1 + Math.round((1 - place.width * place.height) * 100),
                }}
              >
                {(mine || place.hidden) && (
                  <chakra.span
                    position="absolute"
                    left="-2px"
                    {...(place.y > 0.08 ? { bottom: "calc(100% + 2px)" } : { top: "4px", left: "4px" })}
                    px="2"
                    borderRadius="5px"
                    fontSize="14px"
                    fontWeight="700"
                    whiteSpace="nowrap"
                    bg={mine ? "#E0A025" : "#10131Bcc"}
                    color={mine ? "#191C26" : "#F1ECE2"}
                  >
                    {nameOf(game)}
                    {place.hidden ? " · hidden" : ""}
                  </chakra.span>
                )}
              </chakra.button>
            );
          })}
        </Box>
      </Box>
    </Flex>
  );
});
