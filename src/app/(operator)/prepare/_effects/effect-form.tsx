"use client";
import { Flex, Text } from "@chakra-ui/react";
import type { ReactNode } from "react";
import type { RuleEffect } from "../../../../core/rules/effect";
import type { Asked } from "../../../../core/rules/notes";
import { NumberField } from "../../../../ui/number-field";
import { Pick } from "../../../../ui/pick";
import { TemplateField } from "../../../../ui/template-field";
import { ActForm } from "./act-form";
import { queueChoices, type Available, propChoices } from "./available";
import { ShowForm } from "./show-form";

/** One thing that happens, as a sentence with blanks. */
export function EffectForm({
  effect,
  asked,
  variables,
  available,
  onSet,
}: Readonly<{
  effect: RuleEffect;
  asked: Asked;
  variables: readonly string[];
  available: Available;
  onSet: (effect: RuleEffect) => void;
}>): ReactNode {
  const props = propChoices(available);
  const queues = queueChoices(available);
  switch (effect.do) {
    case "act":
      return <ActForm effect={effect} asked={asked} available={available} onSet={onSet} />;
    case "show":
      return <ShowForm effect={effect} variables={variables} available={available} onSet={onSet} />;
    case "sound":
      return (
        <>
          Play <Pick label="Sound" value={effect.sound} options={props("sound")} onSet={(sound) => onSet({ ...effect, sound })} /> at{" "}
          <NumberField label="Volume" value={effect.volume} min={0} max={100} unit="%" onSet={(volume) => onSet({ ...effect, volume })} />,{" "}
          <Pick label="Queue" value={effect.queue} options={queues} onSet={(queue) => onSet({ ...effect, queue })} />
        </>
      );
    case "say":
      return (
        <Flex gap="2" align="start">
          <Text flexShrink="0">Say</Text>
          <TemplateField
            label="Said in chat"
            value={effect.text}
            variables={variables}
            placeholder="what chat is told"
            onSet={(text) => onSet({ ...effect, text })}
          />
        </Flex>
      );
    case "switch":
      return (
        <>
          <Pick
            label="Start or stop"
            value={effect.on ? "on" : "off"}
            options={[
              { value: "on", words: "Start" },
              { value: "off", words: "Stop" },
            ]}
            onSet={(v) => onSet({ ...effect, on: v === "on" })}
          />{" "}
          <Pick
            label="Which game"
            value={effect.game}
            options={available.games.map((g) => ({ value: g.id, words: g.name }))}
            onSet={(game) => onSet({ ...effect, game })}
          />
        </>
      );
    case "cue":
      return (
        <>
          Fire the cue{" "}
          <Pick
            label="Which cue"
            value={effect.cue}
            options={available.cues.map((c) => ({ value: c.id, words: c.name }))}
            onSet={(cue) => onSet({ ...effect, cue })}
          />
        </>
      );
    case "wait":
      return (
        <>
          Wait{" "}
          <NumberField
            label="How long to wait"
            value={effect.ms}
            min={100}
            max={600_000}
            scale={1000}
            unit="s"
            onSet={(ms) => onSet({ ...effect, ms })}
          />
          , then
        </>
      );
  }
}
