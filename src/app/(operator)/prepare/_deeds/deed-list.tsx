"use client";
import { IconButton } from "../../../../ui/icon-button";
import { Box, Button, Flex, Menu, Portal, Stack } from "@chakra-ui/react";
import { arrayMove } from "@dnd-kit/sortable";
import { ArrowDown, ArrowUp, Plus, Trash2 } from "lucide-react";
import { type Deed, mostDeeds } from "../../../../core/rules/deeds";
import type { Asked } from "../../../../core/rules/words";
import { SortableList, SortableRow } from "../../../../ui/sortable";
import { DeedForm } from "./deed-form";
import { deedChoices, type Parts } from "./parts";

type Props = Readonly<{
  label: string;
  deeds: readonly Deed[];
  /** What is answered: amounts are given for every so much of it. */
  asked: Asked;
  variables: readonly string[];
  parts: Parts;
  onSet: (deeds: Deed[]) => void;
}>;

/** What happens, one after another. */
export function DeedList({ label, deeds, asked, variables, parts, onSet }: Props) {
  const put = (i: number, deed: Deed): void => onSet(deeds.map((d, k) => (k === i ? deed : d)));
  const move = (from: number, to: number): void => onSet(arrayMove([...deeds], from, to));
  const ids = deeds.map((_, i) => String(i));
  const nameOf = (id: string): string => `thing ${Number(id) + 1}`;
  return (
    <Box>
      <Stack gap="2" role="list" aria-label={label}>
        <SortableList ids={ids} nameOf={nameOf} onMove={move}>
          {deeds.map((deed, i) => (
            <SortableRow key={i} id={String(i)} name={nameOf(String(i))}>
              <Flex gap="2" align="start" borderLeftWidth="3px" borderColor="line" pl="3" data-deed={deed.do}>
                <Box flex="1" minW="0" fontSize="15.5px" lineHeight="2">
                  <DeedForm deed={deed} asked={asked} variables={variables} parts={parts} onSet={(d) => put(i, d)} />
                </Box>
                <Flex>
                  <IconButton label="Earlier" disabled={i === 0} onClick={() => move(i, i - 1)}>
                    <ArrowUp size={15} />
                  </IconButton>
                  <IconButton label="Later" disabled={i === deeds.length - 1} onClick={() => move(i, i + 1)}>
                    <ArrowDown size={15} />
                  </IconButton>
                  <IconButton label="Take it out" onClick={() => onSet(deeds.filter((_, k) => k !== i))}>
                    <Trash2 size={15} />
                  </IconButton>
                </Flex>
              </Flex>
            </SortableRow>
          ))}
        </SortableList>
      </Stack>
      <Menu.Root positioning={{ placement: "bottom-start" }}>
        <Menu.Trigger asChild>
          <Button size="xs" variant="outline" mt="2" disabled={deeds.length >= mostDeeds}>
            <Plus size={15} aria-hidden="true" /> {deeds.length === 0 ? "Choose what happens" : "And then"}
          </Button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content>
              {deedChoices(parts, asked.when).map(({ value, words, make }) => (
                <Menu.Item key={value} value={value} onClick={() => onSet([...deeds, make()])}>
                  {words}
                </Menu.Item>
              ))}
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
    </Box>
  );
}
