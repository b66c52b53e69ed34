"use client";
import { BeginWith } from "../begin-with";
import { starterRules } from "../../../../core/rules/starter";
import { arrayMove } from "@dnd-kit/sortable";
import { SortableList, SortableRow } from "../../../../ui/sortable";
import { Box, Button, Flex, Grid, Stack, Text } from "@chakra-ui/react";
import { Plus } from "lucide-react";
import { useSearchParams } from "next/navigation";
import { useState } from "react";
import { newRule, type Rule, type Rulebook, type When, whens } from "../../../../core/rules/settings";
import { whenWords } from "../../../../core/rules/words";
import { ruleHints } from "../../../../core/rules/hints";
import type { GameDraft } from "../../../../server/ports/operator-store";
import { DraftBar } from "../_draft/draft-bar";
import { useDraft } from "../_draft/use-draft";
import { bookFacts, type Available } from "../_effects/available";
import { ChannelRules } from "./channel-rules";
import { WhatIf } from "./what-if";
import { RuleCard } from "./rule-card";

/** The rulebook: what answers what, as sentences; beside it, what would happen if. */
export function RulesEditor({ draft: first, available }: Readonly<{ draft: GameDraft; available: Available }>) {
  const draft = useDraft(first.id, first);
  // The server's schema has accepted what it handed over, and every change here keeps to its shape.
  const book = draft.settings as Rulebook;
  const [open, setOpen] = useState<string | null>(useSearchParams().get("open"));
  const here: Available = { ...available, queues: book.queues, home: book.money.home };
  const put = (rules: Rule[]): void => draft.change({ ...book, rules });
  const set = (id: string, part: Partial<Rule>): void => put(book.rules.map((r) => (r.id === id ? { ...r, ...part } : r)));
  const hints = ruleHints(book, bookFacts(here));
  const add = (when: When): void => {
    const id = `r${Date.now().toString(36)}`;
    put([...book.rules, newRule(id, when)]);
    setOpen(id);
  };
  const move = (from: number, to: number): void => put(arrayMove([...book.rules], from, to));
  const nameOf = (id: string): string => book.rules.find((r) => r.id === id)?.name || "a rule without a name";
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
          <Stack gap="3" role="list" aria-label="Rules">
            <SortableList ids={book.rules.map((r) => r.id)} nameOf={nameOf} onMove={move}>
              {book.rules.map((rule, i) => (
                <SortableRow key={rule.id} id={rule.id} name={nameOf(rule.id)}>
                  <RuleCard
                    rule={rule}
                    available={here}
                    open={open === rule.id}
                    hints={hints.filter((h) => h.ruleId === rule.id).map((h) => h.text)}
                    onOpen={() => setOpen(open === rule.id ? null : rule.id)}
                    onSet={(part) => set(rule.id, part)}
                    onMove={(by) => move(i, i + by)}
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
                </SortableRow>
              ))}
            </SortableList>
          </Stack>
          {book.rules.length === 0 && (
            <BeginWith
              words="There is no rule yet. Add one: choose what it answers, then what happens."
              offer="Begin with three rules"
              onBegin={() => put(starterRules((n) => `r${Date.now().toString(36)}${n}`))}
            />
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
          <WhatIf book={book} available={here} />
          <ChannelRules book={book} onChange={(part) => draft.change({ ...book, ...part })} />
        </Stack>
      </Grid>
    </Box>
  );
}
