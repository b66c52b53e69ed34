"use client";
import { Box, chakra, Text } from "@chakra-ui/react";
import { useEffect, useRef } from "react";

/** Where the browser does not let us copy (plain HTTP from another computer): a masked field to copy from. */
export function CopyField({ label, value, onDone }: Readonly<{ label: string; value: string; onDone: () => void }>) {
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const timer = setTimeout(() => field.current?.select(), 50);
    return () => clearTimeout(timer);
  }, [value]);
  return (
    <Box mt="2">
      <Text fontSize="15px" mb="1">
        This browser does not let Izzam copy. Press Ctrl/⌘ C: it is selected, and stays hidden.
      </Text>
      <chakra.input
        ref={field}
        readOnly
        value={value}
        aria-label={label}
        width="100%"
        borderWidth="1px"
        borderColor="line"
        borderRadius="6px"
        px="2"
        minH="36px"
        bg="ground"
        css={{ WebkitTextSecurity: "disc" }}
        onFocus={(e) => e.currentTarget.select()}
        onBlur={onDone}
      />
    </Box>
  );
}
