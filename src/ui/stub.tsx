import { Box, Flex, type FlexProps } from "@chakra-ui/react";
import type { ReactNode } from "react";

/** A card with a perforated edge; its tear-off end holds the one main action. `stacks`: the end stands below where it is narrow. */
export function Stub({ children, end, stacks = false, ...rest }: FlexProps & { children: ReactNode; end?: ReactNode; stacks?: boolean }) {
  const wide = (value: string): string | Readonly<{ base: string; sm: string }> => (stacks ? { base: "0", sm: value } : value);
  return (
    <Flex
      bg="raised"
      borderWidth="1px"
      borderColor="line"
      borderRadius="10px"
      align="stretch"
      position="relative"
      minW="0"
      direction={stacks ? { base: "column", sm: "row" } : "row"}
      {...rest}
    >
      <Box flex="1" minW="0" p="4">
        {children}
      </Box>
      {end !== undefined && (
        <Flex
          borderLeftWidth={wide("2px")}
          borderTopWidth={stacks ? { base: "2px", sm: "0" } : "0"}
          borderTopStyle="dashed"
          borderTopColor="line"
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
            boxSize: wide("16px"),
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
            boxSize: wide("16px"),
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
