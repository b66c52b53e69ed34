"use client";
import { Modal } from "../../../ui/modal";
import { Box, Button, Flex, Text } from "@chakra-ui/react";
import Link from "next/link";
import type { Use } from "../../../server/web/uses";
import type { GalleryGame } from "./game-card";

/** What is in use says where, before it is taken away. */
export function RemoveGame({
  of,
  onClose,
  onRemove,
}: Readonly<{
  of: Readonly<{ game: GalleryGame; uses: readonly Use[] }> | null;
  onClose: () => void;
  onRemove: (game: GalleryGame) => void;
}>) {
  return (
    <Modal title={`${of?.game.name ?? ""} is in use`} open={of !== null} urgent onClose={onClose}>
      <Text mb="2">
        These do something with it. They stay, and do nothing of it until it is brought back; rewards that need it are not on sale
        meanwhile.
      </Text>
      <Box as="ul" pl="5" mb="4" maxH="240px" overflowY="auto" listStyleType="disc">
        {of?.uses.map((u) => (
          <li key={u.words}>
            <Link href={u.path} style={{ textDecoration: "underline" }}>
              {u.words}
            </Link>
          </li>
        ))}
      </Box>
      <Flex gap="2">
        <Button size="sm" colorPalette="brick" onClick={() => of !== null && onRemove(of.game)}>
          Remove it
        </Button>
        <Button size="sm" variant="outline" onClick={onClose}>
          Keep it
        </Button>
      </Flex>
    </Modal>
  );
}
