"use client";
import { chakra } from "@chakra-ui/react";

/** A colour, by the browser's own picker. */
export function ColourField({ label, value, onSet }: Readonly<{ label: string; value: string; onSet: (value: string) => void }>) {
  return (
    <chakra.label fontWeight="700" fontSize="15px" display="block">
      {label}
      <chakra.input
        type="color"
        value={value}
        onChange={(e) => onSet(e.currentTarget.value)}
        display="block"
        mt="1"
        width="56px"
        height="36px"
        borderWidth="1px"
        borderColor="line"
        borderRadius="6px"
        bg="ground"
        cursor="pointer"
      />
    </chakra.label>
  );
}
