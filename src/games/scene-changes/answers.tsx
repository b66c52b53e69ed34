"use client";
import { Box, Flex, Stack, Text } from "@chakra-ui/react";
import { type AnsweredKind, answeredKinds, type StudioSettings } from "../../core/games/scene-changes/settings";
import { kindWords } from "../../core/games/scene-changes/words";
import { Pick } from "../../ui/pick";
import { Tick } from "../../ui/tick";
import type { LooksProps } from "../shown";

/** Which scene each kind of happening goes to, and from which. The scenes are those that the studio tells. */
export function SceneAnswers({ settings, scenes = [], onChange }: LooksProps) {
  const { answers } = settings as StudioSettings;
  return (
    <Box mt="5" data-testid="scene-answers">
      <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="17px">
        The scenes
      </Text>
      <Text color="inkSoft" fontSize="15px" mb="2">
        {scenes.length === 0
          ? "No studio has told its scenes yet: connect one under Connections. What is chosen already stays."
          : "As the studio names them. Whether, from how much on and for how long, the sentences above say."}
      </Text>
      <Stack gap="1.5" role="list" aria-label="The scene of each happening">
        {answeredKinds.map((kind) => (
          <Row key={kind} kind={kind} answer={answers[kind]} scenes={scenes} onChange={onChange} />
        ))}
      </Stack>
    </Box>
  );
}

function Row({
  kind,
  answer,
  scenes,
  onChange,
}: Readonly<{
  kind: AnsweredKind;
  answer: StudioSettings["answers"][AnsweredKind];
  scenes: readonly string[];
  onChange: LooksProps["onChange"];
}>) {
  const { scene, onlyIn, on } = answer;
  const all = [
    ...scenes,
    ...[scene, ...onlyIn].filter((name, i, list) => name !== "" && !scenes.includes(name) && list.indexOf(name) === i),
  ];
  const words = (name: string): string => (scenes.includes(name) ? name : `${name} (not there now)`);
  return (
    <Box role="listitem" bg="raised" borderRadius="8px" px="3" py="1.5">
      <Flex gap="2" align="center" wrap="wrap">
        <Text width="170px" fontWeight="600">
          {kindWords[kind]}
        </Text>
        <Pick
          label={`Scene: ${kindWords[kind]}`}
          value={scene}
          options={[{ value: "", words: "no scene" }, ...all.map((name) => ({ value: name, words: words(name) }))]}
          onSet={(name) => {
            onChange(`answers.${kind}.scene`, name);
            // Who picks a scene wants it to be gone to.
            if (name !== "" && scene === "" && !on) onChange(`answers.${kind}.on`, true);
          }}
        />
        {!on && (
          <Text color="inkSoft" fontSize="15px">
            is off
          </Text>
        )}
      </Flex>
      {scene !== "" && all.length > 1 && (
        <Flex gap="3" wrap="wrap" align="center" mt="1" role="group" aria-label={`From which scenes: ${kindWords[kind]}`}>
          <Text fontSize="15px" color="inkSoft">
            {onlyIn.length === 0 ? "from any scene; only from:" : "only from:"}
          </Text>
          {all
            .filter((name) => name !== scene)
            .map((name) => (
              <Tick
                key={name}
                label={words(name)}
                value={onlyIn.includes(name)}
                onSet={(tick) => onChange(`answers.${kind}.onlyIn`, tick ? [...onlyIn, name] : onlyIn.filter((n) => n !== name))}
              />
            ))}
        </Flex>
      )}
    </Box>
  );
}
