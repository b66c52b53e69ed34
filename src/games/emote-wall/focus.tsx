"use client";
import { Box, Button, Text } from "@chakra-ui/react";
import { useMemo } from "react";
import { KeyCap } from "../../ui/key-cap";
import { type Act, keyLabel, keyOf, useChosenKeys, useOffer } from "../../ui/keys";
import type { FocusProps } from "../focus";

/** The wall in the booth: send a flock of what chat writes most, clear the picture. */
export function WallFocus({ view, hand }: FocusProps) {
  const chosen = useChosenKeys((s) => s.keys);
  const acts = useMemo(
    (): Act[] => [
      {
        id: "wall.flock",
        label: "Send a flock of what chat writes most",
        group: "The focused game",
        key: "h",
        run: () => void hand({ do: "flock", count: 60, overMs: 2_000, from: "most-used", chosen: [], motion: null }),
      },
      { id: "wall.clear", label: "Clear the emotes", group: "The focused game", key: "c", run: () => void hand({ do: "clear" }) },
    ],
    [hand],
  );
  useOffer("focus-own", acts);
  const cap = (i: number) => {
    const act = acts[i];
    const key = act === undefined ? null : keyOf(act, chosen);
    return key === null ? null : <KeyCap>{keyLabel(key)}</KeyCap>;
  };
  return (
    <Box>
      <Text color="inkSoft" fontSize="15px" my="1">
        Emote wall. {view["on"] === true ? "Emotes that chat writes fly over the picture." : "Emotes that chat writes are held back."}
      </Text>
      <Box display="grid" gridTemplateColumns="1fr 1fr" gap="2">
        <Button size="sm" variant="outline" justifyContent="space-between" px="2.5" onClick={() => acts[0]?.run()}>
          Flock {cap(0)}
        </Button>
        <Button size="sm" variant="outline" justifyContent="space-between" px="2.5" onClick={() => acts[1]?.run()}>
          Clear {cap(1)}
        </Button>
      </Box>
    </Box>
  );
}
