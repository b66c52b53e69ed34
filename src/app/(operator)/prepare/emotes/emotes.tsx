"use client";
import { DropArea, useDrop } from "../../../../ui/drop-area";
import { Box, Button, chakra, Flex, Grid, Input, Stack, Text } from "@chakra-ui/react";
import { Trash2 } from "lucide-react";
import { useEffect, useState } from "react";
import type { EmoteRow } from "../../../../server/ports/operator-store";
import { SpriteView } from "../../../../ui/sprite-view";
import { StarterButton } from "../starter-button";
import { type Upload, useEmotes } from "./use-emotes";

export function Emotes({ first }: { first: readonly EmoteRow[] }) {
  const { emotes, uploads, load, add, again, forget, rename, remove } = useEmotes(first);
  const drop = useDrop(add);
  return (
    <Box {...drop.handlers}>
      <DropArea
        title={emotes.length === 0 ? "Add the channel’s first emotes" : "Add emotes"}
        about="Drop pictures here, as many as you like. PNG, SVG, GIF or WebP, up to 2 MB each; moving ones move. The chat word comes from the file’s name and can be changed."
        accept=".png,.svg,.gif,.webp,image/png,image/svg+xml,image/gif,image/webp"
        label="Pictures to add"
        button="Choose pictures"
        over={drop.over}
        onFiles={add}
        beside={emotes.length === 0 && <StarterButton what="emotes" label="Begin with twelve drawn ones" onDone={load} />}
      />
      {uploads.length > 0 && (
        <Stack gap="2" mb="5" aria-label="Pictures being added" role="status">
          {uploads.map((u) => (
            <UploadRow key={u.n} upload={u} onAgain={(word) => again(u, word)} onForget={() => forget(u.n)} />
          ))}
        </Stack>
      )}
      <Grid templateColumns="repeat(auto-fill, minmax(150px, 1fr))" gap="4" aria-label="Emotes" role="list">
        {emotes.map((emote) => (
          <EmoteCard key={emote.id} emote={emote} onRename={(word) => rename(emote, word)} onRemove={() => void remove(emote)} />
        ))}
      </Grid>
    </Box>
  );
}

function UploadRow({ upload, onAgain, onForget }: Readonly<{ upload: Upload; onAgain: (word: string) => void; onForget: () => void }>) {
  const [word, setWord] = useState(upload.word);
  const refused = upload.state === "refused";
  return (
    <Flex bg={refused ? "blank" : "raised"} borderRadius="8px" px="4" py="2" align="center" gap="3" wrap="wrap">
      <Text fontWeight="600" flexShrink="0" maxW="240px" truncate>
        {upload.name}
      </Text>
      <Text flex="1" minW="200px" color={refused ? "brickText" : "inkSoft"}>
        {refused
          ? upload.words
          : upload.state === "done"
            ? `added as ${upload.word}`
            : upload.state === "sending"
              ? "being added…"
              : "waits its turn"}
      </Text>
      {refused && (
        <>
          <Input
            size="sm"
            width="160px"
            aria-label={`Chat word for ${upload.name}`}
            value={word}
            onChange={(e) => setWord(e.target.value)}
          />
          <Button size="sm" variant="outline" onClick={() => onAgain(word)}>
            Try again
          </Button>
          <Button size="sm" variant="ghost" onClick={onForget}>
            Leave out
          </Button>
        </>
      )}
    </Flex>
  );
}

function EmoteCard({
  emote,
  onRename,
  onRemove,
}: Readonly<{ emote: EmoteRow; onRename: (word: string) => Promise<boolean>; onRemove: () => void }>) {
  const [word, setWord] = useState(emote.word);
  useEffect(() => setWord(emote.word), [emote.word]);
  const save = async (): Promise<void> => {
    const next = word.trim();
    if (next === emote.word) return;
    // Who types the next word already while this one is refused keeps what they type.
    if (next === "" || !(await onRename(next))) setWord((now) => (now.trim() === next ? emote.word : now));
  };
  return (
    <Box
      role="listitem"
      borderWidth="1px"
      borderColor="line"
      borderRadius="10px"
      bg="raised"
      p="3"
      position="relative"
      data-emote={emote.word}
    >
      <Flex height="96px" align="center" justify="center">
        <SpriteView sprite={emote.sprite} size={88} />
      </Flex>
      <chakra.input
        aria-label={`Chat word of ${emote.word}`}
        value={word}
        maxLength={40}
        width="100%"
        textAlign="center"
        fontWeight="700"
        bg="transparent"
        borderBottomWidth="2px"
        borderColor="transparent"
        _hover={{ borderColor: "line" }}
        _focus={{ borderColor: "ochreText" }}
        onChange={(e) => setWord(e.currentTarget.value)}
        onBlur={() => void save()}
        onKeyDown={(e) => {
          if (e.key === "Enter") e.currentTarget.blur();
          if (e.key === "Escape") setWord(emote.word);
        }}
      />
      <Flex justify="space-between" align="center" mt="1">
        <Text color="inkSoft" fontSize="14px">
          {emote.sprite.frames > 1 ? `moves, ${emote.sprite.frames} frames` : emote.kind.toUpperCase()}
        </Text>
        <Button size="xs" variant="ghost" px="1.5" aria-label={`Remove ${emote.word}`} onClick={onRemove}>
          <Trash2 size={15} />
        </Button>
      </Flex>
    </Box>
  );
}
