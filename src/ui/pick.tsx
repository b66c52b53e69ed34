"use client";
import { chakra } from "@chakra-ui/react";

export type Option = Readonly<{ value: string; words: string }>;
/** A choice among few: the browser's own list, in our look. */
export function Pick({
  label,
  value,
  options,
  onSet,
  width,
}: Readonly<{ label: string; value: string; options: readonly Option[]; onSet: (value: string) => void; width?: string }>) {
  return (
    <chakra.select
      aria-label={label}
      value={value}
      onChange={(e) => onSet(e.currentTarget.value)}
      minH="36px"
      px="2"
      maxW="100%"
      borderWidth="1px"
      borderColor="line"
      borderRadius="8px"
      bg="ground"
      fontSize="15px"
      {...(width === undefined ? {} : { width })}
    >
      {options.some((o) => o.value === value) ? null : <option value={value}>choose…</option>}
      {options.map((o) => (
        <option key={o.value} value={o.value}>
          {o.words}
        </option>
      ))}
    </chakra.select>
  );
}
