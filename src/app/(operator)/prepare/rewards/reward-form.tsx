"use client";
import { ListField } from "../../../../ui/list-field";
import { IconButton } from "../../../../ui/icon-button";
import { Box, Button, chakra, Flex, Input, Stack, Text } from "@chakra-ui/react";
import { ArrowDown, ArrowUp, Play, Square, Trash2 } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { variablesOf } from "../../../../core/rules/effects";
import { givesNothing, type Reward } from "../../../../core/rewards/settings";
import { formOf, put, rewardSentences } from "../../../../core/rewards/sentences";
import { counted, seconds } from "../../../../core/words/sentence";
import { Pick } from "../../../../ui/pick";
import { SentenceForm } from "../../../../ui/sentence-form";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";
import { EffectList } from "../_effects/effect-list";
import type { Available } from "../_effects/available";
import { PriceChart } from "./price-chart";
import { inputLook } from "../../../../ui/input-look";

/** One reward: its name, chat words, sentences, and what happens when it is bought. */
export function RewardForm({
  reward,
  available,
  pointsName,
  seen,
  hints,
  categories,
  fresh,
  onSet,
  onRemove,
  onMove,
}: Readonly<{
  reward: Reward;
  available: Available;
  pointsName: string;
  seen: readonly Readonly<{ item: string; title: string }>[];
  hints: readonly string[];
  categories: readonly string[];
  /** It was just added: the cursor is in its name. */
  fresh: boolean;
  onSet: (reward: Reward) => void;
  onRemove: () => void;
  onMove: (by: number) => void;
}>) {
  const pictures = [...available.emotes, ...available.pictures];
  return (
    <Stack gap="3.5">
      <Flex gap="2" align="center" wrap={{ base: "wrap", md: "nowrap" }}>
        <Input
          aria-label="Name of the reward"
          autoFocus={fresh}
          onFocus={(e) => fresh && e.currentTarget.select()}
          value={reward.name}
          maxLength={60}
          fontWeight="700"
          fontSize="19px"
          fontFamily="heading"
          onChange={(e) => onSet({ ...reward, name: e.currentTarget.value })}
        />
        <Button size="sm" variant="outline" aria-pressed={reward.on} onClick={() => onSet({ ...reward, on: !reward.on })}>
          {!reward.on ? "Off" : givesNothing(reward) ? "On sale once it does something" : "On sale"}
        </Button>
        <IconButton label="Earlier in the list" onClick={() => onMove(-1)}>
          <ArrowUp size={16} />
        </IconButton>
        <IconButton label="Later in the list" onClick={() => onMove(1)}>
          <ArrowDown size={16} />
        </IconButton>
        <IconButton label="Take this reward out" onClick={onRemove}>
          <Trash2 size={16} />
        </IconButton>
      </Flex>
      <Flex gap="3" wrap="wrap" align="center" fontSize="15.5px">
        <chakra.label display="flex" gap="1.5" alignItems="center">
          Chat words
          <ListField
            label="Chat words, set apart by spaces"
            list={reward.words}
            shape={{ apart: "spaces", most: 5, letters: 30 }}
            width="150px"
            mono
            placeholder="!roar"
            onSet={(words) => onSet({ ...reward, words })}
          />
        </chakra.label>
        <chakra.label display="flex" gap="1.5" alignItems="center">
          Category
          <chakra.input
            {...inputLook}
            list="reward-categories"
            width="130px"
            maxLength={30}
            value={reward.category}
            placeholder="none"
            onChange={(e) => onSet({ ...reward, category: e.currentTarget.value })}
          />
          <datalist id="reward-categories">
            {categories.map((c) => (
              <option key={c} value={c} />
            ))}
          </datalist>
        </chakra.label>
        <Pick
          label="Picture on its price tag"
          value={reward.icon}
          options={[{ value: "", words: "no picture" }, ...pictures.map((p) => ({ value: p.key, words: p.word }))]}
          onSet={(icon) => onSet({ ...reward, icon })}
          width="150px"
        />
      </Flex>
      <chakra.textarea
        {...inputLook}
        aria-label="What viewers read about it"
        rows={2}
        py="1.5"
        width="100%"
        maxLength={200}
        placeholder="What viewers read about it"
        value={reward.about}
        onChange={(e) => onSet({ ...reward, about: e.currentTarget.value })}
      />
      <Box fontSize="16px">
        <SentenceForm
          sentences={rewardSentences(reward, pointsName)}
          settings={formOf(reward)}
          onChange={(path, value) => onSet(put(reward, path, value))}
        />
      </Box>
      <PriceChart reward={reward} points={pointsName} />
      <Box>
        <Flex align="center" gap="3" mb="1">
          <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="16px">
            When it is bought
          </Text>
          <Hear reward={reward} available={available} />
        </Flex>
        <EffectList
          label="What happens when it is bought"
          effects={reward.effects}
          asked={{ when: "redemption", fixed: true }}
          variables={variablesOf["redemption"] ?? []}
          available={available}
          onSet={(effects) => onSet({ ...reward, effects })}
        />
      </Box>
      <chakra.details fontSize="15.5px">
        <summary>
          {reward.codes.length === 0
            ? "Codes to hand out, one to each buyer"
            : `${counted(reward.codes.length, "code")} to hand out, one to each buyer`}
        </summary>
        <chakra.textarea
          {...inputLook}
          aria-label="Codes, one a line; the buyer sees theirs on the viewer page alone"
          rows={3}
          width="100%"
          py="1.5"
          mt="1"
          fontFamily="mono"
          placeholder="one code a line, in the order they are handed out; the buyer sees theirs on the viewer page alone"
          defaultValue={reward.codes.join("\n")}
          onBlur={(e) =>
            onSet({
              ...reward,
              codes: e.currentTarget.value
                .split("\n")
                .map((c) => c.trim().slice(0, 120))
                .filter((c) => c !== "")
                .slice(0, 2_000),
            })
          }
        />
      </chakra.details>
      <Kept reward={reward} onSet={onSet} />
      <Flex gap="2" align="center" wrap="wrap" fontSize="15.5px">
        Bought on the platform with its own points as{" "}
        <Pick
          label="What the platform sells as this"
          value={reward.partner}
          options={[
            { value: "", words: seen.length === 0 ? "nothing (none was seen yet)" : "nothing" },
            ...seen.map((s) => ({ value: s.item, words: s.title })),
            ...(reward.partner !== "" && !seen.some((s) => s.item === reward.partner)
              ? [{ value: reward.partner, words: "one seen before" }]
              : []),
          ]}
          onSet={(partner) => onSet({ ...reward, partner })}
        />
      </Flex>
      {hints.map((hint) => (
        <Box key={hint} bg="note" borderRadius="6px" px="3" py="1.5" fontSize="15px">
          {hint}
        </Box>
      ))}
    </Stack>
  );
}

