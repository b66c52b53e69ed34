"use client";
import { IconButton } from "../../ui/icon-button";
import { arrayMove } from "@dnd-kit/sortable";
import { RowName } from "../../ui/row-name";
import { SortableList, SortableRow } from "../../ui/sortable";
import { Box, Button, chakra, Flex, Grid, Input, Stack, Text } from "@chakra-ui/react";
import { ArrowDown, ArrowUp, Trash2 } from "lucide-react";
import { type BossSettings, creatures } from "../../core/games/boss-battle/settings";
import { ColourField } from "../../ui/colour-field";
import { Dial } from "../../ui/dial";
import { Pick } from "../../ui/pick";
import { SpriteView } from "../../ui/sprite-view";
import { Tick } from "../../ui/tick";
import type { LooksProps } from "../shown";
import { FigureView } from "./figure-view";

const creatureWords: Readonly<Record<string, string>> = { jug: "jug", bottle: "bottle", bowl: "bowl", teapot: "teapot", urn: "urn" };

/** How the boss looks: which parts, which colours, how heavy it is. */
export function BossLooks({ settings, onChange }: LooksProps) {
  const { looks } = settings as BossSettings;
  const set = (key: keyof BossSettings["looks"]) => (value: unknown) => onChange(`looks.${key}`, value);
  return (
    <Stack gap="5">
      <Box>
        <Text fontWeight="700" mb="2">
          What is shown
        </Text>
        <Grid templateColumns="1fr 1fr" gap="2.5">
          <Tick label="The figure, whose glaze is its health" value={looks.figure} onSet={set("figure")} />
          <Tick label="Turned the other way" value={looks.mirrored} onSet={set("mirrored")} />
          <Tick label="Its name" value={looks.name} onSet={set("name")} />
          <Tick label="A band of glaze" value={looks.band} onSet={set("band")} />
          <Tick label="Health in numbers" value={looks.numbers} onSet={set("numbers")} />
          <Tick label="Each hit, with who struck" value={looks.lastHit} onSet={set("lastHit")} />
        </Grid>
      </Box>
      <Flex gap="4" align="center" wrap="wrap">
        <Pick
          label="When it is shown"
          value={looks.show}
          options={[
            { value: "always", words: "Always on the picture" },
            { value: "after-hit", words: "Only after a hit" },
          ]}
          onSet={set("show")}
        />
        {looks.show === "after-hit" && (
          <Box width="260px">
            <Dial
              label="Stays for"
              unit="s"
              value={looks.showMs / 1000}
              min={1}
              max={60}
              most={120}
              step={1}
              onSet={(v) => onChange("looks.showMs", Math.round(v * 1000))}
            />
          </Box>
        )}
      </Flex>
      <chakra.label fontWeight="700" fontSize="15px">
        A call under it
        <Input
          mt="1"
          size="sm"
          fontWeight="400"
          value={looks.call}
          maxLength={80}
          placeholder="nothing"
          onChange={(e) => onChange("looks.call", e.currentTarget.value)}
        />
      </chakra.label>
      <Grid templateColumns="1fr 1fr" gap="6" alignItems="end">
        <Flex gap="5">
          <ColourField label="Glaze" value={looks.glaze} onSet={set("glaze")} />
          <ColourField label="Clay" value={looks.clay} onSet={set("clay")} />
          <ColourField label="Text" value={looks.text} onSet={set("text")} />
        </Flex>
        <Dial
          label="Recoils"
          unit="% of usual"
          value={looks.weight}
          min={0}
          max={200}
          step={10}
          onSet={(v) => onChange("looks.weight", Math.round(v))}
        />
      </Grid>
    </Stack>
  );
}

/** Who can be the boss, in their order. */
export function BossRoster({ settings, sprites, onChange }: LooksProps) {
  const { roster, looks } = settings as BossSettings;
  const put = (next: BossSettings["roster"]): void => onChange("roster", next);
  const move = (from: number, to: number): void => put(arrayMove([...roster], from, to));
  const own = sprites.filter((s) => s.key.startsWith("prop:"));
  const figures = [
    ...creatures.map((c) => ({ value: c, words: creatureWords[c] ?? c })),
    ...own.map((s) => ({ value: s.key, words: `own picture: ${s.word}` })),
  ];
  return (
    <Box mt="5">
      <Flex align="baseline" gap="3" mb="2">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px">
          The roster
        </Text>
        <Text color="inkSoft" fontSize="15px" flex="1">
          the first one begins; a champion wears one of these vessels
        </Text>
        <Button
          size="xs"
          variant="outline"
          disabled={roster.length >= 20}
          onClick={() =>
            put([
              ...roster,
              {
                id: `r${Date.now().toString(36)}`,
                name: `Vessel ${roster.length + 1}`,
                figure: creatures[roster.length % creatures.length] ?? "jug",
              },
            ])
          }
        >
          Add
        </Button>
      </Flex>
      <Stack gap="1.5" role="list" aria-label="Roster">
        <SortableList ids={roster.map((r) => r.id)} nameOf={(id) => roster.find((r) => r.id === id)?.name ?? ""} onMove={move}>
          {roster.map((entry, i) => {
            const sprite = own.find((s) => s.key === entry.figure);
            return (
              <SortableRow key={entry.id} id={entry.id} name={entry.name}>
                <Flex align="center" gap="2" bg="raised" borderRadius="8px" px="2" py="1">
                  {sprite === undefined ? (
                    <FigureView figure={entry.figure} looks={looks} size={40} />
                  ) : (
                    <SpriteView sprite={sprite} size={40} />
                  )}
                  <RowName
                    label={`Name of boss ${i + 1}`}
                    value={entry.name}
                    most={40}
                    onSet={(name) => name.trim() !== "" && put(roster.map((r, k) => (k === i ? { ...r, name } : r)))}
                  />
                  <Pick
                    label={`Figure of ${entry.name}`}
                    value={entry.figure}
                    options={figures}
                    width="150px"
                    onSet={(figure) => put(roster.map((r, k) => (k === i ? { ...r, figure } : r)))}
                  />
                  <IconButton label={`${entry.name} earlier`} disabled={i === 0} onClick={() => move(i, i - 1)}>
                    <ArrowUp size={15} />
                  </IconButton>
                  <IconButton label={`${entry.name} later`} disabled={i === roster.length - 1} onClick={() => move(i, i + 1)}>
                    <ArrowDown size={15} />
                  </IconButton>
                  <IconButton
                    label={`Take ${entry.name} out`}
                    disabled={roster.length === 1}
                    onClick={() => put(roster.filter((_, k) => k !== i))}
                  >
                    <Trash2 size={15} />
                  </IconButton>
                </Flex>
              </SortableRow>
            );
          })}
        </SortableList>
      </Stack>
    </Box>
  );
}
