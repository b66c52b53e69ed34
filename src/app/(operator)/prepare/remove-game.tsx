"use client";
import { Modal } from "../../../ui/modal";
import { Box, Button, Flex, Text } from "@chakra-ui/react";
import Link from "next/link";
import { useState } from "react";
import type { Use } from "../../../server/web/uses";
import { Pick } from "../../../ui/pick";
import type { GalleryGame } from "./game-card";

/** What is in use says where, before it is taken away. */
export function RemoveGame({
  of,
  games,
  onClose,
  onRemove,
}: Readonly<{
  of: Readonly<{ game: GalleryGame; uses: readonly Use[] }> | null;
  games: readonly GalleryGame[];
  onClose: () => void;
  onRemove: (game: GalleryGame, instead: string) => void;
}>) {
  const [instead, setInstead] = useState("");
  const alike = games.filter((g) => g.kind === of?.game.kind && g.id !== of.game.id);
  const other = alike.find((g) => g.id === instead);
  return (
    <Modal title={`${of?.game.name ?? ""} is in use`} open={of !== null} urgent onClose={onClose}>
      <Text mb="2">
        {other === undefined
          ? "These do something with it. They stay, and do nothing of it until it is brought back; rewards that need it are not on sale meanwhile."
          : `These do something with it. From now on they do it with ${other.name}.`}
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
      {alike.length > 0 && (
        <Box mb="4">
          Put in its place{" "}
          <Pick
            label="What stands in its place"
            value={other?.id ?? ""}
            options={[{ value: "", words: "nothing" }, ...alike.map((g) => ({ value: g.id, words: g.name }))]}
            onSet={setInstead}
          />
        </Box>
      )}
      <Flex gap="2">
        <Button size="sm" colorPalette="brick" onClick={() => of !== null && onRemove(of.game, other?.id ?? "")}>
          {other === undefined ? "Remove it" : "Replace it"}
        </Button>
        <Button size="sm" variant="outline" onClick={onClose}>
          Keep it
        </Button>
      </Flex>
    </Modal>
  );
}
