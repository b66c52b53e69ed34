"use client";
import { IconButton } from "../../../../ui/icon-button";
import { Box, Button, Flex, Menu, Portal, Stack } from "@chakra-ui/react";
import { arrayMove } from "@dnd-kit/sortable";
import { ArrowDown, ArrowUp, Plus, Trash2 } from "lucide-react";
import { type RuleEffect, mostEffects } from "../../../../core/rules/effect";
import type { Asked } from "../../../../core/rules/notes";
import { SortableList, SortableRow } from "../../../../ui/sortable";
import { EffectForm } from "./effect-form";
import { effectChoices, type Available } from "./available";

type Props = Readonly<{
  label: string;
  effects: readonly RuleEffect[];
  /** What is answered: amounts are given for every so much of it. */
  asked: Asked;
  variables: readonly string[];
  available: Available;
  onSet: (effects: RuleEffect[]) => void;
}>;

/** What happens, one after another. */
export function EffectList({ label, effects, asked, variables, available, onSet }: Props) {
  const put = (i: number, effect: RuleEffect): void => onSet(effects.map((d, k) => (k === i ? effect : d)));
  const move = (from: number, to: number): void => onSet(arrayMove([...effects], from, to));
  const ids = effects.map((_, i) => String(i));
  const nameOf = (id: string): string => `thing ${Number(id) + 1}`;
  return (
    <Box>
      <Stack gap="2" role="list" aria-label={label}>
        <SortableList ids={ids} nameOf={nameOf} onMove={move}>
          {effects.map((effect, i) => (
            <SortableRow key={i} id={String(i)} name={nameOf(String(i))}>
              <Flex gap="2" align="start" borderLeftWidth="3px" borderColor="line" pl="3" data-effect={effect.do}>
                <Box flex="1" minW="0" fontSize="15.5px" lineHeight="2">
                  <EffectForm effect={effect} asked={asked} variables={variables} available={available} onSet={(d) => put(i, d)} />
                </Box>
                <Flex>
                  <IconButton label="Earlier" disabled={i === 0} onClick={() => move(i, i - 1)}>
                    <ArrowUp size={15} />
                  </IconButton>
                  <IconButton label="Later" disabled={i === effects.length - 1} onClick={() => move(i, i + 1)}>
                    <ArrowDown size={15} />
                  </IconButton>
                  <IconButton label="Take it out" onClick={() => onSet(effects.filter((_, k) => k !== i))}>
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
          <Button size="xs" variant="outline" mt="2" disabled={effects.length >= mostEffects}>
            <Plus size={15} aria-hidden="true" /> {effects.length === 0 ? "Choose what happens" : "And then"}
          </Button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content>
              {effectChoices(available, asked.when).map(({ value, words, make }) => (
                <Menu.Item key={value} value={value} onClick={() => onSet([...effects, make()])}>
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
