"use client";
import { Box, Button, chakra, Flex, Stack, Text } from "@chakra-ui/react";
import { arrayMove } from "@dnd-kit/sortable";
import { Copy, Plus, Trash2 } from "lucide-react";
import { mostOutcomes, type PredictionSettings, type Template } from "../../core/games/prediction/settings";
import { letterOf } from "../../core/games/prediction/letters";
import { IconButton } from "../../ui/icon-button";
import { ListField } from "../../ui/list-field";
import { NumberField } from "../../ui/number-field";
import { RowName } from "../../ui/row-name";
import { SortableList, SortableRow } from "../../ui/sortable";
import type { LooksProps } from "../shown";

const shape = { apart: "commas", most: mostOutcomes, letters: 40 } as const;
const freshId = (): string => `t${Date.now().toString(36)}`;

/** The outcomes of the question, and questions that are kept to be asked again. */
export function PredictionOutcomes({ settings, onChange }: LooksProps) {
  const { outcomes, templates, openMs, title } = settings as PredictionSettings;
  const put = (next: readonly Template[]): void => onChange("templates", next);
  const set = (id: string, part: Partial<Template>): void => put(templates.map((t) => (t.id === id ? { ...t, ...part } : t)));
  return (
    <Box mt="5">
      <Flex align="baseline" gap="3" mb="2">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" flex="1">
          Outcomes
        </Text>
        <Button
          size="xs"
          variant="outline"
          disabled={outcomes.length >= mostOutcomes}
          onClick={() => onChange("outcomes", [...outcomes, `Outcome ${letterOf(outcomes.length)}`])}
        >
          <Plus size={15} aria-hidden="true" /> Add
        </Button>
      </Flex>
      <Stack gap="1" role="list" aria-label="Outcomes">
        {outcomes.map((label, i) => (
          <Flex key={`${i} ${outcomes.length}`} role="listitem" align="center" gap="2" bg="raised" borderRadius="8px" px="2" py="1">
            <Text fontFamily="mono" fontWeight="700" width="22px">
              {letterOf(i)}
            </Text>
            <RowName
              label={`Outcome ${letterOf(i)}`}
              value={label}
              most={40}
              onSet={(name) =>
                name.trim() !== "" &&
                onChange(
                  "outcomes",
                  outcomes.map((o, k) => (k === i ? name : o)),
                )
              }
            />
            <IconButton
              label={`Take ${label} out`}
              disabled={outcomes.length <= 2}
              onClick={() =>
                onChange(
                  "outcomes",
                  outcomes.filter((_, k) => k !== i),
                )
              }
            >
              <Trash2 size={15} />
            </IconButton>
          </Flex>
        ))}
      </Stack>
      <Flex align="baseline" gap="3" mt="5" mb="2" wrap="wrap">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px">
          Templates
        </Text>
        <Text color="inkSoft" fontSize="15px" flex="1">
          questions that come again: opened from the booth with two presses, or by their first words in chat
        </Text>
        <Button
          size="xs"
          variant="outline"
          disabled={templates.length >= 60}
          onClick={() => put([...templates, { id: freshId(), title, outcomes: [...outcomes], openMs }])}
        >
          <Plus size={15} aria-hidden="true" /> Keep this question
        </Button>
      </Flex>
      {templates.length === 0 && <Text color="inkSoft">None yet.</Text>}
      <Stack gap="1" role="list" aria-label="Templates">
        <SortableList
          ids={templates.map((t) => t.id)}
          nameOf={(id) => templates.find((t) => t.id === id)?.title ?? ""}
          onMove={(from, to) => put(arrayMove([...templates], from, to))}
        >
          {templates.map((t, i) => (
            <SortableRow key={t.id} id={t.id} name={t.title}>
              <Box bg="raised" borderRadius="8px" px="2" py="1">
                <Flex align="center" gap="2">
                  <RowName
                    label={`Question of template ${i + 1}`}
                    value={t.title}
                    most={80}
                    onSet={(name) => name.trim() !== "" && set(t.id, { title: name })}
                  />
                  <chakra.span fontSize="15px" whiteSpace="nowrap">
                    open{" "}
                    <NumberField
                      label={`How long template ${i + 1} is open`}
                      value={t.openMs}
                      min={10_000}
                      max={86_400_000}
                      scale={1_000}
                      unit="s"
                      onSet={(ms) => set(t.id, { openMs: ms })}
                    />
                  </chakra.span>
                  <IconButton label={`Copy ${t.title}`} onClick={() => put([...templates, { ...t, id: freshId() }])}>
                    <Copy size={15} />
                  </IconButton>
                  <IconButton label={`Take ${t.title} out`} onClick={() => put(templates.filter((x) => x.id !== t.id))}>
                    <Trash2 size={15} />
                  </IconButton>
                </Flex>
                <ListField
                  label={`Outcomes of template ${i + 1}, set apart by commas`}
                  list={t.outcomes}
                  shape={shape}
                  width="100%"
                  onSet={(list) => list.length >= 2 && set(t.id, { outcomes: list })}
                />
              </Box>
            </SortableRow>
          ))}
        </SortableList>
      </Stack>
    </Box>
  );
}
