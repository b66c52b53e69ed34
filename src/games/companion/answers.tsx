"use client";
import { Box, Button, chakra, Flex, Input, Stack, Text } from "@chakra-ui/react";
import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import {
  type Answer,
  askable,
  bubbleVariables,
  type CompanionSettings,
  companionSettingsSchema,
} from "../../core/games/companion/settings";
import { roles, type Role, roleWords } from "../../core/signals/names";
import { IconButton } from "../../ui/icon-button";
import { inputLook } from "../../ui/input-look";
import { ListField } from "../../ui/list-field";
import { NumberField } from "../../ui/number-field";
import { Pick } from "../../ui/pick";
import type { LooksProps } from "../shown";
import { stateWords } from "./state-words";

const mostAnswers = 40;

/** Its name, what it says to who comes in, and the words it answers. */
export function CompanionAnswers({ settings, onChange }: LooksProps) {
  const s = settings as CompanionSettings;
  const [trouble, setTrouble] = useState("");
  // What can't be kept is said here, and never sent.
  const put = (path: "answers" | "hello" | "name", value: unknown): void => {
    const read = companionSettingsSchema.safeParse({ ...s, [path]: value });
    setTrouble(read.success ? "" : (read.error.issues[0]?.message ?? "This can’t be kept."));
    if (read.success) onChange(path, value);
  };
  const set = (i: number, part: Partial<Answer>): void =>
    put(
      "answers",
      s.answers.map((a, k) => (k === i ? { ...a, ...part } : a)),
    );
  const freshWord = (): string => {
    for (let n = s.answers.length + 1; ; n += 1) if (!s.answers.some((a) => a.word === `!word${n}`)) return `!word${n}`;
  };
  const variables = bubbleVariables.map((name) => `{${name}}`);
  return (
    <Box mt="5" data-testid="companion-answers">
      <Flex gap="3" align="center" mb="4" wrap="wrap">
        <Text as="span" fontWeight="700">
          Its name
        </Text>
        <Written label="Its name" value={s.name} most={40} onSet={(name) => put("name", name)} width="220px" />
      </Flex>
      <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="17px">
        What it says to who comes in
      </Text>
      <Text color="inkSoft" fontSize="15px" mb="1">
        One in each line; none, and it greets nobody. You may write <chakra.code fontFamily="mono">{"{viewer}"}</chakra.code>,{" "}
        <chakra.code fontFamily="mono">{"{channel}"}</chakra.code> and <chakra.code fontFamily="mono">{"{mood}"}</chakra.code>.
      </Text>
      <ListField
        label="What it says to who comes in"
        list={s.hello}
        shape={{ apart: "lines", most: 40, letters: 120 }}
        rows={Math.max(2, Math.min(6, s.hello.length + 1))}
        width="100%"
        onSet={(list) => put("hello", list)}
      />
      <Text mt="2" fontSize="15px">
        It does not greet:
      </Text>
      <ListField
        label="Whom it does not greet"
        list={s.ignored}
        shape={{ apart: "lines", most: 300, letters: 80 }}
        rows={2}
        width="100%"
        placeholder="one name in each line"
        onSet={(list) => onChange("ignored", list)}
      />
      <Flex align="baseline" gap="3" mt="5" mb="1" wrap="wrap">
        <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="17px">
          Words it answers
        </Text>
        <Text color="inkSoft" fontSize="15px" flex="1">
          in its bubble you may write {variables.join(", ")}; {"{text}"} is what stood behind the word
        </Text>
        <Button
          size="xs"
          variant="outline"
          disabled={s.answers.length >= mostAnswers}
          onClick={() =>
            put("answers", [...s.answers, { word: freshWord(), state: "cheer", bubble: "", restMs: 15_000, roles: ["viewer"] }])
          }
        >
          <Plus size={15} aria-hidden="true" /> Add a word
        </Button>
      </Flex>
      {trouble !== "" && (
        <Text color="brickText" role="alert" mb="1">
          {trouble} It stays as it was.
        </Text>
      )}
      <Stack gap="1.5" role="list" aria-label="Words it answers">
        {s.answers.map((answer, i) => (
          <Flex key={answer.word} role="listitem" bg="raised" borderRadius="8px" px="3" py="1.5" gap="2" align="center" wrap="wrap">
            <Written label={`Word ${i + 1}`} value={answer.word} most={30} mono width="120px" onSet={(word) => set(i, { word })} />
            <Pick
              label={`What it does at ${answer.word}`}
              value={answer.state}
              options={askable.map((a) => ({ value: a, words: stateWords[a] }))}
              onSet={(state) => set(i, { state: state as Answer["state"] })}
            />
            <Written
              label={`What it says at ${answer.word}`}
              value={answer.bubble}
              most={120}
              placeholder="says nothing"
              grows
              onSet={(bubble) => set(i, { bubble })}
            />
            <Text as="span" fontSize="15.5px" flex="1">
              for{" "}
              <Pick
                label={`Who may say ${answer.word}`}
                value={answer.roles[0] ?? "viewer"}
                options={roles.map((r) => ({ value: r, words: roleWords[r] }))}
                // Who may do more may do this too.
                onSet={(role) => set(i, { roles: roles.slice(roles.indexOf(role as Role)) })}
              />
              , at most every{" "}
              <NumberField
                label={`Rest of ${answer.word}`}
                value={answer.restMs}
                min={0}
                max={3_600_000}
                scale={1000}
                unit="s"
                onSet={(restMs) => set(i, { restMs })}
              />
            </Text>
            <IconButton
              label={`Remove ${answer.word}`}
              onClick={() =>
                put(
                  "answers",
                  s.answers.filter((_, k) => k !== i),
                )
              }
            >
              <Trash2 size={16} aria-hidden="true" />
            </IconButton>
          </Flex>
        ))}
        {s.answers.length === 0 && <Text color="inkSoft">None yet: it answers nothing that is written.</Text>}
      </Stack>
    </Box>
  );
}

type WrittenProps = Readonly<{
  label: string;
  value: string;
  most: number;
  mono?: boolean;
  grows?: boolean;
  width?: string;
  placeholder?: string;
  onSet: (value: string) => void;
}>;
/** A text that is taken when one leaves it. */
function Written({ label, value, most, mono = false, grows = false, width = "200px", placeholder, onSet }: WrittenProps) {
  return (
    <Input
      {...inputLook}
      key={value}
      aria-label={label}
      defaultValue={value}
      maxLength={most}
      size="sm"
      {...(grows ? { flex: "1", minWidth: "180px" } : { width })}
      {...(mono ? { fontFamily: "mono" } : {})}
      {...(placeholder === undefined ? {} : { placeholder })}
      onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
      onBlur={(e) => e.currentTarget.value.trim() !== value && onSet(e.currentTarget.value.trim())}
    />
  );
}
