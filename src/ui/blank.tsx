"use client";
import { Box, chakra, Checkbox, Popover, Portal, Stack, Text } from "@chakra-ui/react";
import { type ReactNode, useEffect, useId, useRef, useState } from "react";
import { roles, type Role, roleWords } from "../core/signals/signal";
import { currencyDigits } from "../core/signals/money";
import { count, type Blank as BlankPart } from "../core/words/sentence";

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
  const inSeconds = field.kind === "seconds";
  const digits = field.kind === "money" ? currencyDigits(field.currency) : 0;
  const scale = inSeconds ? 1000 : 10 ** digits;
  const broken = inSeconds || digits > 0;
  const unit = inSeconds ? "s" : field.kind === "money" ? field.currency : "";
  const min =
    field.kind === "whole" ? field.min : field.kind === "seconds" ? field.minMs / 1000 : field.kind === "money" ? field.min / scale : 0;
  const max =
    field.kind === "whole" ? field.max : field.kind === "seconds" ? field.maxMs / 1000 : field.kind === "money" ? field.max / scale : 0;
  const inWords = (n: number): string => (inSeconds ? String(n) : digits > 0 ? n.toFixed(digits) : count(n));
  const shown = inWords(Number(value) / scale);
  const [text, setText] = useState(shown);
  const [problem, setProblem] = useState("");
  const typing = useRef(false);
  const id = useId();
  const before = useRef(shown);
  /** What stood here when the cursor came: a number half typed was taken too, and Escape takes that back. */
  const atFocus = useRef(value);
  useEffect(() => {
    // What is being typed stays; what was only looked at follows.
    setText((now) => (!typing.current || now === before.current ? shown : now));
    before.current = shown;
  }, [shown]);
  const problemOf = (typed: string): string | null => {
    const n = Number(typed.replace(/[,\s]/g, ""));
    if (typed.trim() === "" || !Number.isFinite(n)) return "A number goes here.";
    if (!broken && !Number.isInteger(n)) return "Whole numbers only.";
    return n < min || n > max ? `From ${min < 1 ? min : count(min)} to ${count(max)}${unit === "" ? "" : ` ${unit}`}.` : null;
  };
  const take = (typed: string): void => {
    setText(typed);
    const wrong = problemOf(typed);
    setProblem(wrong ?? "");
    if (wrong === null) onChange(Math.round(Number(typed.replace(/[,\s]/g, "")) * scale));
  };
  const step = (by: number): void => {
    const next = Math.min(max, Math.max(min, Number(value) / scale + by));
    setText(inWords(next));
    setProblem("");
    onChange(Math.round(next * scale));
  };
  return (
    <Box as="span" position="relative" whiteSpace="nowrap">
      <chakra.input
        {...look}
        cursor="text"
        inputMode="decimal"
        autoComplete="off"
        aria-label={blank.label}
        aria-invalid={problem !== ""}
        aria-describedby={problem === "" ? undefined : id}
        value={text}
        width={`calc(${Math.max(1, text.length)}ch + 1.1em)`}
        textAlign="center"
        fontVariantNumeric="tabular-nums"
        borderColor={problem === "" ? "ochreText" : "brickText"}
        onFocus={(e) => {
          typing.current = true;
          atFocus.current = value;
          e.currentTarget.select();
        }}
        onBlur={() => {
          typing.current = false;
          setText(shown);
          setProblem("");
        }}
        onChange={(e) => take(e.currentTarget.value)}
        onKeyDown={(e) => {
          if (e.key === "Enter") e.currentTarget.blur();
          if (e.key === "Escape") {
            setText(inWords(Number(atFocus.current) / scale));
            setProblem("");
            if (value !== atFocus.current) onChange(atFocus.current);
            e.stopPropagation();
          }
          if (e.key === "ArrowUp" || e.key === "ArrowDown") {
            e.preventDefault();
            step((e.key === "ArrowUp" ? 1 : -1) * (e.shiftKey ? 10 : 1));
          }
        }}
      />
      {unit !== "" && <span> {unit}</span>}
      {problem !== "" && (
        <Text
          as="span"
          id={id}
          role="alert"
          position="absolute"
          left="0"
          top="calc(100% + 4px)"
          zIndex="2"
          bg="brick.solid"
          color="brick.contrast"
          fontSize="14px"
          fontWeight="600"
          lineHeight="1.3"
          px="2"
          py="1"
          borderRadius="6px"
        >
          {problem}
        </Text>
      )}
    </Box>
  );
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
