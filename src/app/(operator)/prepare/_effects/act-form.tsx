"use client";
import { chakra, Flex, Text } from "@chakra-ui/react";
import { Fragment, type ReactNode } from "react";
import { frontOf } from "../../../../core/games/fronts";
import { actionOf } from "../../../../core/games/words";
import { emoteSourceSchema, type EmoteSource, formParts, type Field } from "../../../../core/module/fields";
import type { RuleEffect } from "../../../../core/rules/effect";
import { variablesOf } from "../../../../core/rules/effects";
import { emotesInWords } from "../../../../core/rules/words";
import { amountInWords, type Asked, unitOf } from "../../../../core/rules/notes";
import { useLive } from "../../../_frame/live";
import { NumberField } from "../../../../ui/number-field";
import { Pick } from "../../../../ui/pick";
import { SpriteView } from "../../../../ui/sprite-view";
import { TemplateField } from "../../../../ui/template-field";
import { type Available, propChoices } from "./available";

type Act = Extract<RuleEffect, { do: "act" }>;
type Props = Readonly<{ effect: Act; asked: Asked; available: Available; onSet: (effect: Act) => void }>;

/** A game's action as the sentence its definition gives, with a blank for each thing it asks for. */
export function ActForm({ effect, asked, available, onSet }: Props) {
  const kind = available.games.find((g) => g.id === effect.game)?.kind ?? "";
  const view = useLive((s) => s.standing?.games.find((g) => g.id === effect.game)?.view);
  const now = view === undefined ? {} : (frontOf(kind)?.listsNow?.(view) ?? {});
  const action = actionOf(kind, effect.act);
  // Of a game that is gone: any that can do the same.
  const games = available.games.filter((g) => (kind === "" ? actionOf(g.kind, effect.act) !== null : g.kind === kind));
  if (action === null) return <Text>This can’t be done by any game here. Take it out.</Text>;
  const game = (
    <Pick
      label={`Which ${frontOf(kind)?.name ?? "game"}`}
      value={effect.game}
      options={games.map((g) => ({ value: g.id, words: g.name }))}
      onSet={(id) => onSet({ ...effect, game: id })}
    />
  );
  const put = (name: string, value: unknown): void => onSet({ ...effect, input: { ...effect.input, [name]: value } });
  const open = Object.entries(action.input).find(
    ([name, field]) => field.kind === "emotes" && emotesOf(effect, name)?.from === "chosen",
  )?.[0];
  return (
    <>
      {formParts(action.form).map((part, i) => {
        if (typeof part === "string") return <Fragment key={i}>{part}</Fragment>;
        if (part.blank === "game") return <Fragment key={i}>{game}</Fragment>;
        const field = action.input[part.blank];
        if (field === undefined) return null;
        const value = Object.hasOwn(effect.input, part.blank) ? effect.input[part.blank] : field.start;
        return (
          <Fragment key={i}>
            <FieldBlank
              field={field}
              value={value}
              asked={asked}
              available={available}
              lists={{ ...available.games.find((g) => g.id === effect.game)?.lists, ...now }}
              onSet={(v) => put(part.blank, v)}
            />
            {field.kind === "amount" && <Per effect={effect} asked={asked} home={available.home} onSet={onSet} />}
          </Fragment>
        );
      })}
      {open !== undefined && (
        <Chosen
          available={available}
          chosen={emotesOf(effect, open)?.chosen ?? []}
          onSet={(chosen) => put(open, { from: "chosen", chosen })}
        />
      )}
    </>
  );
}

function emotesOf(effect: Act, name: string): EmoteSource | null {
  const read = emoteSourceSchema.safeParse(Object.hasOwn(effect.input, name) ? effect.input[name] : null);
  return read.success ? read.data : null;
}

