"use client";
import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import { type ReplyKey, replyKeys, replyOf } from "../../core/games/raffle/replies";
import type { RaffleSettings } from "../../core/games/raffle/settings";
import { counted } from "../../core/words/sentence";
import { TemplateField } from "../../ui/template-field";

const onlyNumbers: readonly ReplyKey[] = ["guessed", "say-number", "no-number", "number-range", "no-tries"];
const onlyTickets: readonly ReplyKey[] = ["entered", "full", "how-many", "chance"];

/** What chat is told, case by case: what stands empty is told in the usual words. */
export function RaffleReplies({
  settings,
  onChange,
}: Readonly<{ settings: RaffleSettings; onChange: (path: string, value: unknown) => void }>) {
  const { replies, by } = settings;
  const own = Object.values(replies).filter((text) => text !== "").length;
  const keys = replyKeys.filter((k) => !(by === "number" ? onlyTickets : onlyNumbers).includes(k));
  const set = (key: ReplyKey, text: string): void => {
    const { [key]: _, ...others } = replies;
    onChange("replies", text === "" ? others : { ...others, [key]: text });
  };
  return (
    <chakra.details mt="5">
      <chakra.summary cursor="pointer" minH="32px">
        <Text as="span" fontFamily="heading" fontWeight="700" fontSize="17px">
          What chat is told
        </Text>{" "}
        <Text as="span" color="inkSoft" fontSize="15px">
          {own === 0 ? "in the usual words; write your own here" : `${counted(own, "text")} of your own`}
        </Text>
      </chakra.summary>
      {keys.map((key) => (
        <Flex key={key} gap="3" mt="2" align="start" wrap="wrap">
          <Text width="230px" pt="1.5" fontSize="15.5px">
            {replyOf(key).when}
          </Text>
          <Box flex="1" minW="260px">
            <TemplateField
              label={replyOf(key).when}
              value={replies[key] ?? ""}
              variables={replyOf(key).variables}
              placeholder={replyOf(key).usual}
              onSet={(text) => set(key, text)}
            />
          </Box>
        </Flex>
      ))}
    </chakra.details>
  );
}
