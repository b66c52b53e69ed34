"use client";
import { Box } from "@chakra-ui/react";

/** Where the preview will be, while it is loaded: of its size, so that nothing moves when it comes. */
export const PreviewPlace = () => (
  <Box position={{ lg: "sticky" }} top="68px" alignSelf="start" aria-hidden="true">
    <Box
      borderRadius="10px"
      borderWidth="1px"
      borderColor="line"
      css={{ aspectRatio: "16 / 9" }}
      backgroundImage="url(/studio.svg)"
      backgroundSize="cover"
    />
  </Box>
);
