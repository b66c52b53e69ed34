"use client";
import { Flex, Text } from "@chakra-ui/react";
import type { ReactNode } from "react";
import type { Deed } from "../../../../core/rules/deeds";
import type { Asked } from "../../../../core/rules/words";
import { NumberField } from "../../../../ui/number-field";
import { Pick } from "../../../../ui/pick";
import { TemplateField } from "../../../../ui/template-field";
import { ActForm } from "./act-form";
import { laneChoices, type Parts, propChoices } from "./parts";
import { ShowForm } from "./show-form";

/** One thing that happens, as a sentence with blanks. */
export function DeedForm({
  deed,
  asked,
  variables,
  parts,
  onSet,
}: Readonly<{ deed: Deed; asked: Asked; variables: readonly string[]; parts: Parts; onSet: (deed: Deed) => void }>): ReactNode {
  const props = propChoices(parts);
  const lanes = laneChoices(parts);
  switch (deed.do) {
    case "act":
      return <ActForm deed={deed} asked={asked} parts={parts} onSet={onSet} />;
    case "show":
      return <ShowForm deed={deed} variables={variables} parts={parts} onSet={onSet} />;
    case "sound":
      return (
        <>
          Play <Pick label="Sound" value={deed.sound} options={props("sound")} onSet={(sound) => onSet({ ...deed, sound })} /> at{" "}
          <NumberField label="Volume" value={deed.volume} min={0} max={100} unit="%" onSet={(volume) => onSet({ ...deed, volume })} />,{" "}
          <Pick label="Queue" value={deed.lane} options={lanes} onSet={(lane) => onSet({ ...deed, lane })} />
        </>
      );
    case "say":
      return (
        <Flex gap="2" align="start">
          <Text flexShrink="0">Say</Text>
          <TemplateField
            label="Said in chat"
            value={deed.text}
            variables={variables}
            placeholder="what chat is told"
            onSet={(text) => onSet({ ...deed, text })}
          />
        </Flex>
      );
    case "switch":
      return (
        <>
          <Pick
            label="Start or stop"
            value={deed.on ? "on" : "off"}
            options={[
              { value: "on", words: "Start" },
              { value: "off", words: "Stop" },
            ]}
            onSet={(v) => onSet({ ...deed, on: v === "on" })}
          />{" "}
          <Pick
            label="Which game"
            value={deed.game}
            options={parts.games.map((g) => ({ value: g.id, words: g.name }))}
            onSet={(game) => onSet({ ...deed, game })}
          />
        </>
      );
    case "cue":
      return (
        <>
          Fire the cue{" "}
          <Pick
            label="Which cue"
            value={deed.cue}
            options={parts.cues.map((c) => ({ value: c.id, words: c.name }))}
            onSet={(cue) => onSet({ ...deed, cue })}
          />
        </>
      );
    case "wait":
      return (
        <>
          Wait{" "}
          <NumberField
            label="How long to wait"
            value={deed.ms}
            min={100}
            max={600_000}
            scale={1000}
            unit="s"
            onSet={(ms) => onSet({ ...deed, ms })}
          />
          , then
        </>
      );
  }
}
