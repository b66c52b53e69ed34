"use client";
import { Text } from "@chakra-ui/react";

/** What is wrong with a number, below it, while it is being typed. */
export const NumberProblem = ({ id, problem }: Readonly<{ id: string; problem: string }>) =>
  problem === "" ? null : (
    <Text
      as="span"
      id={id}
      role="alert"
      position="absolute"
      left="0"
      top="calc(100% + 4px)"
      zIndex="2"
      bg="brick.solid"
      color="brick.contrast"
      fontSize="14px"
      fontWeight="600"
      lineHeight="1.3"
      px="2"
      py="1"
      borderRadius="6px"
    >
      {problem}
    </Text>
  );
