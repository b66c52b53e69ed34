"use client";
import { Box, Button, chakra, Flex, Text } from "@chakra-ui/react";
import { type FormEvent, useEffect, useMemo, useRef, useState } from "react";
import { asksFor, buttonsNow, buttonsOf, commandOf, type NamedAction } from "../../../core/games/buttons";
import { frontOf } from "../../../core/games/fronts";
import type { GameChoice } from "../../../core/module/game";
import type { Command } from "../../../core/signals/signal";
import { KeyCap } from "../../../ui/key-cap";
import { type Act, keyLabel, keyOf, useChosenKeys, useOffer } from "../../../ui/keys";
import { tell } from "../../../ui/toaster";
import { useSure } from "../../../ui/sure";

const actId = (kind: string, name: string): string => `game.${kind}.${name}`;

/** A game's actions in the booth, by its definition: buttons and keys; what asks for an amount asks in place. */
export function ActionPad({
  kind,
  view,
  run,
}: Readonly<{ kind: string; view: Readonly<Record<string, unknown>>; run: (command: Command) => Promise<boolean> }>) {
  const chosen = useChosenKeys((s) => s.keys);
  const [asking, setAsking] = useState<NamedAction | null>(null);
  const buttons = useMemo(() => buttonsOf(kind), [kind]);
  const acts = useMemo(
    (): Act[] =>
      buttons.map((named) => ({
        id: actId(kind, named[0]),
        label: `${frontOf(kind)?.name ?? "game"}: ${named[1].label.toLowerCase()}`,
        group: "The chosen game",
        ...(named[1].key === undefined ? {} : { key: named[1].key }),
        run: () => (asksFor(named[1]) === null ? void run(commandOf(named)) : setAsking(named)),
      })),
    [buttons, kind, run],
  );
  useOffer("game-own", acts);
  const choices = frontOf(kind)?.choices?.(view) ?? [];
  if (asking !== null) return <Amount of={asking} onDone={() => setAsking(null)} run={run} />;
  return (
    <Box display="grid" gridTemplateColumns="1fr 1fr" gap="2" mt="2">
      {choices.map((c) => (
        <ChoiceButton key={c.id} of={c} run={run} />
      ))}
      {buttonsNow(kind, view).map((named) => {
        const act = acts.find((a) => a.id === actId(kind, named[0]));
        const key = act === undefined ? null : keyOf(act, chosen);
        const cap = key === null ? null : <KeyCap>{keyLabel(key)}</KeyCap>;
        return (
          <ActionButton
            key={named[0]}
            of={named}
            cap={cap}
            disabled={named[1].can?.(view) === false}
            onClick={() => (asksFor(named[1]) === null ? void done(named, run) : setAsking(named))}
          />
        );
      })}
    </Box>
  );
}

async function done(named: NamedAction, run: (command: Command) => Promise<boolean>): Promise<void> {
  if ((await run(commandOf(named))) && named[1].done !== undefined) tell(named[1].done);
}

/** A button of the moment. Where it can't be taken for granted that it is meant, it asks once. */
function ChoiceButton({ of, run }: Readonly<{ of: GameChoice; run: (command: Command) => Promise<boolean> }>) {
  const asked = useSure(of.label, () => void run(of.command));
  return (
    <Button
      size="sm"
      variant={asked.sure ? "solid" : "outline"}
      colorPalette="ochre"
      px="2.5"
      justifyContent="flex-start"
      fontWeight="700"
      data-choice={of.id}
      onBlur={asked.leave}
      onClick={of.sure ? asked.press : () => void run(of.command)}
    >
      <Text as="span" truncate>
        {asked.words}
      </Text>
    </Button>
  );
}

function ActionButton({
  of: [, action],
  cap,
  disabled,
  onClick,
}: Readonly<{ of: NamedAction; cap: React.ReactNode; disabled: boolean; onClick: () => void }>) {
  const asked = useSure(action.label, onClick);
  return (
    <Button
      size="sm"
      variant="outline"
      px="2.5"
      justifyContent="space-between"
      disabled={disabled}
      color={asked.sure ? "brickText" : undefined}
      borderColor={asked.sure ? "brickText" : undefined}
      onBlur={asked.leave}
      onClick={action.sure === true ? asked.press : onClick}
    >
      {asked.words}
      {asksFor(action) === null ? "" : "…"} {cap}
    </Button>
  );
}

/** The amount of an action, typed in place. */
function Amount({
  of: named,
  run,
  onDone,
}: Readonly<{ of: NamedAction; run: (command: Command) => Promise<boolean>; onDone: () => void }>) {
  const [name, field] = asksFor(named[1]) ?? ["", { label: "", start: 1, most: 1 }];
  const [amount, setAmount] = useState(String(field.start));
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    input.current?.focus();
    input.current?.select();
  }, []);
  const n = Number(amount);
  const good = amount.trim() !== "" && Number.isSafeInteger(n) && n > 0 && n <= field.most;
  const give = (event: FormEvent): void => {
    event.preventDefault();
    if (!good) return;
    void run(commandOf(named, { [name]: n }));
    onDone();
  };
  return (
    <form onSubmit={give}>
      <Flex gap="2" align="center" mt="2" onKeyDown={(e) => e.key === "Escape" && onDone()}>
        <Text fontWeight="700" fontSize="15px" whiteSpace="nowrap">
          {named[1].label}
        </Text>
        <chakra.input
          ref={input}
          aria-label={field.label}
          aria-invalid={!good}
          inputMode="numeric"
          value={amount}
          width="86px"
          minH="34px"
          px="2"
          borderWidth="1.5px"
          borderColor={good ? "line" : "brickText"}
          borderRadius="6px"
          bg="ground"
          fontFamily="mono"
          onChange={(e) => setAmount(e.currentTarget.value)}
        />
        <Button size="sm" type="submit" colorPalette="ochre" fontWeight="700" disabled={!good}>
          {named[1].label}
        </Button>
        <Button size="sm" variant="ghost" px="2" onClick={onDone}>
          Cancel
        </Button>
      </Flex>
      {!good && (
        <Text color="brickText" fontSize="14px" role="alert">
          A whole number from 1.
        </Text>
      )}
    </form>
  );
}
