"use client";
import { ListField } from "../../../../ui/list-field";
import { IconButton } from "../../../../ui/icon-button";
import { CooldownField } from "../../../../ui/cooldown-field";
import { RolesBlank } from "../../../../ui/roles-blank";
import { Box, Button, chakra, Flex, Stack, Text } from "@chakra-ui/react";
import { Plus, Trash2 } from "lucide-react";
import { commandVariables, type OwnCommand } from "../../../../core/commands/settings";
import { Pick } from "../../../../ui/pick";
import { Stub } from "../../../../ui/stub";
import { TemplateField } from "../../../../ui/template-field";
import { inputLook } from "../../../../ui/input-look";

export function Card({
  command,
  times,
  open,
  onOpen,
  onSet,
  onRemove,
}: Readonly<{
  command: OwnCommand;
  times: number;
  open: boolean;
  onOpen: () => void;
  onSet: (part: Partial<OwnCommand>) => void;
  onRemove: () => void;
}>) {
  return (
    <Stub
      role="listitem"
      data-command={command.words[0]}
      end={
        <Button size="sm" variant="outline" aria-expanded={open} onClick={onOpen}>
          {open ? "Done" : "Change"}
        </Button>
      }
    >
      <Flex gap="3" align="baseline" wrap="wrap">
        <Text fontFamily="mono" fontWeight="700">
          {command.words.join(" ")}
        </Text>
        {!open && (
          <Text color="inkSoft" flex="1" minW="0" truncate>
            {command.answers[0]}
            {command.answers.length > 1 ? ` · one of ${command.answers.length}` : ""}
          </Text>
        )}
        {command.counts && (
          <Text fontSize="15px" color="inkSoft">
            {times}×
          </Text>
        )}
        {!command.on && <Text color="inkSoft">off</Text>}
      </Flex>
      {open && (
        <Stack gap="3" mt="2" fontSize="15.5px" lineHeight="2">
          <Box>
            <RolesBlank label="Whom it answers" roles={command.roles} first onSet={(roles) => onSet({ roles })} /> who writes{" "}
            <ListField
              label="Words of the command, set apart by spaces"
              list={command.words}
              shape={{ apart: "spaces", most: 6, letters: 30 }}
              width="190px"
              mono
              fresh
              onSet={(words) => onSet({ words })}
            />{" "}
            is answered. Then it is on cooldown for{" "}
            <CooldownField
              label="Cooldown for everyone"
              ms={command.cooldownMs}
              mostMs={86_400_000}
              onSet={(cooldownMs) => onSet({ cooldownMs })}
            />
            , for the one who wrote it{" "}
            <CooldownField
              label="Cooldown for who wrote it"
              ms={command.ownCooldownMs}
              mostMs={86_400_000}
              onSet={(ownCooldownMs) => onSet({ ownCooldownMs })}
            />
            . It{" "}
            <Pick
              label="Whether it counts"
              value={command.counts ? "yes" : "no"}
              options={[
                { value: "no", words: "does not count" },
                { value: "yes", words: "counts how often" },
              ]}
              onSet={(v) => onSet({ counts: v === "yes" })}
            />{" "}
            and gives{" "}
            <Pick
              label="Which answer"
              value={command.how}
              options={[
                { value: "first", words: "its answer" },
                { value: "random", words: "one of its answers, by chance" },
                { value: "in-turn", words: "its answers in turn" },
              ]}
              onSet={(how) => onSet({ how: how === "random" || how === "in-turn" ? how : "first" })}
            />
            .
          </Box>
          <Stack gap="2" role="list" aria-label="Answers">
            {command.answers.map((answer, i) => (
              <Flex key={i} role="listitem" gap="2" align="start">
                <Box flex="1">
                  <TemplateField
                    label={`Answer ${i + 1}`}
                    value={answer}
                    variables={commandVariables}
                    placeholder="what chat is told"
                    onSet={(text) => onSet({ answers: command.answers.map((a, k) => (k === i ? text : a)) })}
                  />
                </Box>
                {command.answers.length > 1 && (
                  <IconButton
                    label={`Take answer ${i + 1} out`}
                    onClick={() => onSet({ answers: command.answers.filter((_, k) => k !== i) })}
                  >
                    <Trash2 size={15} />
                  </IconButton>
                )}
              </Flex>
            ))}
          </Stack>
          <Flex gap="2" align="center" wrap="wrap">
            <Button
              size="xs"
              variant="outline"
              disabled={command.answers.length >= 100}
              onClick={() => onSet({ answers: [...command.answers, ""], how: command.how === "first" ? "random" : command.how })}
            >
              <Plus size={14} aria-hidden="true" /> Another answer
            </Button>
            <chakra.input
              {...inputLook}
              aria-label="What viewers read about it"
              flex="1"
              minW="220px"
              maxLength={120}
              placeholder="what viewers read in the list; empty for not listed"
              value={command.about}
              onChange={(e) => onSet({ about: e.currentTarget.value })}
            />
            <Button size="xs" variant="outline" aria-pressed={command.on} onClick={() => onSet({ on: !command.on })}>
              {command.on ? "On" : "Off"}
            </Button>
            <IconButton label="Take this command out" onClick={onRemove}>
              <Trash2 size={15} />
            </IconButton>
          </Flex>
        </Stack>
      )}
    </Stub>
  );
}
