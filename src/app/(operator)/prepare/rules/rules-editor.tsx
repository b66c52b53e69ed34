"use client";
import { Box, Button, chakra, Flex, Grid, Input, Stack, Text } from "@chakra-ui/react";
import { ArrowDown, ArrowUp, Copy, Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { variablesOf } from "../../../../core/rules/deeds";
import { newRule, type Rule, type Rulebook, rulebookSchema, type When, whens } from "../../../../core/rules/settings";
import {
  amountInWords,
  deedInWords,
  ruleHints,
  tierInWords,
  unitOf,
  whatWords,
  whenInWords,
  whenWords,
} from "../../../../core/rules/words";
import type { GameDraft } from "../../../../server/ports/operator-store";
import { Blank } from "../../../../ui/blank";
import { NumberField } from "../../../../ui/number-field";
import { Pick } from "../../../../ui/pick";
import { Stub } from "../../../../ui/stub";
import { DraftBar } from "../_draft/draft-bar";
import { useDraft } from "../_draft/use-draft";
import { DeedList } from "../_deeds/deed-list";
import { bookFacts, namesOf, type Parts } from "../_deeds/parts";
import { House } from "./house";
import { WhatIf } from "./what-if";

/** The rulebook: what answers what, as sentences; beside it, what would happen if. */
export function RulesEditor({ draft: first, parts }: Readonly<{ draft: GameDraft; parts: Parts }>) {
  const draft = useDraft(first.id, first);
  // The server's schema has accepted what it handed over, and every change here keeps to its shape.
  const book = draft.settings as Rulebook;
  const [open, setOpen] = useState<string | null>(null);
  const here: Parts = { ...parts, lanes: book.lanes, home: book.money.home };
  const put = (rules: Rule[]): void => draft.change({ ...book, rules });
  const set = (id: string, part: Partial<Rule>): void => put(book.rules.map((r) => (r.id === id ? { ...r, ...part } : r)));
  const hints = ruleHints(book, bookFacts(here));
  const problem = rulebookSchema.safeParse(book);
  const add = (when: When): void => {
    const id = `r${Date.now().toString(36)}`;
    put([...book.rules, newRule(id, when)]);
    setOpen(id);
  };
  const move = (i: number, by: number): void => {
    const next = [...book.rules];
    const [taken] = next.splice(i, 1);
    if (taken !== undefined) next.splice(i + by, 0, taken);
    put(next);
  };
  return (
    <Box>
      <DraftBar
        id={first.id}
        draft={draft}
        thing="rulebook"
        where=""
        lead={
          <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="19px">
            Rules
          </Text>
        }
      />
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 400px" }} gap="7" px="5" py="4" maxW="1480px" mx="auto">
        <Box>
          <Text color="inkSoft" mb="3">
            When something happens on the channel, these answer, each for itself. They hold from the moment you publish them.
          </Text>
          {!problem.success && (
            <Box bg="blank" borderRadius="8px" px="4" py="2.5" mb="3" role="alert" fontSize="15.5px">
              <b>Not saved yet.</b> {problem.error.issues[0]?.message}
            </Box>
          )}
          <Stack gap="3" role="list" aria-label="Rules">
            {book.rules.map((rule, i) => (
              <RuleCard
                key={rule.id}
                rule={rule}
                parts={here}
                open={open === rule.id}
                hints={hints.filter((h) => h.ruleId === rule.id).map((h) => h.text)}
                onOpen={() => setOpen(open === rule.id ? null : rule.id)}
                onSet={(part) => set(rule.id, part)}
                onMove={(by) => move(i, by)}
                first={i === 0}
                last={i === book.rules.length - 1}
                onCopy={() => {
                  const id = `r${Date.now().toString(36)}`;
                  put([
                    ...book.rules.slice(0, i + 1),
                    { ...rule, id, name: `${rule.name} again`.slice(0, 80) },
                    ...book.rules.slice(i + 1),
                  ]);
                  setOpen(id);
                }}
                onRemove={() => put(book.rules.filter((r) => r.id !== rule.id))}
              />
            ))}
          </Stack>
          {book.rules.length === 0 && (
            <Text bg="raised" borderRadius="10px" p="4">
              There is no rule yet. Add one: choose what it answers, then what happens.
            </Text>
          )}
          <Flex mt="4" gap="2" align="center" wrap="wrap">
            <Text fontWeight="700">Add a rule: when</Text>
            {whens.map((when) => (
              <Button key={when} size="xs" variant="outline" bg="ground" onClick={() => add(when)}>
                <Plus size={14} aria-hidden="true" /> {whenWords[when]}
              </Button>
            ))}
          </Flex>
        </Box>
        <Stack gap="6">
          <WhatIf book={book} parts={here} />
          <House book={book} onChange={(part) => draft.change({ ...book, ...part })} />
        </Stack>
      </Grid>
    </Box>
  );
}

type CardProps = Readonly<{
  rule: Rule;
  parts: Parts;
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

function RuleCard({ rule, parts, open, hints, onOpen, onSet, onMove, onCopy, onRemove, first, last }: CardProps) {
  const names = namesOf(parts);
  const title = rule.name === "" ? `When ${whenWords[rule.when]}` : rule.name;
  return (
    <Stub
      role="listitem"
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
            value={rule.name}
            placeholder={title}
            maxLength={80}
            fontWeight="700"
            onChange={(e) => onSet({ name: e.currentTarget.value })}
          />
          <Button size="xs" variant="outline" aria-pressed={rule.on} onClick={() => onSet({ on: !rule.on })}>
            {rule.on ? "On" : "Off"}
          </Button>
          <Button size="xs" variant="ghost" px="1" aria-label="Earlier" disabled={first} onClick={() => onMove(-1)}>
            <ArrowUp size={15} />
          </Button>
          <Button size="xs" variant="ghost" px="1" aria-label="Later" disabled={last} onClick={() => onMove(1)}>
            <ArrowDown size={15} />
          </Button>
          <Button size="xs" variant="ghost" px="1" aria-label="Make another like it" onClick={onCopy}>
            <Copy size={15} />
          </Button>
          <Button size="xs" variant="ghost" px="1" aria-label="Take this rule out" onClick={onRemove}>
            <Trash2 size={15} />
          </Button>
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
      {open ? <RuleForm rule={rule} parts={parts} onSet={onSet} /> : <RuleInWords rule={rule} parts={parts} names={names} />}
      {hints.map((hint) => (
        <Box key={hint} mt="2" bg="note" borderRadius="6px" px="3" py="1.5" fontSize="15px" data-hint="rule">
          {hint}
        </Box>
      ))}
    </Stub>
  );
}

function RuleInWords({ rule, parts, names }: Readonly<{ rule: Rule; parts: Parts; names: ReturnType<typeof namesOf> }>) {
  return (
    <Box fontSize="15.5px" color="inkSoft">
      <Text>When {whenInWords(rule)}:</Text>
      {rule.tiers.map((tier, i) => {
        const at = tierInWords(rule, tier, parts.home);
        return (
          <Text key={i} pl="3">
            {rule.tiers.length > 1 || (at !== "" && at !== "any amount") ? <b>{at}: </b> : null}
            {tier.deeds.map((d) => deedInWords(d, rule.when, names)).join(", then ") || "nothing yet"}
          </Text>
        );
      })}
    </Box>
  );
}

function RuleForm({ rule, parts, onSet }: Readonly<{ rule: Rule; parts: Parts; onSet: (part: Partial<Rule>) => void }>) {
  const unit = unitOf(rule.when);
  const variables = variablesOf[rule.when] ?? [];
  const putTier = (i: number, part: Partial<Rule["tiers"][number]>): void =>
    onSet({ tiers: rule.tiers.map((t, k) => (k === i ? { ...t, ...part } : t)) });
  const { words, time } = rule;
  return (
    <Stack gap="3" fontSize="15.5px" lineHeight="2">
      <Box>
        When{" "}
        <Pick
          label="What it answers"
          value={rule.when}
          options={whens.map((w) => ({ value: w, words: whenWords[w] }))}
          onSet={(when) => onSet({ when: when as When, ...(when === "happened" ? { what: "boss/fell" } : {}) })}
        />
        {rule.when === "happened" && (
          <>
            :{" "}
            <Pick
              label="What came to pass"
              value={rule.what}
              options={Object.entries(whatWords).map(([value, w]) => ({ value, words: w }))}
              onSet={(what) => onSet({ what })}
            />
          </>
        )}
        {rule.when === "reaction" && (
          <>
            , of{" "}
            <chakra.input
              aria-label="Which kind of reaction; empty for any"
              value={rule.reaction}
              placeholder="any kind"
              maxLength={40}
              width="130px"
              px="2"
              minH="30px"
              borderWidth="1px"
              borderColor="line"
              borderRadius="6px"
              bg="ground"
              onChange={(e) => onSet({ reaction: e.currentTarget.value })}
            />
          </>
        )}
        {rule.when === "timer" && (
          <>
            , every{" "}
            <NumberField
              label="How often"
              value={rule.everyMs}
              min={10_000}
              max={86_400_000}
              scale={60_000}
              unit="min"
              onSet={(everyMs) => onSet({ everyMs })}
            />
          </>
        )}
        , by{" "}
        <Blank
          blank={{
            path: "roles",
            label: "By whom",
            text: rule.roles.includes("viewer") ? "everyone" : `${rule.roles.length} roles`,
            field: { kind: "roles" },
          }}
          value={rule.roles}
          onChange={(roles) => onSet({ roles: roles as Rule["roles"] })}
        />
        ,{" "}
        <Pick
          label="Words in the text"
          value={words.how}
          options={[
            { value: "any", words: "whatever the text" },
            { value: "contains", words: "with one of these in the text" },
            { value: "is", words: "with a text of just one of these" },
          ]}
          onSet={(how) => onSet({ words: { ...words, how: how === "contains" || how === "is" ? how : "any" } })}
        />
        {words.how !== "any" && (
          <chakra.input
            ml="1.5"
            aria-label="Words, set apart by commas"
            value={words.list.join(", ")}
            placeholder="words, set apart by commas"
            px="2"
            minH="30px"
            width="220px"
            borderWidth="1px"
            borderColor="line"
            borderRadius="6px"
            bg="ground"
            onChange={(e) =>
              onSet({
                words: {
                  ...words,
                  list: e.currentTarget.value
                    .split(",")
                    .map((w) => w.replace(/^\s+/, ""))
                    .slice(0, 30),
                },
              })
            }
          />
        )}
        ,{" "}
        <Pick
          label="At which time"
          value={time.how}
          options={[
            { value: "any", words: "at any time" },
            { value: "show", words: "only during a show" },
          ]}
          onSet={(how) => onSet({ time: { ...time, how: how === "show" ? "show" : "any" } })}
        />
        {time.how === "show" && (
          <>
            , from minute{" "}
            <NumberField
              label="From minute"
              value={time.fromMin}
              min={0}
              max={2_880}
              onSet={(fromMin) => onSet({ time: { ...time, fromMin } })}
            />{" "}
            to{" "}
            <NumberField
              label="To minute, 0 for the end"
              value={time.toMin}
              min={0}
              max={2_880}
              onSet={(toMin) => onSet({ time: { ...time, toMin } })}
            />{" "}
            {time.toMin === 0 ? "(its end)" : ""}
          </>
        )}
        . Then it rests for{" "}
        <NumberField
          label="Rests for"
          value={rule.cooldownMs}
          min={0}
          max={3_600_000}
          scale={1000}
          unit="s"
          onSet={(cooldownMs) => onSet({ cooldownMs })}
        />
        .
      </Box>
      {rule.tiers.map((tier, i) => (
        <Box key={i} data-tier={i}>
          {unit !== "" && (
            <Flex gap="2" align="center" mb="1" wrap="wrap">
              <b>For</b>
              <Pick
                label="How the amount counts"
                value={tier.at}
                options={[
                  { value: "least", words: "at least" },
                  { value: "exact", words: "exactly" },
                ]}
                onSet={(at) => putTier(i, { at: at === "exact" ? "exact" : "least" })}
              />
              <NumberField
                label={`Amount: ${amountInWords(rule.when, tier.amount, parts.home)}`}
                value={tier.amount}
                min={0}
                max={Number.MAX_SAFE_INTEGER}
                scale={unit === "money" ? 100 : 1}
                unit={unit === "money" ? parts.home : unit === "value" ? "worth of reactions" : unit}
                onSet={(amount) => putTier(i, { amount })}
              />
              {rule.tiers.length > 1 && (
                <Button
                  size="xs"
                  variant="ghost"
                  px="1"
                  aria-label="Take this tier out"
                  onClick={() => onSet({ tiers: rule.tiers.filter((_, k) => k !== i) })}
                >
                  <Trash2 size={15} />
                </Button>
              )}
            </Flex>
          )}
          <DeedList
            label={`What happens${unit === "" ? "" : `, tier ${i + 1}`}`}
            deeds={tier.deeds}
            when={rule.when}
            variables={variables}
            parts={parts}
            onSet={(deeds) => putTier(i, { deeds })}
          />
        </Box>
      ))}
      {unit !== "" && rule.tiers.length < 20 && (
        <Box>
          <Button
            size="xs"
            variant="ghost"
            color="slateText"
            onClick={() => {
              const amount = Math.max(0, ...rule.tiers.map((t) => t.amount)) + (unit === "money" ? 1_000 : 10);
              onSet({ tiers: [...rule.tiers, { at: "least", amount, deeds: [] }] });
            }}
          >
            <Plus size={14} aria-hidden="true" /> Something else for a larger, or an exact, amount
          </Button>
        </Box>
      )}
    </Stack>
  );
}
