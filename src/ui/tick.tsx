"use client";
import { Checkbox } from "@chakra-ui/react";

/** One thing that is on or off, with its words. */
export function Tick({
  label,
  value,
  onSet,
  disabled = false,
}: Readonly<{ label: string; value: boolean; onSet: (value: boolean) => void; disabled?: boolean }>) {
  return (
    <Checkbox.Root colorPalette="ochre" checked={value} disabled={disabled} onCheckedChange={(e) => onSet(e.checked === true)}>
      <Checkbox.HiddenInput />
      <Checkbox.Control />
      <Checkbox.Label>{label}</Checkbox.Label>
    </Checkbox.Root>
  );
}
