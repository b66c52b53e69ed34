"use client";
import { Box, Flex, Stack, Text } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { When } from "../ui/when";
import type { RecordRow } from "./shown";

/** What a game kept, newest first, a line each with its time. `rows` is null until it is read. */
export function HistoryList({
  title,
  empty,
  rows,
  most = 100,
  end,
  children,
}: Readonly<{
  title: string;
  empty: string;
  rows: readonly RecordRow[] | null;
  most?: number;
  /** What stands behind the time of a line. */
  end?: (row: RecordRow) => ReactNode;
  children: (row: RecordRow) => ReactNode;
}>) {
  return (
    <Box>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="2">
        {title}
      </Text>
      {rows?.length === 0 && <Text color="inkSoft">{empty}</Text>}
      <Stack gap="1" role="list" aria-label={title} maxH="480px" overflowY="auto" tabIndex={(rows?.length ?? 0) > 6 ? 0 : undefined}>
        {rows?.slice(0, most).map((row) => (
          <Flex
            key={row.id}
            role="listitem"
            gap="3"
            fontSize="15.5px"
            borderBottomWidth="1px"
            borderColor="line"
            py="1"
            align="center"
            wrap="wrap"
          >
            {children(row)}
            <Text color="inkSoft">
              <When atMs={row.fromMs} />
            </Text>
            {end?.(row)}
          </Flex>
        ))}
      </Stack>
    </Box>
  );
}