function FieldBlank({
  field,
  value,
  asked,
  available,
  lists,
  onSet,
}: Readonly<{
  field: Field;
  value: unknown;
  asked: Asked;
  available: Available;
  lists: Available["games"][number]["lists"];
  onSet: (value: unknown) => void;
}>): ReactNode {
  switch (field.kind) {
    case "amount":
    case "whole":
    case "time":
      return (
        <NumberField
          label={field.label}
          value={Number(value)}
          min={field.min}
          max={field.most}
          scale={field.kind === "time" ? 1_000 : 1}
          unit={field.kind === "time" ? "s" : field.kind === "whole" ? (field.unit ?? "") : ""}
          onSet={onSet}
        />
      );
    case "choice":
      return <Pick label={field.label} value={String(value)} options={field.options} onSet={onSet} />;
    case "prop":
      return <Pick label={field.label} value={String(value)} options={propChoices(available)(field.of)} onSet={onSet} />;
    case "text":
      if (field.oneOf !== undefined)
        return <Pick label={field.label} value={String(value)} options={namesFrom(field.oneOf, lists, String(value))} onSet={onSet} />;
      return <TemplateField label={field.label} value={String(value)} variables={variablesOf[asked.when] ?? []} onSet={onSet} />;
    case "emotes": {
      const read = emoteSourceSchema.safeParse(value);
      const now = read.success ? read.data : { from: "most-used" as const, chosen: [] };
      const sources: readonly EmoteSource["from"][] = [
        ...(asked.when === "message" || asked.when === "reaction" ? ["message" as const] : []),
        ...(field.used === false ? [] : ["most-used" as const]),
        "chosen",
      ];
      return (
        <Pick
          label={field.label}
          value={now.from}
          options={sources.map((from) => ({
            value: from,
            words: from === "chosen" ? "of chosen emotes" : emotesInWords({ from, chosen: [] }, asked.when),
          }))}
          onSet={(from) => onSet({ ...now, from })}
        />
      );
    }
    case "signal":
      return null;
  }
}

/** What a text is picked from. What stands there and is in no list any more is said so, and kept until another is picked. */
function namesFrom({ list, none }: Readonly<{ list: string; none: string }>, lists: Available["games"][number]["lists"], value: string) {
  const names = Object.hasOwn(lists, list) ? (lists[list] ?? []) : [];
  const gone = value !== "" && !names.includes(value);
  return [
    { value: "", words: none },
    ...names.map((name) => ({ value: name, words: name })),
    ...(gone ? [{ value, words: `${value} (not there any more)` }] : []),
  ];
}

/** “for every 1.00 EUR”, where what is answered has an amount. */
function Per({ effect, asked, home, onSet }: Readonly<{ effect: Act; asked: Asked; home: string; onSet: (effect: Act) => void }>) {
  const unit = unitOf(asked);
  if (unit === null) return null;
  return (
    <>
      {" "}
      for every{" "}
      <NumberField
        label={`For how much: ${amountInWords(asked, effect.per, home)}`}
        value={effect.per}
        min={1}
        max={1_000_000_000}
        scale={unit === "money" ? 100 : 1}
        unit={unit === "money" ? home : unit === "value" ? "they are worth" : unit[1]}
        onSet={(per) => onSet({ ...effect, per })}
      />
    </>
  );
}

function Chosen({
  available,
  chosen,
  onSet,
}: Readonly<{ available: Available; chosen: readonly string[]; onSet: (chosen: string[]) => void }>) {
  return (
    <Flex gap="1" wrap="wrap" mt="1" role="group" aria-label="Chosen emotes">
      {available.emotes.map((sprite) => {
        const on = chosen.includes(sprite.key);
        return (
          <chakra.button
            key={sprite.key}
            type="button"
            aria-pressed={on}
            aria-label={sprite.word}
            title={sprite.word}
            p="1"
            borderRadius="6px"
            borderWidth="2px"
            borderColor={on ? "ochre.solid" : "transparent"}
            bg={on ? "blank" : "transparent"}
            cursor="pointer"
            onClick={() => onSet(on ? chosen.filter((k) => k !== sprite.key) : [...chosen, sprite.key])}
          >
            <SpriteView sprite={sprite} size={28} />
          </chakra.button>
        );
      })}
    </Flex>
  );
}
