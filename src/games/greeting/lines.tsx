"use client";
import { Box, chakra, Flex, Stack, Text } from "@chakra-ui/react";
import { type GreetingSettings, lineVariables, type ListName, lists } from "../../core/games/greeting/settings";
import { listWords } from "../../core/games/greeting/words";
import { counted } from "../../core/words/sentence";
import { ListField } from "../../ui/list-field";
import type { LooksProps } from "../shown";

const about: Partial<Record<ListName, string>> = {
  fresh: "First of all lists: their first message ever.",
  away: "As many days as the sentence above says.",
  everybody: "Whoever no other list is for.",
};

/** The lines, list by list, and who is never greeted. */
export function GreetingLines({ settings, onChange }: LooksProps) {
  const { lines, ignored } = settings as GreetingSettings;
  return (
    <Box mt="5" data-testid="greeting-lines">
      <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="17px">
        The lines
      </Text>
      <Text color="inkSoft" fontSize="15px">
        One in each line, after the name on the card. You may write{" "}
        {lineVariables.map((name, i) => (
          <chakra.span key={name}>
            {i === 0 ? "" : i === lineVariables.length - 1 ? " and " : ", "}
            <chakra.code fontFamily="mono">{`{${name}}`}</chakra.code>
          </chakra.span>
        ))}
        .
      </Text>
      <Stack gap="3" mt="2">
        {lists.map((name) => (
          <Flex key={name} gap="3" wrap="wrap" align="start">
            <Box width="210px" pt="1">
              <Text fontWeight="600" fontSize="15.5px">
                {listWords[name][0]?.toUpperCase()}
                {listWords[name].slice(1)}
              </Text>
              <Text color="inkSoft" fontSize="14px">
                {lines[name].length === 0 ? "no lines: the next list answers" : (about[name] ?? counted(lines[name].length, "line"))}
              </Text>
            </Box>
            <Box flex="1" minW="260px">
              <ListField
                label={`Lines for ${listWords[name]}`}
                list={lines[name]}
                shape={{ apart: "lines", most: 60, letters: 160 }}
                rows={Math.max(2, Math.min(6, lines[name].length + 1))}
                width="100%"
                onSet={(list) => onChange(`lines.${name}`, list)}
              />
            </Box>
          </Flex>
        ))}
        <Flex gap="3" wrap="wrap" align="start">
          <Box width="210px" pt="1">
            <Text fontWeight="600" fontSize="15.5px">
              Never greeted
            </Text>
            <Text color="inkSoft" fontSize="14px">
              names of bots, and of who asked not to be
            </Text>
          </Box>
          <Box flex="1" minW="260px">
            <ListField
              label="Names that are never greeted"
              list={ignored}
              shape={{ apart: "lines", most: 300, letters: 80 }}
              rows={2}
              width="100%"
              placeholder="one in each line"
              onSet={(list) => onChange("ignored", list)}
            />
          </Box>
        </Flex>
      </Stack>
    </Box>
  );
}
