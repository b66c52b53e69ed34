"use client";
import { Box, Button, Flex, Text } from "@chakra-ui/react";
import { Music } from "lucide-react";
import { useRef, useState } from "react";
import { soundFactsSchema } from "../../../../core/props/settings";
import { mostOf } from "../../../../core/props/sizes";
import type { Added, PropWithUses } from "../../../../server/web/props";
import { sendFile } from "../../../_frame/send-file";

export type DroppedSound = Readonly<{ id: string; name: string; url: string; ms: number }>;
type Said<T> = Readonly<{ ok: boolean; value?: T; words?: string }>;

/** Sounds dropped here become props and rewards at once, twenty as easily as one. */
export function SoundDrop({ onSounds }: Readonly<{ onSounds: (sounds: readonly DroppedSound[]) => void }>) {
  const [over, setOver] = useState(false);
  const [busy, setBusy] = useState<Readonly<{ done: number; all: number }> | null>(null);
  const [troubles, setTroubles] = useState<readonly string[]>([]);
  const picker = useRef<HTMLInputElement>(null);
  const take = async (files: readonly File[]): Promise<void> => {
    if (files.length === 0 || busy !== null) return;
    const ids: string[] = [];
    const no: string[] = [];
    for (const [i, file] of files.entries()) {
      setBusy({ done: i, all: files.length });
      const said = await sendFile<readonly Added[]>("/props", file, { most: mostOf(file.name) });
      if (said?.ok === false) no.push(`${file.name}: ${said.words}`);
      for (const one of said?.ok === true ? said.value : []) {
        if (one.ok) ids.push(one.id);
        else no.push(`${one.name}: ${one.words}`);
      }
    }
    const list = await fetch("/api/props")
      .then((r) => r.json() as Promise<Said<{ props: PropWithUses[] }>>)
      .catch(() => null);
    const mine = (list?.value?.props ?? []).filter((p) => ids.includes(p.id));
    for (const picture of mine.filter((p) => p.kind !== "sound"))
      no.push(`${picture.name} is a picture: it is among the props now, and no reward was made of it.`);
    setBusy(null);
    setTroubles(no);
    onSounds(
      mine
        .filter((p) => p.kind === "sound")
        .sort((a, b) => ids.indexOf(a.id) - ids.indexOf(b.id))
        .map((p) => {
          const facts = soundFactsSchema.safeParse(p.facts);
          return { id: p.id, name: p.name, url: p.url, ms: facts.success ? facts.data.ms : 0 };
        }),
    );
  };
  return (
    <Box
      borderWidth="2px"
      borderStyle="dashed"
      borderColor={over ? "ochre.solid" : "line"}
      bg={over ? "blank" : "transparent"}
      borderRadius="10px"
      px="3"
      py="2"
      mb="3"
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        void take([...e.dataTransfer.files]);
      }}
    >
      <Flex align="center" gap="3">
        <Music size={20} aria-hidden="true" />
        <Text flex="1" fontSize="15px" lineHeight="1.35">
          {busy === null ? (
            <>
              <b>Sell sounds:</b> drop sound files here. Each becomes a reward, its chat word from the file’s name.
            </>
          ) : (
            `Taking in sound ${busy.done + 1} of ${busy.all} …`
          )}
        </Text>
        <input
          ref={picker}
          type="file"
          multiple
          hidden
          accept=".wav,.ogg,.mp3,.zip,audio/*"
          aria-label="Sound files"
          onChange={(e) => {
            void take([...(e.currentTarget.files ?? [])]);
            e.currentTarget.value = "";
          }}
        />
        <Button size="xs" variant="outline" disabled={busy !== null} onClick={() => picker.current?.click()}>
          Choose files
        </Button>
      </Flex>
      {troubles.length > 0 && (
        <Box role="alert" mt="2" fontSize="14.5px">
          {troubles.map((t) => (
            <Text key={t}>{t}</Text>
          ))}
        </Box>
      )}
    </Box>
  );
}
