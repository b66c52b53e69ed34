"use client";
import { Box, Button, Text } from "@chakra-ui/react";

/** Most often the database is away for a moment; then this page can't be read, and nothing else is wrong. */
export default function OperatorError({ reset }: { error: Error; reset: () => void }) {
  return (
    <Box maxW="560px" mx="auto" mt="20" p="6" role="alert">
      <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="24px" mb="2">
        This page can’t be read at the moment
      </Text>
      <Text mb="5">
        Most likely the database does not answer. Overlays go on as they are, and nothing that was accepted is lost. Izzam reconnects by
        itself.
      </Text>
      <Button
        colorPalette="ochre"
        onClick={() => {
          reset();
          location.reload();
        }}
      >
        Try again
      </Button>
    </Box>
  );
}
