"use client";
import { Box, Button, chakra, Flex, Grid, Stack, Text, Textarea } from "@chakra-ui/react";
import { arrayMove } from "@dnd-kit/sortable";
import { ChevronDown, ChevronRight, Copy, Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { chancesInWords } from "../../core/chance/odds";
import { segmentsFrom } from "../../core/games/wheel/lines";
import { glazes, mostSegments, mostWeight, newSegment, type Segment, type WheelSettings } from "../../core/games/wheel/settings";
import { type Pattern, patterns } from "../../core/pictures/patterns";
import type { Sprite } from "../../core/wire/messages";
import { count, counted } from "../../core/words/sentence";
import { IconButton } from "../../ui/icon-button";
import { NumberField } from "../../ui/number-field";
import { Pick } from "../../ui/pick";
import { RowName } from "../../ui/row-name";
import { SortableList, SortableRow } from "../../ui/sortable";
import type { EffectsEditor, LooksProps } from "../shown";
import { ColourField } from "../../ui/colour-field";
import { Glaze } from "./glaze";

/** A row has a height, and a screen too: so many are shown until all are asked for. */
const shownFirst = 40;
const freshId = (n = 0): string => `s${Date.now().toString(36)}${n.toString(36)}`;

/** What stands on the wheel: each segment a line, its chance beside its weight. */
export function WheelSegments({ settings, sprites, onChange, Effects }: LooksProps) {
  const { segments } = settings as WheelSettings;
  const [open, setOpen] = useState<string | null>(null);
  const [all, setAll] = useState(false);
  const [pasting, setPasting] = useState(false);
  const [fresh, setFresh] = useState<string | null>(null);
  const put = (next: readonly Segment[]): void => onChange("segments", next);
  const set = (id: string, part: Partial<Segment>): void => put(segments.map((s) => (s.id === id ? { ...s, ...part } : s)));
  const move = (from: number, to: number): void => put(arrayMove([...segments], from, to));
  const chances = chancesInWords(segments.map((s) => s.weight));
  const rows = all ? segments : segments.slice(0, shownFirst);
  const full = segments.length >= mostSegments;
  const add = (): void => {
    const segment = newSegment(freshId(), `Segment ${segments.length + 1}`, segments.length);
    setFresh(segment.id);
    setAll(segments.length >= shownFirst || all);
    put([...segments, segment]);
  };
  return (
    <Box mt="5">
      <Flex align="baseline" gap="3" mb="2" wrap="wrap">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px">
          On the wheel
        </Text>
        <Text color="inkSoft" fontSize="15px" flex="1">
          {counted(segments.length, "segment")}; beside each its weight, and its chance while all are there
        </Text>
        <Button size="xs" variant="outline" aria-expanded={pasting} onClick={() => setPasting(!pasting)}>
          Paste lines
        </Button>
        <Button size="xs" variant="outline" disabled={full} onClick={add}>
          <Plus size={15} aria-hidden="true" /> Add
        </Button>
      </Flex>
      {pasting && (
        <Paste
          segments={segments}
          onAdd={(more, anew) => {
            put(anew ? more : [...segments, ...more]);
            setPasting(false);
          }}
        />
      )}
      <Stack gap="1" role="list" aria-label="Segments">
        <SortableList ids={rows.map((s) => s.id)} nameOf={(id) => segments.find((s) => s.id === id)?.label ?? ""} onMove={move}>
          {rows.map((segment, i) => (
            <SortableRow key={segment.id} id={segment.id} name={segment.label}>
              <Box bg="raised" borderRadius="8px" px="2" py="1" data-segment={segment.id}>
                <Flex align="center" gap="2">
                  <Glaze colour={segment.colour} pattern={segment.pattern} />
                  <RowName
                    label={`Label of segment ${i + 1}`}
                    value={segment.label}
                    most={60}
                    fresh={fresh === segment.id}
                    onSet={(label) => set(segment.id, { label })}
                  />
                  <NumberField
                    label={`Weight of ${segment.label}`}
                    value={segment.weight}
                    min={1}
                    max={mostWeight}
                    onSet={(weight) => set(segment.id, { weight })}
                  />
                  <Text fontFamily="mono" fontSize="14px" width="92px" textAlign="right" data-chance={segment.id}>
                    {chances[i]}
                  </Text>
                  <IconButton
                    label={open === segment.id ? `Less of ${segment.label}` : `More of ${segment.label}`}
                    onClick={() => setOpen(open === segment.id ? null : segment.id)}
                  >
                    {open === segment.id ? <ChevronDown size={16} /> : <ChevronRight size={16} />}
                  </IconButton>
                  <IconButton
                    label={`Copy ${segment.label}`}
                    disabled={full}
                    onClick={() => put([...segments.slice(0, i + 1), { ...segment, id: freshId() }, ...segments.slice(i + 1)])}
                  >
                    <Copy size={15} />
                  </IconButton>
                  <IconButton
                    label={`Take ${segment.label} out`}
                    disabled={segments.length === 1}
                    onClick={() => put(segments.filter((s) => s.id !== segment.id))}
                  >
                    <Trash2 size={15} />
                  </IconButton>
                </Flex>
                {open === segment.id && (
                  <Details
                    segment={segment}
                    sprites={sprites}
                    onSet={(part) => set(segment.id, part)}
                    {...(Effects === undefined ? {} : { Effects })}
                  />
                )}
              </Box>
            </SortableRow>
          ))}
        </SortableList>
      </Stack>
      {rows.length < segments.length && (
        <Button size="sm" variant="outline" mt="2" onClick={() => setAll(true)}>
          Show all {count(segments.length)}
        </Button>
      )}
      {full && (
        <Text mt="2" color="inkSoft" fontSize="15px">
          A wheel has at most {mostSegments} segments.
        </Text>
      )}
    </Box>
  );
}

function Details({
  segment,
  sprites,
  onSet,
  Effects,
}: Readonly<{ segment: Segment; sprites: readonly Sprite[]; onSet: (part: Partial<Segment>) => void; Effects?: EffectsEditor }>) {
  return (
    <Stack gap="3" pt="2" pb="2" pl="1" borderTopWidth="1px" borderColor="line" mt="1" fontSize="15px">
      <Text lineHeight="2">
        There {segment.stock === 1 ? "is" : "are"}{" "}
        <NumberField
          label="How many there are; 0 for without end"
          value={segment.stock}
          min={0}
          max={1_000_000}
          onSet={(stock) => onSet({ stock })}
        />{" "}
        of it until all are brought back (0: without end), and it stands{" "}
        <NumberField
          label="How often it stands around the wheel"
          value={segment.times}
          min={1}
          max={12}
          onSet={(times) => onSet({ times })}
        />{" "}
        {segment.times === 1 ? "time" : "times"} around the wheel, which divides its size and not its chance.
      </Text>
      <Flex gap="4" align="end" wrap="wrap">
        <ColourField label="Glaze" value={segment.colour} onSet={(colour) => onSet({ colour })} />
        <Pick
          label="Pattern"
          value={segment.pattern}
          options={patterns.map((p) => ({ value: p, words: p }))}
          onSet={(p) => onSet({ pattern: p as Pattern })}
        />
        <Pick
          label="Picture in it"
          value={segment.picture}
          options={[{ value: "", words: "no picture" }, ...sprites.map((s) => ({ value: s.key, words: s.word }))]}
          width="180px"
          onSet={(picture) => onSet({ picture })}
        />
      </Flex>
      <Grid templateColumns="repeat(8, 36px)" gap="1.5" role="group" aria-label="Ready glazes">
        {glazes.map((g) => (
          <chakra.button
            key={`${g.colour} ${g.pattern}`}
            type="button"
            aria-label={`${g.pattern}, ${g.colour}`}
            aria-pressed={g.colour === segment.colour && g.pattern === segment.pattern}
            onClick={() => onSet(g)}
            borderRadius="8px"
            borderWidth="2px"
            borderColor={g.colour === segment.colour && g.pattern === segment.pattern ? "ochreText" : "transparent"}
            cursor="pointer"
          >
            <Glaze colour={g.colour} pattern={g.pattern} />
          </chakra.button>
        ))}
      </Grid>
      {Effects !== undefined && (
        <Box>
          <Text fontWeight="700" mb="1">
            When it comes
          </Text>
          <Effects
            label={`What happens when ${segment.label} comes`}
            effects={segment.effects}
            what="wheel/drawn"
            onSet={(effects) => onSet({ effects })}
          />
        </Box>
      )}
    </Stack>
  );
}

function Paste({ segments, onAdd }: Readonly<{ segments: readonly Segment[]; onAdd: (more: readonly Segment[], anew: boolean) => void }>) {
  const [text, setText] = useState("");
  const more = segmentsFrom(text, segments, freshId);
  const instead = segmentsFrom(text, [], freshId);
  const told = [
    more.left > 0 ? `${counted(more.left, "line")} found no room: a wheel has at most ${mostSegments} segments.` : "",
    more.shortened > 0
      ? `${counted(more.shortened, "name")} of more than 60 letters ${more.shortened === 1 ? "is" : "are"} shortened.`
      : "",
  ].filter((t) => t !== "");
  return (
    <Box mb="3" bg="raised" borderRadius="8px" p="3">
      <Textarea
        aria-label="Lines, one for each segment"
        rows={5}
        value={text}
        autoFocus
        placeholder={"Celadon; 3\nTenmoku; 2\nAsh"}
        fontSize="15px"
        onChange={(e) => setText(e.currentTarget.value)}
      />
      <Text fontSize="15px" color="inkSoft" mt="1">
        One line for each segment; a weight may stand behind a semicolon or a tab.
      </Text>
      {told.map((words) => (
        <Text key={words} fontSize="15px" color="brickText" role="status">
          {words}
        </Text>
      ))}
      <Flex gap="2" mt="2">
        <Button size="sm" disabled={more.segments.length === 0} onClick={() => onAdd(more.segments, false)}>
          Add {counted(more.segments.length, "segment")}
        </Button>
        <Button size="sm" variant="outline" disabled={instead.segments.length === 0} onClick={() => onAdd(instead.segments, true)}>
          Put {instead.segments.length === 1 ? "it" : "them"} in the place of all
        </Button>
      </Flex>
    </Box>
  );
}
