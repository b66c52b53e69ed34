import { Box, Text } from "@chakra-ui/react";
import type { ReactNode } from "react";

/** A part of the page of a show, under its heading. */
export const Part = ({ title, children }: Readonly<{ title: string; children: ReactNode }>) => (
  <Box mt="6">
    <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="18px" mb="1">
      {title}
    </Text>
    {children}
  </Box>
);
