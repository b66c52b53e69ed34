"use client";
import { ListField } from "../../../../ui/list-field";
import { IconButton } from "../../../../ui/icon-button";
import { inputLook } from "../../../../ui/input-look";
import { CooldownField } from "../../../../ui/cooldown-field";
import { RolesBlank } from "../../../../ui/roles-blank";
import { Box, Button, chakra, Flex, Stack } from "@chakra-ui/react";
import { Plus, Trash2 } from "lucide-react";
import { variablesOf } from "../../../../core/rules/effects";
import { type Rule, type When, whens } from "../../../../core/rules/settings";
import { whenWords } from "../../../../core/rules/words";
import { amountInWords, unitOf } from "../../../../core/rules/notes";
import { allTold } from "../../../../core/games/words";
import { NumberField } from "../../../../ui/number-field";
import { Pick } from "../../../../ui/pick";
import { EffectList } from "../_effects/effect-list";
import type { Available } from "../_effects/available";

export function RuleForm({ rule, available, onSet }: Readonly<{ rule: Rule; available: Available; onSet: (part: Partial<Rule>) => void }>) {
  const unit = unitOf(rule);
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
          onSet={(when) => onSet({ when: when as When, ...(when === "happened" ? { what: allTold()[0]?.what ?? "" } : {}) })}
        />
        {rule.when === "happened" && (
          <>
            :{" "}
            <Pick
              label="What came to pass"
              value={rule.what}
              options={allTold().map(({ what, told }) => ({ value: what, words: told.words }))}
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
              {...inputLook}
              minH="30px"
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
        , by <RolesBlank label="By whom" roles={rule.roles} onSet={(roles) => onSet({ roles })} />,{" "}
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
          <>
            {" "}
            <ListField
              label="Words, set apart by commas"
              list={words.list}
              shape={{ apart: "commas", most: 30, letters: 80 }}
              placeholder="words, set apart by commas"
              width="220px"
              onSet={(list) => onSet({ words: { ...words, list } })}
            />
          </>
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
        . Then it is on cooldown for <CooldownField ms={rule.cooldownMs} mostMs={3_600_000} onSet={(cooldownMs) => onSet({ cooldownMs })} />
        .
      </Box>
      {rule.tiers.map((tier, i) => (
        <Box key={i} data-tier={i}>
          {unit !== null && (
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
                label={`Amount: ${amountInWords(rule, tier.amount, available.home)}`}
                value={tier.amount}
                min={0}
                max={Number.MAX_SAFE_INTEGER}
                scale={unit === "money" ? 100 : 1}
                unit={unit === "money" ? available.home : unit === "value" ? "worth of reactions" : unit[1]}
                onSet={(amount) => putTier(i, { amount })}
              />
              {rule.tiers.length > 1 && (
                <IconButton label="Take this tier out" onClick={() => onSet({ tiers: rule.tiers.filter((_, k) => k !== i) })}>
                  <Trash2 size={15} />
                </IconButton>
              )}
            </Flex>
          )}
          <EffectList
            label={`What happens${unit === null ? "" : `, tier ${i + 1}`}`}
            effects={tier.effects}
            asked={rule}
            variables={variables}
            available={available}
            onSet={(effects) => putTier(i, { effects })}
          />
        </Box>
      ))}
      {unit !== null && rule.tiers.length < 20 && (
        <Box>
          <Button
            size="xs"
            variant="ghost"
            color="slateText"
            onClick={() => {
              const amount = Math.max(0, ...rule.tiers.map((t) => t.amount)) + (unit === "money" ? 1_000 : 10);
              onSet({ tiers: [...rule.tiers, { at: "least", amount, effects: [] }] });
            }}
          >
            <Plus size={14} aria-hidden="true" /> Something else for a larger, or an exact, amount
          </Button>
        </Box>
      )}
    </Stack>
  );
}
