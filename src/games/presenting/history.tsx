"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { When } from "../../ui/when";
import type { HistoryProps } from "../shown";
import { useRecords } from "../use-records";

type Body = Readonly<{ name?: string; page?: string; topic?: string; by?: string }>;

/** Whom one presented, with their pages; and once more in a click. */
export function PresentingHistory({ view, load, command }: HistoryProps) {
  const records = useRecords(load, ["presented"], JSON.stringify(view?.["person"] ?? null));
  const { presented = [] } = records ?? {};
  return (
    <Box>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="2">
        Who was presented
      </Text>
      {records !== null && presented.length === 0 && (
        <Text color="inkSoft">Nobody yet. Whoever is presented stands here, with their page.</Text>
      )}
      <Stack
        gap="1"
        role="list"
        aria-label="Who was presented"
        maxH="480px"
        overflowY="auto"
        tabIndex={presented.length > 6 ? 0 : undefined}
      >
        {presented.slice(0, 100).map((r) => {
          // What the presenting's own rules wrote.
          const { name = "", page = "", by = "" } = r.body as Body;
          return (
            <Flex
              key={r.id}
              role="listitem"
              gap="3"
              fontSize="15.5px"
              borderBottomWidth="1px"
              borderColor="line"
              py="1"
              align="center"
              wrap="wrap"
            >
              <Text fontWeight="600" minW="150px">
                <bdi>{name}</bdi>
              </Text>
              <Text flex="1" color="inkSoft" minW="180px" overflowWrap="anywhere">
                {page}
                {by === "" ? "" : ` · by ${by}`}
              </Text>
              <Text color="inkSoft">
                <When atMs={r.fromMs} />
              </Text>
              <Button
                size="xs"
                variant="outline"
                px="2"
                onClick={() => void command({ do: "present", name }, `${name} is being looked for.`)}
              >
                Again
              </Button>
            </Flex>
          );
        })}
      </Stack>
    </Box>
  );
}
