import { Box, Flex, Text } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { clockOf } from "../../../../../core/words/clock";

/** A part of the page of a show, under its heading. */
export const Part = ({ title, children }: Readonly<{ title: string; children: ReactNode }>) => (
  <Box mt="6">
    <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="18px" mb="1">
      {title}
    </Text>
    {children}
  </Box>
);

/** Something of a show by its clock: when into it, what, and at the end what can be done with it. */
export const ClockRow = ({ afterMs, end, children }: Readonly<{ afterMs: number; end?: ReactNode; children: ReactNode }>) => (
  <Flex as="li" listStyleType="none" gap="3" py="1" align="baseline" borderBottomWidth="1px" borderColor="line">
    <Text fontFamily="mono" fontSize="14px" color="inkSoft">
      {clockOf(Math.max(0, afterMs))}
    </Text>
    <Box flex="1" minW="0" overflowWrap="anywhere">
      {children}
    </Box>
    {end}
  </Flex>
);
