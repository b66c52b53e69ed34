"use client";
import { IconButton } from "../../../../ui/icon-button";
import { Box, Button, Flex, Input, Text } from "@chakra-ui/react";
import { ArrowDown, ArrowUp, Copy, Trash2 } from "lucide-react";
import { type Rule } from "../../../../core/rules/settings";
import { effectInWords, tierInWords, whenInWords, whenWords } from "../../../../core/rules/words";
import { Stub } from "../../../../ui/stub";
import { namesOf, type Available } from "../_effects/available";
import { RuleForm } from "./rule-form";

type CardProps = Readonly<{
  rule: Rule;
  available: Available;
  open: boolean;
  first: boolean;
  last: boolean;
  hints: readonly string[];
  onOpen: () => void;
  onSet: (part: Partial<Rule>) => void;
  onMove: (by: number) => void;
  onCopy: () => void;
  onRemove: () => void;
}>;

export function RuleCard({ rule, available, open, hints, onOpen, onSet, onMove, onCopy, onRemove, first, last }: CardProps) {
  const names = namesOf(available);
  const title = rule.name === "" ? `When ${whenWords[rule.when]}` : rule.name;
  return (
    <Stub
      data-rule={rule.id}
      opacity={rule.on ? 1 : 0.75}
      end={
        <Button
          mb={open ? "auto" : undefined}
          size="sm"
          variant={open ? "solid" : "outline"}
          colorPalette={open ? "ochre" : "plain"}
          aria-expanded={open}
          onClick={onOpen}
        >
          {open ? "Done" : "Change"}
        </Button>
      }
    >
      {open ? (
        <Flex gap="2" mb="2" align="center">
          <Input
            size="sm"
            aria-label="Name of the rule"
            autoFocus
            onFocus={(e) => e.currentTarget.select()}
            value={rule.name}
            placeholder={title}
            maxLength={80}
            fontWeight="700"
            onChange={(e) => onSet({ name: e.currentTarget.value })}
          />
          <Button size="xs" variant="outline" aria-pressed={rule.on} onClick={() => onSet({ on: !rule.on })}>
            {rule.on ? "On" : "Off"}
          </Button>
          <IconButton label="Earlier" disabled={first} onClick={() => onMove(-1)}>
            <ArrowUp size={15} />
          </IconButton>
          <IconButton label="Later" disabled={last} onClick={() => onMove(1)}>
            <ArrowDown size={15} />
          </IconButton>
          <IconButton label="Make another like it" onClick={onCopy}>
            <Copy size={15} />
          </IconButton>
          <IconButton label="Take this rule out" onClick={onRemove}>
            <Trash2 size={15} />
          </IconButton>
        </Flex>
      ) : (
        <Text fontWeight="700">
          {title}
          {!rule.on && (
            <Text as="span" color="inkSoft" fontWeight="400">
              {" "}
              · switched off
            </Text>
          )}
        </Text>
      )}
      {open ? (
        <RuleForm rule={rule} available={available} onSet={onSet} />
      ) : (
        <RuleInWords rule={rule} available={available} names={names} />
      )}
      {hints.map((hint) => (
        <Box key={hint} mt="2" bg="note" borderRadius="6px" px="3" py="1.5" fontSize="15px" data-hint="rule">
          {hint}
        </Box>
      ))}
    </Stub>
  );
}

function RuleInWords({ rule, available, names }: Readonly<{ rule: Rule; available: Available; names: ReturnType<typeof namesOf> }>) {
  return (
    <Box fontSize="15.5px" color="inkSoft">
      <Text>When {whenInWords(rule)}:</Text>
      {rule.tiers.map((tier, i) => {
        const at = tierInWords(rule, tier, available.home);
        return (
          <Text key={i} pl="3">
            {rule.tiers.length > 1 || (at !== "" && at !== "any amount") ? <b>{at}: </b> : null}
            {tier.effects.map((d) => effectInWords(d, rule, names)).join(", then ") || "nothing yet"}
          </Text>
        );
      })}
    </Box>
  );
}
