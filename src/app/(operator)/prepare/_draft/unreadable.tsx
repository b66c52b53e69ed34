"use client";
import { Box, Heading, Text } from "@chakra-ui/react";

/** Instead of an editor, where this version of Izzam can't read the draft: an empty one would be saved over it. */
export function Unreadable({ name, why }: Readonly<{ name: string; why: string }>) {
  return (
    <Box role="alert" maxW="62ch" mx="auto" my="10" p="6" bg="raised" borderRadius="10px" borderWidth="2px" borderColor="brickText">
      <Heading as="h1" size="lg" mb="3">
        {name} is kept, but can’t be opened
      </Heading>
      <Text mb="3">{`${why[0]?.toUpperCase() ?? ""}${why.slice(1)}.`}</Text>
      <Text>
        Nothing of it was changed, and it can’t be saved over. Start the version of Izzam that stored it, or bring back a backup from
        before. Everything else works as it did.
      </Text>
    </Box>
  );
}
