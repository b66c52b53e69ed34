"use client";
import { chakra } from "@chakra-ui/react";

/** The first thing Tab comes to: over the bar, to what the screen is for. */
export const SkipLink = () => (
  <chakra.a
    href="#content"
    position="absolute"
    left="8px"
    top="-60px"
    zIndex="50"
    bg="ochre.solid"
    color="ochre.contrast"
    fontWeight="700"
    px="4"
    py="2"
    borderRadius="8px"
    _focus={{ top: "8px" }}
  >
    Skip to the screen
  </chakra.a>
);