/** Kept for one viewer, who is found by name and never retyped elsewhere. */
function Kept({ reward, onSet }: Readonly<{ reward: Reward; onSet: (reward: Reward) => void }>) {
  const [name, setName] = useState("");
  const find = async (): Promise<void> => {
    const found = await call<readonly { id: string; name: string }[]>("GET", `/people?q=${encodeURIComponent(name)}`);
    if (!found.ok) return tellTrouble(found.words);
    const [one] = found.value;
    if (one === undefined) return tellTrouble(`Nobody called ${name} has points here.`);
    onSet({ ...reward, keptFor: one.id });
    tell(`Kept for ${one.name}.`);
    setName("");
  };
  return (
    <Flex gap="2" align="center" wrap="wrap" fontSize="15.5px">
      {reward.keptFor === "" ? (
        "For everyone it may be sold to; or kept for"
      ) : (
        <span>
          Kept for <b>{reward.keptFor}</b> alone; or for
        </span>
      )}
      <chakra.input
        {...inputLook}
        aria-label="Keep it for this viewer"
        placeholder="a viewer’s name"
        width="150px"
        value={name}
        onChange={(e) => setName(e.currentTarget.value)}
      />
      <Button size="xs" variant="outline" disabled={name.trim() === ""} onClick={() => void find()}>
        Keep
      </Button>
      {reward.keptFor !== "" && (
        <Button size="xs" variant="ghost" onClick={() => onSet({ ...reward, keptFor: "" })}>
          For everyone again
        </Button>
      )}
    </Flex>
  );
}

/** Plays the first sound of a reward at the level it will have, here only. */
function Hear({ reward, available }: Readonly<{ reward: Reward; available: Available }>) {
  const [playing, setPlaying] = useState(false);
  const audio = useRef<HTMLAudioElement | null>(null);
  useEffect(() => () => audio.current?.pause(), []);
  const effect = reward.effects.find((d) => (d.do === "sound" || d.do === "show") && d.sound !== "");
  const sound = effect !== undefined && "sound" in effect ? available.props.find((p) => p.id === effect.sound) : undefined;
  if (effect === undefined || !("volume" in effect) || sound === undefined) return null;
  const flip = (): void => {
    if (playing) {
      audio.current?.pause();
      return setPlaying(false);
    }
    const made = new Audio(sound.url);
    made.volume = effect.volume / 100;
    made.onended = () => setPlaying(false);
    audio.current = made;
    made.play().then(
      () => setPlaying(true),
      () => tellTrouble(`${sound.name} can’t be played here.`),
    );
  };
  return (
    <Button size="xs" variant="outline" onClick={flip} aria-label={`${playing ? "Stop" : "Hear"} ${sound.name} at its level`}>
      {playing ? <Square size={14} /> : <Play size={14} />} {playing ? "Stop" : "Hear it"} · {seconds(sound.ms)} at {effect.volume} %
    </Button>
  );
}
