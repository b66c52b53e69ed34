"use client";
import { chakra } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";

/** A number within a sentence. What is not allowed is marked, and the last good value stays. */
export function NumberField({
  label,
  value,
  min,
  max,
  scale = 1,
  unit = "",
  onSet,
}: Readonly<{ label: string; value: number; min: number; max: number; scale?: number; unit?: string; onSet: (value: number) => void }>) {
  const shown = String(value / scale);
  const [text, setText] = useState(shown);
  const typing = useRef(false);
  const before = useRef(shown);
  useEffect(() => {
    // What is being typed stays; what was only looked at follows.
    setText((now) => (!typing.current || now === before.current ? shown : now));
    before.current = shown;
  }, [shown]);
  const n = Math.round(Number(text.replace(",", ".")) * scale);
  const good = text.trim() !== "" && Number.isSafeInteger(n) && n >= min && n <= max;
  return (
    <chakra.span whiteSpace="nowrap">
      <chakra.input
        aria-label={label}
        aria-invalid={!good}
        inputMode="decimal"
        autoComplete="off"
        value={text}
        width={`calc(${Math.max(3, text.length)}ch + 1.4em)`}
        textAlign="center"
        fontWeight="700"
        bg="blank"
        borderBottomWidth="2px"
        borderColor={good ? "ochreText" : "brickText"}
        borderRadius="4px 4px 0 0"
        minH="30px"
        onFocus={(e) => {
          typing.current = true;
          e.currentTarget.select();
        }}
        onBlur={() => {
          typing.current = false;
          setText(shown);
        }}
        onChange={(e) => {
          const next = e.currentTarget.value;
          setText(next);
          const value_ = Math.round(Number(next.replace(",", ".")) * scale);
          if (next.trim() !== "" && Number.isSafeInteger(value_) && value_ >= min && value_ <= max) onSet(value_);
        }}
        title={good ? undefined : `From ${min / scale} to ${max / scale}${unit === "" ? "" : ` ${unit}`}.`}
      />
      {unit !== "" && ` ${unit}`}
    </chakra.span>
  );
}
