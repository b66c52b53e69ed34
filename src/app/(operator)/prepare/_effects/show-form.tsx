"use client";
import { Flex } from "@chakra-ui/react";
import { entrances, exits } from "../../../../core/alerts/alert";
import type { RuleEffect } from "../../../../core/rules/effect";
import { NumberField } from "../../../../ui/number-field";
import { Pick } from "../../../../ui/pick";
import { SpriteView } from "../../../../ui/sprite-view";
import { TemplateField } from "../../../../ui/template-field";
import { queueChoices, type Available, propChoices } from "./available";

type Shown = Extract<RuleEffect, { do: "show" }>;
/** A picture, a text, a sound, or all of them, where and how long. */
export function ShowForm({
  effect,
  variables,
  available,
  onSet,
}: Readonly<{ effect: Shown; variables: readonly string[]; available: Available; onSet: (effect: Shown) => void }>) {
  const props = propChoices(available);
  const queues = queueChoices(available);
  const picture = available.pictures.find((s) => s.key === `prop:${effect.picture}`);
  const look = (part: Partial<typeof effect.look>): void => onSet({ ...effect, look: { ...effect.look, ...part } });
  return (
    <>
      <Flex gap="2" align="center" wrap="wrap">
        Show {picture !== undefined && <SpriteView sprite={picture} size={34} />}
        <Pick label="Picture" value={effect.picture} options={props("picture")} onSet={(p) => onSet({ ...effect, picture: p })} />
        with
        <Pick label="Sound" value={effect.sound} options={props("sound")} onSet={(sound) => onSet({ ...effect, sound })} />
      </Flex>
      <Flex gap="2" align="start" mt="1">
        <TemplateField
          label="Text shown"
          value={effect.text}
          variables={variables}
          placeholder="and a text, if wanted"
          onSet={(text) => onSet({ ...effect, text })}
        />
      </Flex>
      for{" "}
      <NumberField
        label="How long"
        value={effect.ms}
        min={500}
        max={120_000}
        scale={1000}
        unit="s"
        onSet={(ms) => onSet({ ...effect, ms })}
      />
      {effect.sound === "" && picture?.video === undefined ? "" : effect.sound === "" ? " or until it ends" : " or until the sound ends"},{" "}
      <Pick label="Queue" value={effect.queue} options={queues} onSet={(queue) => onSet({ ...effect, queue })} />;{" "}
      <Pick
        label="How large"
        value={effect.look.whole === true ? "whole" : "placed"}
        options={[
          { value: "placed", words: "placed," },
          { value: "whole", words: "over all of the picture" },
        ]}
        onSet={(v) => look({ whole: v === "whole" })}
      />
      {effect.look.whole !== true && (
        <>
          {" "}
          <NumberField
            label="Size, percent of the picture’s height"
            value={Math.round(effect.look.size * 100)}
            min={3}
            max={100}
            unit="% high"
            onSet={(v) => look({ size: v / 100 })}
          />
          ,{" "}
          <NumberField
            label="From the left, percent"
            value={Math.round(effect.look.x * 100)}
            min={0}
            max={100}
            unit="% from the left"
            onSet={(v) => look({ x: v / 100 })}
          />
          ,{" "}
          <NumberField
            label="From above, percent"
            value={Math.round(effect.look.y * 100)}
            min={0}
            max={100}
            unit="% from above"
            onSet={(v) => look({ y: v / 100 })}
          />
        </>
      )}
      ,{" "}
      <Pick
        label="Entrance"
        value={effect.look.entrance}
        options={[
          { value: "spring", words: "springs up" },
          { value: "slide", words: "slides in" },
          { value: "drop", words: "drops and lands" },
          { value: "rise", words: "rises" },
          { value: "turn", words: "turns over" },
          { value: "fade", words: "fades in" },
        ]}
        onSet={(e) => look({ entrance: entrances.find((known) => known === e) ?? "spring" })}
      />
      , and{" "}
      <Pick
        label="Exit"
        value={effect.look.exit}
        options={[
          { value: "shrink", words: "shrinks away" },
          { value: "sink", words: "sinks" },
          { value: "fly", words: "flies off" },
          { value: "fade", words: "fades out" },
        ]}
        onSet={(e) => look({ exit: exits.find((known) => known === e) ?? "shrink" })}
      />
    </>
  );
}
