"use client";
import { IconButton } from "../../../../ui/icon-button";
import { CooldownField } from "../../../../ui/cooldown-field";
import { RolesBlank } from "../../../../ui/roles-blank";
import { Box, Button, chakra, Flex, Input, Stack, Text } from "@chakra-ui/react";
import { Trash2 } from "lucide-react";
import { type Cue } from "../../../../core/cues/settings";
import { variablesOf } from "../../../../core/rules/effects";
import { effectInWords } from "../../../../core/rules/words";
import { KeyCap } from "../../../../ui/key-cap";
import { keyLabel } from "../../../../ui/keys";
import { Pick } from "../../../../ui/pick";
import { Stub } from "../../../../ui/stub";
import { EffectList } from "../_effects/effect-list";
import { namesOf, type Available } from "../_effects/available";
import { inputLook } from "../../../../ui/input-look";
import { KeyField } from "./key-field";
import { TriggerAddress } from "./trigger-address";

type CardProps = Readonly<{
  cue: Cue;
  /** All of them: which keys are taken. */
  cues: readonly Cue[];
  available: Available;
  open: boolean;
  isLive: boolean;
  isOn: boolean;
  owner: boolean;
  linked: boolean;
  hints: readonly string[];
  onOpen: () => void;
  onFire: () => void;
  onLinked: (on: boolean) => void;
  onSet: (part: Partial<Cue>) => void;
  onTakeKey: (key: string, from: Cue) => void;
  onRemove: () => void;
}>;

export function CueCard(props: CardProps) {
  const { cue, cues, available, open, isLive, isOn, owner, linked, hints, onOpen, onFire, onLinked, onSet, onTakeKey, onRemove } = props;
  const names = namesOf(available);
  return (
    <Stub
      role="listitem"
      data-cue={cue.id}
      end={
        <>
          <Button
            colorPalette="ochre"
            fontWeight="700"
            minW={{ md: "126px" }}
            disabled={!isLive}
            onClick={onFire}
            title={isLive ? undefined : "Publish it first"}
          >
            {cue.kind === "on-off" ? (isOn ? "Turn off" : "Turn on") : "Fire"} {cue.key !== "" && <KeyCap>{keyLabel(cue.key)}</KeyCap>}
          </Button>
          <Button size="xs" variant="ghost" mb={open ? "auto" : undefined} aria-expanded={open} onClick={onOpen}>
            {open ? "Done" : "Change"}
          </Button>
        </>
      }
    >
      <Flex align="center" gap="3">
        {open ? (
          <Input
            size="sm"
            aria-label="Name of the cue"
            autoFocus
            onFocus={(e) => e.currentTarget.select()}
            value={cue.name}
            maxLength={40}
            fontWeight="700"
            onChange={(e) => onSet({ name: e.currentTarget.value })}
          />
        ) : (
          <Text fontWeight="700">{cue.name}</Text>
        )}
        {isOn && (
          <Text color="mossText" fontWeight="700" fontSize="15px">
            on
          </Text>
        )}
        {open && (
          <IconButton label="Take this cue out" onClick={onRemove}>
            <Trash2 size={15} />
          </IconButton>
        )}
      </Flex>
      {!open && (
        <Text color="inkSoft" fontSize="15.5px">
          {cue.effects.map((d) => effectInWords(d, { when: "cue" }, names)).join(", then ") || "does nothing yet"}
          {cue.word === "" ? "" : ` · in chat: ${cue.word}`}
          {linked ? " · has a trigger address" : ""}
        </Text>
      )}
      {open && (
        <Stack gap="3" mt="2" fontSize="15.5px" lineHeight="2">
          <Box>
            It is{" "}
            <Pick
              label="Once or on and off"
              value={cue.kind}
              options={[
                { value: "once", words: "done once" },
                { value: "on-off", words: "on until it is fired again" },
              ]}
              onSet={(kind) => onSet({ kind: kind === "on-off" ? "on-off" : "once" })}
            />
            , fired by the key <KeyField cue={cue} cues={cues} games={available.games} onSet={(key) => onSet({ key })} onTake={onTakeKey} />
            , in chat by{" "}
            <chakra.input
              {...inputLook}
              aria-label="Chat word"
              width="110px"
              value={cue.word}
              maxLength={40}
              placeholder="no word"
              onChange={(e) => onSet({ word: e.currentTarget.value.replace(/\s/g, "") })}
            />{" "}
            from <RolesBlank label="Who may fire it in chat" roles={cue.roles} onSet={(roles) => onSet({ roles })} />. Then it is on
            cooldown for <CooldownField ms={cue.cooldownMs} mostMs={3_600_000} onSet={(cooldownMs) => onSet({ cooldownMs })} />.
          </Box>
          <EffectList
            label="What it does"
            effects={cue.effects}
            asked={{ when: "cue" }}
            variables={variablesOf["cue"] ?? []}
            available={available}
            onSet={(effects) => onSet({ effects })}
          />
          {cue.kind === "on-off" && (
            <Box>
              <Text fontWeight="700">When it is fired again</Text>
              <Text color="inkSoft" lineHeight="1.4" mb="1">
                What it shows goes away by itself.
              </Text>
              <EffectList
                label="What it does when it goes off"
                effects={cue.offEffects}
                asked={{ when: "cue" }}
                variables={variablesOf["cue"] ?? []}
                available={available}
                onSet={(offEffects) => onSet({ offEffects })}
              />
            </Box>
          )}
          <TriggerAddress cue={cue} owner={owner} linked={linked} onLinked={onLinked} />
        </Stack>
      )}
      {hints.map((hint) => (
        <Box key={hint} mt="2" bg="note" borderRadius="6px" px="3" py="1.5" fontSize="15px">
          {hint}
        </Box>
      ))}
    </Stub>
  );
}
