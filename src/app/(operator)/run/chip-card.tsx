"use client";
import { Box, Button, Flex, Text } from "@chakra-ui/react";
import { type KeyboardEvent, useState } from "react";
import type { Chip } from "../../../core/chips";
import { noteInWords } from "../../../core/notes";
import { tell, tellTrouble } from "../../../ui/toaster";
import { sendCommand } from "../../_frame/show";
import { takeBack } from "./talk-rows";

/** One consequence: why it came to this, and what can be done about it. */
export function ChipCard({ chip, onClose }: Readonly<{ chip: Chip; onClose: () => void }>) {
  const ways = takeBack(chip);
  // The likeliest first; where that is refused, the next.
  const [tried, setTried] = useState(0);
  const way = ways[tried];
  const undo = async (): Promise<void> => {
    if (way === undefined) return;
    const notes = await sendCommand(chip.game, way.command);
    if (notes === null) return onClose();
    if (notes.every((n) => n.refusal === undefined)) {
      tell(way.did);
      return onClose();
    }
    const why = notes.find((n) => n.refusal !== undefined);
    if (tried + 1 < ways.length) return setTried(tried + 1);
    tellTrouble(why === undefined ? "It could not be taken back." : noteInWords(chip.kind, why));
    onClose();
  };
  return (
    <Box
      position="absolute"
      left="12px"
      right="12px"
      bottom="58px"
      zIndex="10"
      bg="raised"
      borderWidth="1px"
      borderColor="line"
      borderRadius="10px"
      p="3"
      boxShadow="lg"
      role="dialog"
      aria-label="What this came to"
      onKeyDown={(e: KeyboardEvent) => e.key === "Escape" && onClose()}
    >
      <Text fontSize="15px" mb="2">
        {chip.words === "" ? chip.short : `${chip.words[0]?.toUpperCase() ?? ""}${chip.words.slice(1)}.`}
        {tried > 0 ? " Something else came after it, so it can’t be undone; this sets it right." : ""}
      </Text>
      <Flex gap="2" wrap="wrap">
        {way !== undefined && (
          <Button
            key={tried}
            size="xs"
            {...(tried > 0 ? { colorPalette: "ochre" } : { variant: "outline" })}
            autoFocus
            onClick={() => void undo()}
          >
            {way.label}
          </Button>
        )}
        <Button size="xs" variant="ghost" autoFocus={way === undefined} onClick={onClose}>
          Close
        </Button>
      </Flex>
    </Box>
  );
}
