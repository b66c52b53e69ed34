"use client";
import { Button, Flex, Text } from "@chakra-ui/react";

/** What stands where there is nothing yet: what to do, and a few that work as they are. */
export const BeginWith = ({ words, offer, onBegin }: Readonly<{ words: string; offer: string; onBegin: () => void }>) => (
  <Flex bg="raised" borderRadius="10px" p="4" gap="4" align="center" wrap="wrap">
    <Text flex="1" minW="24ch">
      {words}
    </Text>
    <Button variant="outline" fontWeight="700" onClick={onBegin}>
      {offer}
    </Button>
  </Flex>
);
