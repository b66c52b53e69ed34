"use client";
import { Box, Flex, Stack, Text } from "@chakra-ui/react";
import { counted, ordinal } from "../../core/words/sentence";
import { When } from "../../ui/when";
import type { HistoryProps } from "../shown";
import { useRecords } from "../use-records";

type Body = Readonly<{ shows?: number; days?: number | null }>;

/** Who was greeted lately: new, back, or for the how-manieth time. */
export function GreetingHistory({ view, load }: HistoryProps) {
  const records = useRecords(load, ["greeted"], String(view?.["greeted"]));
  const { greeted = [] } = records ?? {};
  return (
    <Box>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="2">
        Who was greeted
      </Text>
      {records !== null && greeted.length === 0 && <Text color="inkSoft">Nobody yet. Whoever writes first in a show stands here.</Text>}
      <Stack gap="1" role="list" aria-label="Who was greeted" maxH="480px" overflowY="auto" tabIndex={greeted.length > 8 ? 0 : undefined}>
        {greeted.slice(0, 100).map((r) => {
          // What the greeting's own rules wrote.
          const { shows = 1, days = null } = r.body as Body;
          return (
            <Flex key={r.id} role="listitem" gap="3" fontSize="15.5px" borderBottomWidth="1px" borderColor="line" py="1">
              <Text fontWeight="600" minW="160px">
                <bdi>{r.viewer?.name ?? "somebody"}</bdi>
              </Text>
              <Text flex="1" color="inkSoft">
                {days === null
                  ? "for the first time"
                  : `for the ${ordinal(shows)} time${days >= 2 ? `, after ${counted(days, "day")}` : ""}`}
              </Text>
              <Text color="inkSoft">
                <When atMs={r.fromMs} />
              </Text>
            </Flex>
          );
        })}
      </Stack>
    </Box>
  );
}
