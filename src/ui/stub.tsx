import { Box, Flex, type FlexProps } from "@chakra-ui/react";
import type { ReactNode } from "react";

/** A card with a perforated edge; its tear-off end holds the one main action. */
export function Stub({ children, end, ...rest }: FlexProps & { children: ReactNode; end?: ReactNode }) {
  return (
    <Flex bg="raised" borderWidth="1px" borderColor="line" borderRadius="10px" align="stretch" position="relative" minW="0" {...rest}>
      <Box flex="1" minW="0" p="4">
        {children}
      </Box>
      {end !== undefined && (
        <Flex
          borderLeftWidth="2px"
          borderLeftStyle="dashed"
          borderLeftColor="line"
          px="4"
          py="3"
          align="center"
          justify="center"
          direction="column"
          gap="2"
          position="relative"
          flexShrink="0"
          _before={{
            content: '""',
            position: "absolute",
            top: "-9px",
            left: "-9px",
            boxSize: "16px",
            bg: "ground",
            borderRadius: "full",
            borderBottomWidth: "1px",
            borderColor: "line",
          }}
          _after={{
            content: '""',
            position: "absolute",
            bottom: "-9px",
            left: "-9px",
            boxSize: "16px",
            bg: "ground",
            borderRadius: "full",
            borderTopWidth: "1px",
            borderColor: "line",
          }}
        >
          {end}
        </Flex>
      )}
    </Flex>
  );
}
