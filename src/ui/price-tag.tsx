import { Box, Flex, type FlexProps } from "@chakra-ui/react";
import type { ReactNode } from "react";

/** A reward's price tag: a notched end with its hole, and the price at the other end behind a perforation. */
export function PriceTag({
  price,
  points,
  chosen = false,
  dim = false,
  children,
  ...rest
}: FlexProps & { price: string; points: string; chosen?: boolean; dim?: boolean; children: ReactNode }) {
  const edge = chosen ? "ochre.solid" : "line";
  return (
    <Flex position="relative" align="stretch" minW="0" pl="16px" {...rest}>
      {/* The notched end: a square on its corner behind the card. */}
      <Box
        aria-hidden="true"
        position="absolute"
        left="5px"
        top="50%"
        boxSize="26px"
        bg="raised"
        borderWidth="1px"
        borderColor={edge}
        borderRadius="5px"
        transform="translateY(-50%) rotate(45deg)"
      />
      <Flex
        flex="1"
        minW="0"
        align="stretch"
        bg="raised"
        borderWidth="1px"
        borderColor={edge}
        borderStyle={dim ? "dashed" : "solid"}
        borderRadius="8px"
        position="relative"
      >
        <Box aria-hidden="true" position="absolute" left="-1px" top="50%" h="34px" w="4px" bg="raised" transform="translateY(-50%)" />
        <Box
          aria-hidden="true"
          position="absolute"
          left="-3px"
          top="50%"
          boxSize="9px"
          bg="ground"
          borderWidth="1px"
          borderColor="line"
          borderRadius="full"
          transform="translateY(-50%)"
        />
        <Box flex="1" minW="0" pl="3.5" pr="3" py="2">
          {children}
        </Box>
        <Flex
          direction="column"
          align="flex-end"
          justify="center"
          borderLeftWidth="2px"
          borderLeftStyle="dashed"
          borderColor="line"
          px="3"
          minW="76px"
          flexShrink="0"
        >
          <Box fontFamily="mono" fontSize="17px" fontWeight="700" color="ochreText" lineHeight="1.1">
            {price}
          </Box>
          <Box fontSize="14px" color="inkSoft" lineHeight="1.2">
            {points}
          </Box>
        </Flex>
      </Flex>
    </Flex>
  );
}
