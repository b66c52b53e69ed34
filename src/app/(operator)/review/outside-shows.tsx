"use client";
import { Box, Button, chakra, Flex, Input, Stack, Text } from "@chakra-ui/react";
import { Pencil, Trash2 } from "lucide-react";
import Link from "next/link";
import { useRef, useState } from "react";
import { counted } from "../../../core/words/sentence";
import type { OutsideShowRow } from "../../../server/ports/outside-show-store";
import { useDrop } from "../../../ui/drop-area";
import { IconButton } from "../../../ui/icon-button";
import { tell, tellTrouble } from "../../../ui/toaster";
import { When } from "../../../ui/when";
import { call } from "../../_frame/call";

/** Shows of other installations, brought in as their ZIP to be looked at. */
export function OutsideShows({ shows: first }: Readonly<{ shows: readonly OutsideShowRow[] }>) {
  const [shows, setShows] = useState(first);
  const [busy, setBusy] = useState(false);
  const [naming, setNaming] = useState<Readonly<{ id: string; name: string }> | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const look = async (): Promise<void> => {
    const said = await call<{ shows: readonly OutsideShowRow[] }>("GET", "/review/outside");
    if (said.ok) setShows(said.value.shows);
  };
  const bring = async (files: readonly File[]): Promise<void> => {
    setBusy(true);
    for (const file of files) {
      const form = new FormData();
      form.set("file", file);
      const said = await call<{ id: string; bad: number }>("POST", "/review/outside", form);
      if (!said.ok) tellTrouble(said.words);
      else if (said.value.bad === 0) tell("It came in, and stands below.");
      else tell(`It came in; ${counted(said.value.bad, "line")} of its log could not be read.`);
    }
    await look();
    setBusy(false);
  };
  const act = async (id: string, body: Readonly<{ do: string; name?: string }>, done?: string): Promise<void> => {
    const said = await call("POST", `/review/outside/${id}`, body);
    if (!said.ok) tellTrouble(said.words);
    else if (done !== undefined) tell(done);
    setNaming(null);
    await look();
  };
  const { over, handlers } = useDrop((files) => void bring(files));
  const here = shows.filter((s) => s.removedMs === null);
  return (
    <Box
      as="section"
      aria-labelledby="shows-from-outside"
      {...handlers}
      mt="8"
      borderRadius="10px"
      outline={over ? "2px dashed" : "none"}
      outlineColor="ochre.solid"
      outlineOffset="6px"
      data-testid="outside-shows"
    >
      <Text as="h2" id="shows-from-outside" fontFamily="heading" fontWeight="700" fontSize="19px" mb="1">
        Shows from outside
      </Text>
      <Text color="inkSoft" fontSize="15px" mb="2">
        The ZIP of a show, from another installation or kept from this one, can be opened here to be looked at. None of it counts in this
        channel.
      </Text>
      <chakra.input
        ref={field}
        type="file"
        accept=".zip,application/zip"
        aria-label="The ZIP of a show"
        position="absolute"
        width="1px"
        height="1px"
        overflow="hidden"
        opacity="0"
        onChange={(e) => {
          const files = [...(e.currentTarget.files ?? [])];
          e.currentTarget.value = "";
          void bring(files);
        }}
      />
      <Button size="sm" variant="outline" loading={busy} onClick={() => field.current?.click()}>
        Bring in a show
      </Button>
      <Stack as="ul" gap="0" mt="2" aria-label="Shows from outside">
        {here.map((s) => (
          <Flex as="li" key={s.id} listStyleType="none" align="center" gap="2" py="1" borderBottomWidth="1px" borderColor="line">
            {naming?.id === s.id ? (
              <chakra.form
                flex="1"
                display="flex"
                gap="2"
                onSubmit={(e) => {
                  e.preventDefault();
                  void act(s.id, { do: "rename", name: naming.name });
                }}
              >
                <Input
                  size="sm"
                  autoFocus
                  aria-label="What this show is called"
                  value={naming.name}
                  maxLength={120}
                  onChange={(e) => setNaming({ id: s.id, name: e.target.value })}
                  onKeyDown={(e) => {
                    if (e.key === "Escape") setNaming(null);
                  }}
                />
                <Button size="sm" type="submit">
                  Keep
                </Button>
              </chakra.form>
            ) : (
              <Box flex="1" minW="0" truncate>
                <Link href={`/review/outside/${s.id}`}>{s.name}</Link>
              </Box>
            )}
            <Text color="inkSoft" fontSize="14.5px" whiteSpace="nowrap">
              brought in by {s.by}, <When atMs={s.createdMs} />
            </Text>
            <IconButton label={`Call ${s.name} something else`} onClick={() => setNaming({ id: s.id, name: s.name })}>
              <Pencil size={16} />
            </IconButton>
            <IconButton
              label={`Remove ${s.name}`}
              onClick={() => void act(s.id, { do: "remove" }, "Removed. It can be brought back for a week.")}
            >
              <Trash2 size={16} />
            </IconButton>
          </Flex>
        ))}
      </Stack>
      {shows
        .filter((s) => s.removedMs !== null)
        .map((s) => (
          <Flex key={s.id} align="center" gap="3" mt="2" fontSize="15px" color="inkSoft">
            <Text flex="1" minW="0" truncate>
              {s.name} was removed.
            </Text>
            <Button
              size="xs"
              variant="outline"
              aria-label={`Bring back ${s.name}`}
              onClick={() => void act(s.id, { do: "restore" }, "It is back.")}
            >
              Bring back
            </Button>
          </Flex>
        ))}
    </Box>
  );
}
