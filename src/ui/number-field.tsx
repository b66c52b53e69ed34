"use client";
import { chakra } from "@chakra-ui/react";
import { useId } from "react";
import { NumberProblem } from "./number-problem";
import { useNumberText } from "./number-text";

/** A number within a sentence. What is not allowed is told, and the last good value stays. */
export function NumberField({
  label,
  value,
  min,
  max,
  scale = 1,
  unit = "",
  onSet,
}: Readonly<{ label: string; value: number; min: number; max: number; scale?: number; unit?: string; onSet: (value: number) => void }>) {
  const { text, problem, field } = useNumberText(value, { min, max, scale, unit, broken: scale > 1 }, onSet);
  const id = useId();
  return (
    <chakra.span whiteSpace="nowrap" position="relative">
      <chakra.input
        {...field}
        aria-label={label}
        aria-describedby={problem === "" ? undefined : id}
        width={`calc(${Math.max(3, text.length)}ch + 1.4em)`}
        textAlign="center"
        fontWeight="700"
        bg="blank"
        borderBottomWidth="2px"
        borderColor={problem === "" ? "ochreText" : "brickText"}
        borderRadius="4px 4px 0 0"
        minH="30px"
      />
      {unit !== "" && ` ${unit}`}
      <NumberProblem id={id} problem={problem} />
    </chakra.span>
  );
}
