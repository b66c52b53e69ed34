"use client";
import { chakra } from "@chakra-ui/react";
import type { ReactNode } from "react";

/** One of several to choose from, as a tile that shows what it is. */
export function RadioTile({
  group,
  value,
  checked,
  onPick,
  centred = false,
  children,
}: Readonly<{ group: string; value: string; checked: boolean; onPick: () => void; centred?: boolean; children: ReactNode }>) {
  return (
    <chakra.label
      display="block"
      px={centred ? "2" : "3"}
      py="2"
      textAlign={centred ? "center" : "left"}
      fontSize="15px"
      borderWidth="1px"
      borderColor={checked ? "ochre.solid" : "line"}
      bg={checked ? "blank" : "transparent"}
      borderRadius="8px"
      cursor="pointer"
      _hover={{ borderColor: "ochre.solid" }}
      css={{ "&:has(:focus-visible)": { outline: "3px solid", outlineColor: "slateText", outlineOffset: "2px" } }}
    >
      <chakra.input
        type="radio"
        name={group}
        value={value}
        checked={checked}
        onChange={onPick}
        position="absolute"
        opacity="0"
        width="1px"
        height="1px"
      />
      {children}
    </chakra.label>
  );
}
