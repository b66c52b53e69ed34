"use client";
import { Box, chakra, Checkbox, Popover, Portal, Stack, Text } from "@chakra-ui/react";
import { type ReactNode, useId } from "react";
import { roles, type Role, roleWords } from "../core/signals/names";
import { currencyDigits } from "../core/signals/money-words";
import { count, type Blank as BlankPart } from "../core/words/sentence";
import { NumberProblem } from "./number-problem";
import { type NumberLimits, useNumberText } from "./number-text";

/**
 * A blank in a sentence: tab or click into it, type or choose, and everything follows at once. What is
 * not allowed is told beside it; the last good value stays.
 */
export type BlankProps = Readonly<{
  blank: BlankPart;
  value: unknown;
  onChange: (value: unknown) => void;
  emotes?: ReactNode;
}>;

const look = {
  bg: "blank",
  borderBottomWidth: "2px",
  borderColor: "ochreText",
  borderRadius: "4px 4px 0 0",
  px: "1.5",
  py: "0.5",
  fontWeight: 700,
  color: "ink",
  fontSize: "inherit",
  lineHeight: "1.3",
  fontFamily: "inherit",
  cursor: "pointer",
  _hover: { bg: "ochre.subtle" },
  verticalAlign: "baseline",
} as const;

export function Blank(props: BlankProps) {
  switch (props.blank.field.kind) {
    case "whole":
    case "seconds":
    case "money":
      return <NumberBlank {...props} />;
    case "text":
      return <TextBlank {...props} />;
    case "toggle":
    case "choice":
      return <ChoiceBlank {...props} />;
    case "roles":
      return <RolesBlank {...props} />;
    case "emotes":
      return <OpenBlank {...props}>{props.emotes}</OpenBlank>;
  }
}

function NumberBlank({ blank, value, onChange }: BlankProps) {
  const { field } = blank;
  const limits = limitsOf(field);
  const { text, problem, field: input } = useNumberText(Number(value), limits, onChange);
  const id = useId();
  return (
    <Box as="span" position="relative" whiteSpace="nowrap">
      <chakra.input
        {...look}
        {...input}
        cursor="text"
        aria-label={blank.label}
        aria-describedby={problem === "" ? undefined : id}
        width={`calc(${Math.max(1, text.length)}ch + 1.1em)`}
        textAlign="center"
        fontVariantNumeric="tabular-nums"
        borderColor={problem === "" ? "ochreText" : "brickText"}
      />
      {limits.unit !== "" && <span> {limits.unit}</span>}
      <NumberProblem id={id} problem={problem} />
    </Box>
  );
}

function limitsOf(field: BlankPart["field"]): NumberLimits {
  if (field.kind === "seconds") return { min: field.minMs, max: field.maxMs, scale: 1_000, broken: true, unit: "s" };
  if (field.kind === "money") {
    const digits = currencyDigits(field.currency);
    return {
      min: field.min,
      max: field.max,
      scale: 10 ** digits,
      broken: digits > 0,
      unit: field.currency,
      inWords: (n) => n.toFixed(digits),
    };
  }
  return field.kind === "whole" ? { min: field.min, max: field.max, unit: "", inWords: count } : { min: 0, max: 0, unit: "" };
}

function TextBlank({ blank, value, onChange }: BlankProps) {
  const most = blank.field.kind === "text" ? blank.field.most : 80;
  const text = String(value ?? "");
  return (
    <chakra.input
      {...look}
      cursor="text"
      aria-label={blank.label}
      value={text}
      maxLength={most}
      autoComplete="off"
      placeholder={blank.field.kind === "text" ? blank.field.placeholder : ""}
      width={`calc(${Math.max(8, Math.min(46, (text === "" && blank.field.kind === "text" ? blank.field.placeholder : text).length + 1))}ch + 1em)`}
      maxW="100%"
      onChange={(e) => onChange(e.currentTarget.value)}
    />
  );
}

function ChoiceBlank({ blank, value, onChange }: BlankProps) {
  const { field } = blank;
  const options =
    field.kind === "toggle"
      ? [
          { value: "on", words: field.on },
          { value: "off", words: field.off },
        ]
      : field.kind === "choice"
        ? field.options
        : [];
  const now = field.kind === "toggle" ? (value === true ? "on" : "off") : String(value);
  return (
    <chakra.select
      {...look}
      aria-label={blank.label}
      value={now}
      css={{ appearance: "none", fieldSizing: "content", maxWidth: "100%" }}
      onChange={(e) => onChange(field.kind === "toggle" ? e.currentTarget.value === "on" : e.currentTarget.value)}
    >
      {options.map((o) => (
        <option key={o.value} value={o.value}>
          {o.words}
        </option>
      ))}
    </chakra.select>
  );
}

/** A blank that opens a small sheet of its own. */
function OpenBlank({ blank, children }: BlankProps & { children?: ReactNode }) {
  return (
    <Popover.Root positioning={{ placement: "bottom-start" }} lazyMount unmountOnExit>
      <Popover.Trigger asChild>
        <chakra.button type="button" {...look} aria-label={`${blank.label}: ${blank.text}`}>
          {blank.text}
        </chakra.button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content width="auto" maxW="360px" p="4" aria-label={blank.label}>
            {children}
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

function RolesBlank(props: BlankProps) {
  const chosen = Array.isArray(props.value) ? (props.value as Role[]) : [];
  const everyone = chosen.includes("viewer");
  const set = (role: Role, on: boolean): void => {
    const next = roles.filter((r) => (r === role ? on : chosen.includes(r)));
    props.onChange(next.length === 0 ? ["streamer"] : next);
  };
  return (
    <OpenBlank {...props}>
      <Stack gap="3">
        {roles.map((role) => (
          <Checkbox.Root
            key={role}
            colorPalette="ochre"
            checked={everyone || chosen.includes(role)}
            disabled={everyone && role !== "viewer"}
            onCheckedChange={(e) => set(role, e.checked === true)}
          >
            <Checkbox.HiddenInput />
            <Checkbox.Control />
            <Checkbox.Label>{roleWords[role]}</Checkbox.Label>
          </Checkbox.Root>
        ))}
        {everyone && (
          <Text color="inkSoft" fontSize="14px">
            Everyone includes all the others.
          </Text>
        )}
      </Stack>
    </OpenBlank>
  );
}
