"use client";
import { chakra } from "@chakra-ui/react";
import { useEffect, useRef } from "react";

/** What a row of a list is called, written in the row itself. `fresh`: just added, so the cursor is in it with all of it chosen. */
export function RowName({
  label,
  value,
  most,
  fresh = false,
  onSet,
}: Readonly<{ label: string; value: string; most: number; fresh?: boolean; onSet: (name: string) => void }>) {
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (!fresh) return;
    field.current?.focus();
    field.current?.select();
  }, [fresh]);
  return (
    <chakra.input
      ref={field}
      aria-label={label}
      value={value}
      maxLength={most}
      flex="1"
      minW="0"
      bg="transparent"
      fontWeight="700"
      px="1"
      onChange={(e) => onSet(e.currentTarget.value)}
    />
  );
}
