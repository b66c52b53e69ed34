"use client";
import { Box, Button, chakra, Flex, Stack, Text } from "@chakra-ui/react";
import { arrayMove } from "@dnd-kit/sortable";
import { Plus, Trash2 } from "lucide-react";
import type { Prize, RaffleSettings } from "../../core/games/raffle/settings";
import { roleWords, roles } from "../../core/signals/names";
import { RaffleReplies } from "./replies";
import { ListField } from "../../ui/list-field";
import { IconButton } from "../../ui/icon-button";
import { NumberField } from "../../ui/number-field";
import { Pick } from "../../ui/pick";
import { RowName } from "../../ui/row-name";
import { SortableList, SortableRow } from "../../ui/sortable";
import type { LooksProps } from "../shown";

/** What belongs to a draw and is no sentence: prizes in the order they go out, and roles whose tickets count more. */
export function RafflePrizes({ settings, onChange, Effects }: LooksProps) {
  const { prizes, times, barred, effects } = settings as RaffleSettings;
  const put = (next: readonly Prize[]): void => onChange("prizes", next);
  const set = (id: string, part: Partial<Prize>): void => put(prizes.map((p) => (p.id === id ? { ...p, ...part } : p)));
  const free = roles.filter((r) => r !== "viewer" && !times.some((t) => t.role === r));
  return (
    <Box mt="5">
      <Flex align="baseline" gap="3" mb="2">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px">
          Prizes
        </Text>
        <Text color="inkSoft" fontSize="15px" flex="1">
          in the order in which they go out; none is needed
        </Text>
        <Button
          size="xs"
          variant="outline"
          disabled={prizes.length >= 50}
          onClick={() => put([...prizes, { id: `p${Date.now().toString(36)}`, name: `Prize ${prizes.length + 1}`, count: 1, how: "" }])}
        >
          <Plus size={15} aria-hidden="true" /> Add
        </Button>
      </Flex>
      <Stack gap="1" role="list" aria-label="Prizes">
        <SortableList
          ids={prizes.map((p) => p.id)}
          nameOf={(id) => prizes.find((p) => p.id === id)?.name ?? ""}
          onMove={(from, to) => put(arrayMove([...prizes], from, to))}
        >
          {prizes.map((p, i) => (
            <SortableRow key={p.id} id={p.id} name={p.name}>
              <Flex align="center" gap="2" bg="raised" borderRadius="8px" px="2" py="1">
                <RowName label={`Name of prize ${i + 1}`} value={p.name} most={60} onSet={(name) => set(p.id, { name })} />
                <NumberField label={`How many of ${p.name}`} value={p.count} min={1} max={1_000} onSet={(n) => set(p.id, { count: n })} />
                <chakra.input
                  aria-label={`How ${p.name} is handed over`}
                  value={p.how}
                  maxLength={120}
                  width="190px"
                  bg="transparent"
                  placeholder="how it is handed over"
                  onChange={(e) => set(p.id, { how: e.currentTarget.value })}
                />
                <IconButton label={`Take ${p.name} out`} onClick={() => put(prizes.filter((x) => x.id !== p.id))}>
                  <Trash2 size={15} />
                </IconButton>
              </Flex>
            </SortableRow>
          ))}
        </SortableList>
      </Stack>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mt="5" mb="1">
        Tickets that count more
      </Text>
      <Stack gap="1" fontSize="15.5px">
        {times.map((t) => (
          <Flex key={t.role} align="center" gap="2">
            <Text flex="1">
              Tickets of {roleWords[t.role]} count{" "}
              <NumberField
                label={`How often tickets of ${roleWords[t.role]} count`}
                value={t.times}
                min={2}
                max={100}
                onSet={(n) =>
                  onChange(
                    "times",
                    times.map((x) => (x.role === t.role ? { ...x, times: n } : x)),
                  )
                }
              />{" "}
              times.
            </Text>
            <IconButton
              label={`Tickets of ${roleWords[t.role]} count once`}
              onClick={() =>
                onChange(
                  "times",
                  times.filter((x) => x.role !== t.role),
                )
              }
            >
              <Trash2 size={15} />
            </IconButton>
          </Flex>
        ))}
        {free.length > 0 && (
          <Pick
            label="Whose tickets count more"
            value=""
            options={[{ value: "", words: "those of…" }, ...free.map((r) => ({ value: r, words: roleWords[r] }))]}
            width="160px"
            onSet={(r) => r !== "" && onChange("times", [...times, { role: r, times: 2 }])}
          />
        )}
      </Stack>
      <Heading
        words="Who may not enter"
        about="names, set apart by commas, in whatever case; in the booth somebody is barred with a press"
      />
      <ListField
        label="Barred names"
        list={barred}
        shape={{ apart: "commas", most: 500, letters: 80 }}
        placeholder="nobody"
        width="100%"
        onSet={(list) => onChange("barred", list)}
      />
      {Effects !== undefined && (
        <>
          <Heading words="With each winner" about="a sound, a picture, whatever rules can do" />
          <Effects label="With each winner" effects={effects} what="raffle/drawn" onSet={(list) => onChange("effects", list)} />
        </>
      )}
      <RaffleReplies settings={settings as RaffleSettings} onChange={onChange} />
    </Box>
  );
}
const Heading = ({ words, about }: Readonly<{ words: string; about: string }>) => (
  <Flex align="baseline" gap="3" mt="5" mb="1" wrap="wrap">
    <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px">
      {words}
    </Text>
    <Text color="inkSoft" fontSize="15px">
      {about}
    </Text>
  </Flex>
);
