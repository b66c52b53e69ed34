"use client";
import { Box, Flex, Text } from "@chakra-ui/react";
import { useLive } from "./live";

/** How one part of the installation stands, in a line: what is the case, and what to do. Nothing while there is no such part. */
export function HealthLine({ id }: Readonly<{ id: string }>) {
  const item = useLive((s) => s.standing?.health.find((h) => h.id === id));
  if (item === undefined) return null;
  const { state, says, means, todo } = item;
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
      mb="3"
    >
      <Box
        boxSize="10px"
        borderRadius="full"
        bg={state === "good" ? "mossText" : state === "bad" ? "brickText" : "ochreText"}
        flexShrink="0"
      />
      <Text flex="1">
        {says} {means} {todo}
      </Text>
    </Flex>
  );
}
