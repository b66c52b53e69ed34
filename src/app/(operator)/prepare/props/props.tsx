"use client";
import { DropArea, useDrop } from "../../../../ui/drop-area";
import { Box, Button, chakra, Flex, Grid, Input, Progress, Stack, Text } from "@chakra-ui/react";
import { Trash2, Upload as UploadIcon } from "lucide-react";
import { useSearchParams } from "next/navigation";
import { useRef, useState } from "react";
import { fold } from "../../../../core/kernel/fold";
import type { PropInMaking, PropWithUses } from "../../../../server/web/props";
import { FigureFacts, figureOf } from "./figure-facts";
import { PictureShape } from "./picture-shape";
import { SoundShape } from "./sound-shape";
import { StarterButton } from "../starter-button";
import { useProps } from "./use-props";
import { PropCard } from "./prop-card";
import { Making, VideoShape } from "./video-shape";

const filters = ["all", "pictures", "moving", "sounds", "unused"] as const;
const kindOfFilter = { pictures: "picture", moving: "video", sounds: "sound" } as const;

/** Pictures, moving ones and sounds of the channel: added by drop, many at once, from a ZIP or an address. */
export function Props({ first }: { first: readonly PropWithUses[] }) {
  const { props, making, unmake, uploads, load, add, addAddress, forget, change, replace, remove } = useProps(first);
  const drop = useDrop(add);
  const [search, setSearch] = useState("");
  const [filter, setFilter] = useState<(typeof filters)[number]>("all");
  const [address, setAddress] = useState("");
  const [open, setOpen] = useState<string | null>(useSearchParams().get("open"));
  const shown = props.filter(
    (p) =>
      (search === "" || fold(p.name).includes(fold(search))) &&
      (filter === "all" || (filter === "unused" ? p.usedIn.length === 0 : p.kind === kindOfFilter[filter])),
  );
  const chosen = props.find((p) => p.id === open) ?? null;
  const [left, setLeft] = useState<readonly string[]>([]);
  const fresh = making.filter((m) => m.purpose === "new" && !left.includes(m.id));
  const leaveOut = (m: PropInMaking): void => {
    setLeft([...left, m.id]);
    if (m.state !== "failed") void unmake(m.id);
  };
  return (
    <Box {...drop.handlers}>
      <DropArea
        title={props.length === 0 ? "Add the channel’s first props" : "Add props"}
        about="Drop files here, as many as you like: PNG, SVG, GIF, WebP up to 8 MB, WAV, OGG, MP3 up to 2 minutes, WebM, MP4, MOV up to 64 MB, or a ZIP of them up to 120 MB. A ZIP with a figure.json is one figure. All sounds are brought to one level."
        accept=".png,.svg,.gif,.webp,.wav,.ogg,.mp3,.webm,.mp4,.mov,.zip"
        label="Files to add"
        button="Choose files"
        over={drop.over}
        onFiles={add}
        beside={props.length === 0 && <StarterButton what="props" label="Begin with a small library" onDone={load} />}
      >
        <form
          onSubmit={(e) => {
            e.preventDefault();
            if (address.trim() !== "") void addAddress(address.trim()).then((ok) => ok && setAddress(""));
          }}
        >
          <Flex gap="2" mt="3">
            <Input
              size="sm"
              type="url"
              aria-label="Address of a file"
              placeholder="or an address on the web: https://…"
              value={address}
              onChange={(e) => setAddress(e.target.value)}
              bg="ground"
            />
            <Button size="sm" type="submit" variant="outline">
              Fetch
            </Button>
          </Flex>
        </form>
      </DropArea>
      {uploads.length > 0 && (
        <Stack gap="2" mb="5" aria-label="Files being added" role="status">
          {uploads.map((u) => (
            <Flex
              key={u.n}
              bg={u.state === "refused" ? "blank" : "raised"}
              borderRadius="8px"
              px="4"
              py="2"
              align="center"
              gap="3"
              wrap="wrap"
            >
              <Text fontWeight="600" maxW="320px" truncate>
                {u.name}
              </Text>
              {u.state === "refused" ? (
                <>
                  <Text flex="1" minW="200px" color="brickText">
                    {u.words}
                  </Text>
                  <Button size="sm" variant="ghost" onClick={() => forget(u.n)}>
                    Leave out
                  </Button>
                </>
              ) : (
                <Flex flex="1" gap="3" align="center">
                  <Progress.Root value={u.state === "making" ? null : Math.round(u.share * 100)} flex="1" colorPalette="ochre" size="sm">
                    <Progress.Track>
                      <Progress.Range />
                    </Progress.Track>
                  </Progress.Root>
                  <Text color="inkSoft">
                    {u.state === "waiting" ? "waits its turn" : u.state === "sending" ? `${Math.round(u.share * 100)} %` : "is looked at"}
                  </Text>
                  {u.cancel !== undefined && u.state !== "making" && (
                    <Button size="sm" variant="ghost" aria-label={`Cancel ${u.name}`} onClick={u.cancel}>
                      Cancel
                    </Button>
                  )}
                </Flex>
              )}
            </Flex>
          ))}
        </Stack>
      )}
      {fresh.length > 0 && (
        <Stack gap="2" mb="5" aria-label="Moving pictures being made">
          {fresh.map((m) => (
            <Flex
              key={m.id}
              bg={m.state === "failed" ? "blank" : "raised"}
              borderRadius="8px"
              px="4"
              py="2"
              align="center"
              gap="3"
              wrap="wrap"
            >
              <Text fontWeight="600" maxW="320px" truncate>
                {m.name}
              </Text>
              <Box flex="1" minW="200px">
                {m.state === "failed" ? (
                  <Text color="brickText" role="alert">
                    {m.words}
                  </Text>
                ) : (
                  <Making share={m.share} waits={m.state === "waiting"} />
                )}
              </Box>
              <Button size="sm" variant="ghost" aria-label={`Leave ${m.name} out`} onClick={() => leaveOut(m)}>
                Leave out
              </Button>
            </Flex>
          ))}
        </Stack>
      )}
      {props.length > 0 && (
        <Flex gap="3" mb="4" align="center" wrap="wrap">
          <Input
            size="sm"
            width="260px"
            aria-label="Search props"
            placeholder="Search"
            value={search}
            onChange={(e) => setSearch(e.target.value)}
          />
          <Flex gap="1" wrap="wrap" role="group" aria-label="Which props">
            {filters.map((f) => (
              <Button key={f} size="sm" variant={filter === f ? "solid" : "ghost"} aria-pressed={filter === f} onClick={() => setFilter(f)}>
                {f}
              </Button>
            ))}
          </Flex>
          <Text color="inkSoft">
            {shown.length} of {props.length}
          </Text>
        </Flex>
      )}
      <Grid templateColumns={chosen === null ? "1fr" : { base: "1fr", lg: "1fr 380px" }} gap="5" alignItems="start">
        <Grid templateColumns="repeat(auto-fill, minmax(190px, 1fr))" gap="4" role="list" aria-label="Props">
          {shown.map((prop) => (
            <PropCard
              key={prop.id}
              prop={prop}
              chosen={open === prop.id}
              onOpen={() => setOpen(open === prop.id ? null : prop.id)}
              onRename={(name) => change(prop.id, { name })}
            />
          ))}
        </Grid>
        {chosen !== null && (
          <Box borderWidth="1px" borderColor="line" borderRadius="10px" p="4" position="sticky" top="16px" data-testid="prop-detail">
            <Text fontFamily="heading" fontWeight="700" fontSize="18px" mb="2">
              {chosen.name}
            </Text>
            {figureOf(chosen) !== null ? (
              <FigureFacts prop={chosen} />
            ) : chosen.kind === "video" ? (
              <VideoShape
                key={`${chosen.id} ${chosen.url} ${JSON.stringify(chosen.settings)}`}
                prop={chosen}
                making={[...making].reverse().find((m) => m.about === chosen.id && m.purpose !== "new")}
                onSet={(settings) => change(chosen.id, { settings })}
              />
            ) : chosen.kind === "picture" ? (
              <PictureShape key={`${chosen.id} ${chosen.url}`} prop={chosen} onSet={(settings) => change(chosen.id, { settings })} />
            ) : (
              <SoundShape key={`${chosen.id} ${chosen.url}`} prop={chosen} onSet={(settings) => change(chosen.id, { settings })} />
            )}
            <Text mt="3" fontSize="15px" color="inkSoft">
              {chosen.usedIn.length === 0 ? "Nothing uses it." : `Used in ${chosen.usedIn.join(", ")}.`}
            </Text>
            <Flex gap="2" mt="3">
              <ReplaceButton prop={chosen} onFile={(file) => void replace(chosen, file)} />
              <Button
                size="sm"
                variant="ghost"
                color="brickText"
                onClick={() => {
                  setOpen(null);
                  void remove(chosen);
                }}
              >
                <Trash2 size={15} aria-hidden="true" /> Remove
              </Button>
            </Flex>
          </Box>
        )}
      </Grid>
    </Box>
  );
}

const acceptOf = { picture: ".png,.svg,.gif,.webp", sound: ".wav,.ogg,.mp3", video: ".webm,.mp4,.mov,.gif" } as const;
function ReplaceButton({ prop, onFile }: Readonly<{ prop: PropWithUses; onFile: (file: File) => void }>) {
  const picker = useRef<HTMLInputElement>(null);
  return (
    <>
      <chakra.input
        ref={picker}
        type="file"
        display="none"
        aria-label={`Another file for ${prop.name}`}
        accept={figureOf(prop) !== null ? ".zip" : acceptOf[prop.kind]}
        onChange={(e) => {
          const [file] = e.currentTarget.files ?? [];
          if (file !== undefined) onFile(file);
          e.currentTarget.value = "";
        }}
      />
      <Button size="sm" variant="outline" onClick={() => picker.current?.click()}>
        <UploadIcon size={15} aria-hidden="true" /> Replace everywhere
      </Button>
    </>
  );
}
