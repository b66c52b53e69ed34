"use client";
import { IconButton } from "../../../../ui/icon-button";
import { Box, Flex, Input, Text } from "@chakra-ui/react";
import { Trash2 } from "lucide-react";
import { useState } from "react";
import { type PlanItem } from "../../../../core/show/plan";
import { NumberField } from "../../../../ui/number-field";
import { Pick } from "../../../../ui/pick";
import { ActForm } from "../_effects/act-form";
import { type Available, type EffectChoice, effectChoices } from "../_effects/available";

export type Named = Readonly<{ id: string; name: string }>;

export type NamedGame = Named & Readonly<{ kind: string }>;

type LineProps = Readonly<{
  item: PlanItem;
  items: readonly PlanItem[];
  cues: readonly Named[];
  games: readonly NamedGame[];
  available: Available;
  state: string;
  clock: string;
  onSet: (part: Partial<PlanItem>) => void;
  onRemove: () => void;
}>;

/** An action as it begins; something to remember where there is none. */
function toAct(choice: EffectChoice | undefined): PlanItem["does"] {
  const made = choice?.make();
  return made?.do === "act" ? { do: "act", game: made.game, act: made.act, input: made.input } : { do: "note" };
}

export function PlanLine({ item, items, cues, games, available, state, clock, onSet, onRemove }: LineProps) {
  const { does, starts } = item;
  const target = does.do === "cue" ? does.cue : does.do === "note" ? "" : does.game;
  const list = does.do === "cue" ? cues : games;
  const acts = effectChoices(available, "cue").filter((c) => c.value.includes("/"));
  const kindAct = does.do === "act" ? `${available.games.find((g) => g.id === does.game)?.kind ?? ""}/${does.act}` : "";
  const others = items.filter((i) => i.id !== item.id);
  return (
    <Flex
      role="listitem"
      data-plan={item.id}
      align="center"
      gap="2.5"
      py="1.5"
      borderBottomWidth="1px"
      borderColor="line"
      wrap="wrap"
      fontSize="15.5px"
      opacity={state === "skipped" ? 0.6 : 1}
    >
      <Box width="118px" flexShrink="0" lineHeight="1.35">
        {starts.how === "after" ? (
          <NumberField
            label={`Minutes after it for ${item.title}`}
            value={starts.delayMin}
            min={0}
            max={1_440}
            unit="min later"
            onSet={(delayMin) => onSet({ starts: { ...starts, delayMin } })}
          />
        ) : (
          <>
            <NumberField
              label={`Minute of ${item.title}`}
              value={item.atMin}
              min={0}
              max={1_440}
              unit="min"
              onSet={(atMin) => onSet({ atMin })}
            />
            {clock !== "" && (
              <Text color="inkSoft" fontFamily="mono" fontSize="14px">
                {clock}
              </Text>
            )}
          </>
        )}
      </Box>
      <TextField
        label={`Title of ${item.title}`}
        value={item.title}
        most={60}
        width="200px"
        bold
        onSet={(title) => title !== "" && onSet({ title })}
      />
      <Pick
        label={`What ${item.title} does`}
        value={does.do}
        options={[
          { value: "note", words: "is to remember" },
          { value: "cue", words: "fires the cue" },
          { value: "start", words: "starts" },
          { value: "stop", words: "stops" },
          ...(acts.length === 0 ? [] : [{ value: "act", words: "has a game do" }]),
        ]}
        onSet={(value) => {
          if (value === "note") return onSet({ does: { do: "note" } });
          if (value === "cue") return onSet({ does: { do: "cue", cue: cues[0]?.id ?? "" } });
          if (value === "act") return onSet({ does: toAct(acts[0]) });
          onSet({ does: { do: value === "stop" ? "stop" : "start", game: games[0]?.id ?? "" } });
        }}
      />
      {does.do === "act" && (
        <>
          <Pick
            label={`What is done by ${item.title}`}
            value={kindAct}
            options={[
              ...acts.map((c) => ({ value: c.value, words: c.words })),
              ...(acts.some((c) => c.value === kindAct) ? [] : [{ value: kindAct, words: "something that is gone" }]),
            ]}
            onSet={(value) => onSet({ does: toAct(acts.find((c) => c.value === value)) })}
          />
          <Box>
            <ActForm
              effect={{ ...does, per: 1 }}
              asked={{ when: "cue" }}
              available={available}
              onSet={({ game, act, input }) => onSet({ does: { do: "act", game, act, input } })}
            />
          </Box>
        </>
      )}
      {does.do !== "note" && does.do !== "act" && (
        <Pick
          label={`Of ${item.title}: which`}
          value={target}
          options={list.map((x) => ({ value: x.id, words: x.name }))}
          onSet={(id) => onSet({ does: does.do === "cue" ? { do: "cue", cue: id } : { do: does.do, game: id } })}
        />
      )}
      <Pick
        label={`How ${item.title} starts`}
        value={starts.how}
        options={[
          { value: "hand", words: "by hand" },
          { value: "time", words: "by itself, at its minute" },
          ...(others.length > 0 ? [{ value: "after", words: "by itself, after" }] : []),
        ]}
        onSet={(how) =>
          onSet({ starts: how === "after" ? { how, item: others[0]?.id ?? "", delayMin: 0 } : { how: how === "time" ? "time" : "hand" } })
        }
      />
      {starts.how === "after" && (
        <>
          <Pick
            label={`After what ${item.title} starts`}
            value={starts.item}
            options={others.map((i) => ({ value: i.id, words: i.title }))}
            onSet={(id) => onSet({ starts: { ...starts, item: id } })}
          />
        </>
      )}
      {target !== "" && !list.some((x) => x.id === target) && (
        <Text color="brickText" fontSize="15px">
          is not there any more
        </Text>
      )}
      {state !== "" && (
        <Text color={state === "done" ? "mossText" : "inkSoft"} fontWeight="700" fontSize="15px">
          {state}
        </Text>
      )}
      <Box flex="1" minW="120px">
        <TextField
          label={`Note on ${item.title}`}
          value={item.note}
          most={200}
          width="100%"
          placeholder="note to yourself"
          onSet={(note) => onSet({ note })}
        />
      </Box>
      <IconButton label={`Take ${item.title} out`} onClick={onRemove}>
        <Trash2 size={15} />
      </IconButton>
    </Flex>
  );
}

/** A text that is kept when one leaves it, so that each letter is no change of its own. */
function TextField({
  label,
  value,
  most,
  width,
  bold = false,
  placeholder = "",
  onSet,
}: Readonly<{
  label: string;
  value: string;
  most: number;
  width: string;
  bold?: boolean;
  placeholder?: string;
  onSet: (text: string) => void;
}>) {
  const [text, setText] = useState<string | null>(null);
  const keep = (): void => {
    if (text !== null && text.trim() !== value) onSet(text.trim());
    setText(null);
  };
  return (
    <Input
      size="sm"
      aria-label={label}
      width={width}
      fontWeight={bold ? 700 : undefined}
      fontSize="15px"
      placeholder={placeholder}
      maxLength={most}
      value={text ?? value}
      onChange={(e) => setText(e.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(e) => e.key === "Enter" && keep()}
    />
  );
}
