"use client";
import { Flex } from "@chakra-ui/react";
import type { Deed } from "../../../../core/rules/deeds";
import { NumberField } from "../../../../ui/number-field";
import { Pick } from "../../../../ui/pick";
import { SpriteView } from "../../../../ui/sprite-view";
import { TemplateField } from "../../../../ui/template-field";
import { laneChoices, type Parts, propChoices } from "./parts";

type Shown = Extract<Deed, { do: "show" }>;
/** A picture, a text, a sound, or all of them, where and how long. */
export function ShowForm({
  deed,
  variables,
  parts,
  onSet,
}: Readonly<{ deed: Shown; variables: readonly string[]; parts: Parts; onSet: (deed: Shown) => void }>) {
  const props = propChoices(parts);
  const lanes = laneChoices(parts);
  const picture = parts.pictures.find((s) => s.key === `prop:${deed.picture}`);
  const look = (part: Partial<typeof deed.look>): void => onSet({ ...deed, look: { ...deed.look, ...part } });
  return (
    <>
      <Flex gap="2" align="center" wrap="wrap">
        Show {picture !== undefined && <SpriteView sprite={picture} size={34} />}
        <Pick label="Picture" value={deed.picture} options={props("picture")} onSet={(p) => onSet({ ...deed, picture: p })} />
        with
        <Pick label="Sound" value={deed.sound} options={props("sound")} onSet={(sound) => onSet({ ...deed, sound })} />
      </Flex>
      <Flex gap="2" align="start" mt="1">
        <TemplateField
          label="Text shown"
          value={deed.text}
          variables={variables}
          placeholder="and a text, if wanted"
          onSet={(text) => onSet({ ...deed, text })}
        />
      </Flex>
      for{" "}
      <NumberField label="How long" value={deed.ms} min={500} max={120_000} scale={1000} unit="s" onSet={(ms) => onSet({ ...deed, ms })} />
      {deed.sound === "" ? "" : " or until the sound ends"},{" "}
      <Pick label="Queue" value={deed.lane} options={lanes} onSet={(lane) => onSet({ ...deed, lane })} />;{" "}
      <NumberField
        label="Size, percent of the picture’s height"
        value={Math.round(deed.look.size * 100)}
        min={3}
        max={100}
        unit="% high"
        onSet={(v) => look({ size: v / 100 })}
      />
      ,{" "}
      <NumberField
        label="From the left, percent"
        value={Math.round(deed.look.x * 100)}
        min={0}
        max={100}
        unit="% from the left"
        onSet={(v) => look({ x: v / 100 })}
      />
      ,{" "}
      <NumberField
        label="From above, percent"
        value={Math.round(deed.look.y * 100)}
        min={0}
        max={100}
        unit="% from above"
        onSet={(v) => look({ y: v / 100 })}
      />
      ,{" "}
      <Pick
        label="Entrance"
        value={deed.look.entrance}
        options={[
          { value: "spring", words: "springs up" },
          { value: "slide", words: "slides in" },
          { value: "fade", words: "fades in" },
        ]}
        onSet={(e) => look({ entrance: e === "slide" || e === "fade" ? e : "spring" })}
      />
    </>
  );
}
