"use client";
import { Box, Flex, Text } from "@chakra-ui/react";
import type { ReactNode } from "react";

/** How something stands, in a line with a dot: `aside` is what can be done about it. */
export function StatusLine({
  id,
  state,
  colour,
  children,
  aside,
}: Readonly<{ id: string; state: string; colour: "mossText" | "ochreText" | "brickText"; children: ReactNode; aside?: ReactNode }>) {
  return (
    <Flex
      bg="note"
      borderRadius="10px"
      px="4"
      py="3"
      gap="3"
      align="center"
      role="status"
      data-testid={`${id}-line`}
      data-state={state}
      wrap="wrap"
    >
      <Box boxSize="10px" borderRadius="full" bg={colour} flexShrink="0" />
      <Text flex="1" minW="240px">
        {children}
      </Text>
      {aside}
    </Flex>
  );
}
