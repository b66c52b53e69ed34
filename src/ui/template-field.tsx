"use client";
import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import { useId, useRef } from "react";
import { cut } from "../core/kernel/text";
import { checkTemplate, fillTemplate, type Values, withChip } from "../core/words/template";

const examples: Values = {
  viewer: "mossy_teapot",
  channel: "Saltmarsh Kiln",
  amount: "5.00 EUR",
  months: 7,
  count: 5,
  viewers: 30,
  text: "lovely rim",
  recipient: "quietferry",
  reaction: "sherd",
  game: "Old Spall",
};

/** A text with variables: they are picked as chips, an example stands below, and what can't be saved is told. */
export function TemplateField({
  label,
  value,
  variables,
  onSet,
  placeholder = "",
}: Readonly<{ label: string; value: string; variables: readonly string[]; onSet: (value: string) => void; placeholder?: string }>) {
  const field = useRef<HTMLInputElement>(null);
  const id = useId();
  const checked = checkTemplate(value, variables);
  const put = (name: string): void => {
    const at = field.current?.selectionStart ?? value.length;
    onSet(cut(withChip(value, at, name), 300));
    setTimeout(() => {
      field.current?.focus();
      field.current?.setSelectionRange(at + name.length + 2, at + name.length + 2);
    });
  };
  const problem = checked.ok
    ? ""
    : checked.refusal.code === "text/unknown-variable"
      ? `“${String(checked.refusal.facts["name"])}” is no variable here.`
      : "A brace is missing or one too many.";
  return (
    <Box flex="1" minW="240px">
      <chakra.input
        ref={field}
        aria-label={label}
        aria-invalid={problem !== ""}
        aria-describedby={id}
        value={value}
        maxLength={300}
        placeholder={placeholder}
        autoComplete="off"
        width="100%"
        minH="34px"
        px="2"
        borderWidth="1px"
        borderColor={problem === "" ? "line" : "brickText"}
        borderRadius="6px"
        bg="ground"
        fontSize="15px"
        onChange={(e) => onSet(e.currentTarget.value)}
      />
      <Flex gap="1.5" mt="1" align="center" wrap="wrap">
        {variables.map((name) => (
          <chakra.button
            key={name}
            type="button"
            aria-label={`Put in: ${name}`}
            onClick={() => put(name)}
            fontSize="14px"
            px="2"
            borderRadius="full"
            bg="blank"
            fontWeight="600"
            cursor="pointer"
            minH="24px"
          >
            {name}
          </chakra.button>
        ))}
        <Text id={id} fontSize="14px" color={problem === "" ? "inkSoft" : "brickText"} role={problem === "" ? undefined : "alert"}>
          {problem !== "" ? problem : value === "" ? "" : `→ ${fillTemplate(value, examples)}`}
        </Text>
      </Flex>
    </Box>
  );
}
