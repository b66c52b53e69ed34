"use client";
import { Text } from "@chakra-ui/react";

/** Why what was just tried did not work, beside it; nothing where it did. */
export function Trouble({ words, mt = "0" }: Readonly<{ words: string; mt?: string }>) {
  return words === "" ? null : (
    <Text role="alert" color="brickText" fontWeight="600" mt={mt}>
      {words}
    </Text>
  );
}
