"use client";
import { Box, Flex, Stack, Text } from "@chakra-ui/react";
import { When } from "../../ui/when";
import type { HistoryProps } from "../shown";
import { useRecords } from "../use-records";

type Body = Readonly<{ text?: string; how?: string }>;
const hows: Readonly<Record<string, string>> = { spoken: "spoken", shown: "shown", both: "spoken and shown" };

/** What was said lately, and by whom. */
export function VoicesHistory({ view, load }: HistoryProps) {
  const records = useRecords(load, ["spoken"], JSON.stringify(view?.["now"] ?? null));
  const { spoken = [] } = records ?? {};
  return (
    <Box>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="2">
        What was said
      </Text>
      {records !== null && spoken.length === 0 && <Text color="inkSoft">Nothing yet. What is spoken or shown stands here.</Text>}
      <Stack gap="1" role="list" aria-label="What was said" maxH="480px" overflowY="auto" tabIndex={spoken.length > 6 ? 0 : undefined}>
        {spoken.slice(0, 100).map((r) => {
          // What the voices' own rules wrote.
          const { text = "", how = "" } = r.body as Body;
          return (
            <Flex key={r.id} role="listitem" gap="3" fontSize="15.5px" borderBottomWidth="1px" borderColor="line" py="1" wrap="wrap">
              <Text fontWeight="600" minW="140px">
                <bdi>{r.viewer?.name ?? "the channel"}</bdi>
              </Text>
              <Text flex="1" minW="200px" overflowWrap="anywhere">
                {text}
              </Text>
              <Text color="inkSoft">
                {hows[how] ?? ""}, <When atMs={r.fromMs} />
              </Text>
            </Flex>
          );
        })}
      </Stack>
    </Box>
  );
}
