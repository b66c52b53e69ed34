"use client";
import { Box, Button, chakra, Flex, Menu, Portal, Stack, Text } from "@chakra-ui/react";
import { ArrowDown, ArrowUp, Plus, Trash2 } from "lucide-react";
import type { ReactNode } from "react";
import { motions } from "../../../../core/games/emote-wall/settings";
import { motionWords } from "../../../../core/games/emote-wall/words";
import { type Deed, mostDeeds } from "../../../../core/rules/deeds";
import type { When } from "../../../../core/rules/settings";
import { amountInWords, unitOf } from "../../../../core/rules/words";
import { NumberField } from "../../../../ui/number-field";
import { Pick } from "../../../../ui/pick";
import { SpriteView } from "../../../../ui/sprite-view";
import { TemplateField } from "../../../../ui/template-field";
import { deedKinds, newDeed, type Parts } from "./parts";

type Props = Readonly<{
  label: string;
  deeds: readonly Deed[];
  when: When | "cue";
  variables: readonly string[];
  parts: Parts;
  onSet: (deeds: Deed[]) => void;
}>;

/** What happens, one after another. */
export function DeedList({ label, deeds, when, variables, parts, onSet }: Props) {
  const put = (i: number, deed: Deed): void => onSet(deeds.map((d, k) => (k === i ? deed : d)));
  const move = (i: number, by: number): void => {
    const next = [...deeds];
    const [taken] = next.splice(i, 1);
    if (taken !== undefined) next.splice(i + by, 0, taken);
    onSet(next);
  };
  return (
    <Box>
      <Stack gap="2" role="list" aria-label={label}>
        {deeds.map((deed, i) => (
          <Flex key={i} role="listitem" gap="2" align="start" borderLeftWidth="3px" borderColor="line" pl="3" data-deed={deed.do}>
            <Box flex="1" minW="0" fontSize="15.5px" lineHeight="2">
              <DeedForm deed={deed} when={when} variables={variables} parts={parts} onSet={(d) => put(i, d)} />
            </Box>
            <Flex>
              <Button size="xs" variant="ghost" px="1" aria-label="Earlier" disabled={i === 0} onClick={() => move(i, -1)}>
                <ArrowUp size={15} />
              </Button>
              <Button size="xs" variant="ghost" px="1" aria-label="Later" disabled={i === deeds.length - 1} onClick={() => move(i, 1)}>
                <ArrowDown size={15} />
              </Button>
              <Button size="xs" variant="ghost" px="1" aria-label="Take it out" onClick={() => onSet(deeds.filter((_, k) => k !== i))}>
                <Trash2 size={15} />
              </Button>
            </Flex>
          </Flex>
        ))}
      </Stack>
      <Menu.Root positioning={{ placement: "bottom-start" }}>
        <Menu.Trigger asChild>
          <Button size="xs" variant="outline" mt="2" disabled={deeds.length >= mostDeeds}>
            <Plus size={15} aria-hidden="true" /> {deeds.length === 0 ? "Choose what happens" : "And then"}
          </Button>
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content>
              {deedKinds
                .filter(({ kind }) => kind !== "cue" || (when !== "cue" && parts.cues.length > 0))
                .map(({ kind, words }) => (
                  <Menu.Item key={kind} value={kind} onClick={() => onSet([...deeds, newDeed(kind, parts)])}>
                    {words}
                  </Menu.Item>
                ))}
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
    </Box>
  );
}

function DeedForm({
  deed,
  when,
  variables,
  parts,
  onSet,
}: Readonly<{ deed: Deed; when: When | "cue"; variables: readonly string[]; parts: Parts; onSet: (deed: Deed) => void }>): ReactNode {
  const games = (kind: string) => parts.games.filter((g) => kind === "" || g.kind === kind).map((g) => ({ value: g.id, words: g.name }));
  const props = (kind: "picture" | "sound") => [
    { value: "", words: kind === "picture" ? "no picture" : "no sound" },
    ...parts.props.filter((p) => p.kind === kind).map((p) => ({ value: p.id, words: p.name })),
  ];
  const lanes = [
    { value: "", words: "at once, beside all else" },
    ...parts.lanes.map((l) => ({ value: l.id, words: `in its turn: ${l.name.toLowerCase()}` })),
  ];
  switch (deed.do) {
    case "damage": {
      const unit = when === "cue" ? "" : unitOf(when);
      return (
        <>
          <Pick
            label="Hit or heal"
            value={deed.how}
            options={[
              { value: "damage", words: "Hit" },
              { value: "heal", words: "Heal" },
            ]}
            onSet={(how) => onSet({ ...deed, how: how === "heal" ? "heal" : "damage" })}
          />{" "}
          <Pick label="Which boss" value={deed.game} options={games("boss-battle")} onSet={(game) => onSet({ ...deed, game })} /> by{" "}
          <NumberField
            label="By how much"
            value={deed.rate.give}
            min={0}
            max={1_000_000_000}
            onSet={(give) => onSet({ ...deed, rate: { ...deed.rate, give } })}
          />
          {unit !== "" && (
            <>
              {" "}
              for every{" "}
              <NumberField
                label={`For how much: ${when === "cue" ? "" : amountInWords(when, deed.rate.per, parts.home)}`}
                value={deed.rate.per}
                min={1}
                max={1_000_000_000}
                scale={unit === "money" ? 100 : 1}
                unit={unit === "money" ? parts.home : unit === "value" ? "they are worth" : unit}
                onSet={(per) => onSet({ ...deed, rate: { ...deed.rate, per } })}
              />
            </>
          )}
        </>
      );
    }
    case "flock":
      return (
        <>
          A flock of{" "}
          <NumberField label="How many emotes" value={deed.count} min={1} max={2_000} onSet={(count) => onSet({ ...deed, count })} /> over{" "}
          <NumberField
            label="Over which time"
            value={deed.overMs}
            min={0}
            max={60_000}
            scale={1000}
            unit="s"
            onSet={(overMs) => onSet({ ...deed, overMs })}
          />{" "}
          <Pick
            label="Of which emotes"
            value={deed.from}
            options={[
              ...(when === "message" ? [{ value: "message", words: "of the message’s emotes" }] : []),
              ...(when === "reaction" ? [{ value: "message", words: "of their own picture, the prop of that name" }] : []),
              { value: "most-used", words: "of those written most lately" },
              { value: "chosen", words: "of chosen ones" },
            ]}
            onSet={(from) => onSet({ ...deed, from: from === "chosen" || from === "message" ? from : "most-used" })}
          />{" "}
          on <Pick label="On which wall" value={deed.game} options={games("emote-wall")} onSet={(game) => onSet({ ...deed, game })} />,{" "}
          <Pick
            label="How the flock moves"
            value={deed.motion}
            options={[{ value: "", words: "as the wall’s flocks do" }, ...motions.map((m) => ({ value: m, words: motionWords[m].name }))]}
            onSet={(motion) => onSet({ ...deed, motion })}
          />
          {deed.from === "chosen" && (
            <Flex gap="1" wrap="wrap" mt="1" role="group" aria-label="Chosen emotes">
              {parts.emotes.map((sprite) => {
                const on = deed.chosen.includes(sprite.key);
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
                    onClick={() =>
                      onSet({ ...deed, chosen: on ? deed.chosen.filter((k) => k !== sprite.key) : [...deed.chosen, sprite.key] })
                    }
                  >
                    <SpriteView sprite={sprite} size={28} />
                  </chakra.button>
                );
              })}
            </Flex>
          )}
        </>
      );
    case "show": {
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
          <NumberField
            label="How long"
            value={deed.ms}
            min={500}
            max={120_000}
            scale={1000}
            unit="s"
            onSet={(ms) => onSet({ ...deed, ms })}
          />
          {deed.sound === "" ? "" : " or until the sound ends"},{" "}
          <Pick label="Lane" value={deed.lane} options={lanes} onSet={(lane) => onSet({ ...deed, lane })} />;{" "}
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
    case "sound":
      return (
        <>
          Play <Pick label="Sound" value={deed.sound} options={props("sound")} onSet={(sound) => onSet({ ...deed, sound })} /> at{" "}
          <NumberField label="Volume" value={deed.volume} min={0} max={100} unit="%" onSet={(volume) => onSet({ ...deed, volume })} />,{" "}
          <Pick label="Lane" value={deed.lane} options={lanes} onSet={(lane) => onSet({ ...deed, lane })} />
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
    case "tell-rules":
      return (
        <>
          Tell the rules of{" "}
          <Pick label="Of which game" value={deed.game} options={games("boss-battle")} onSet={(game) => onSet({ ...deed, game })} /> in chat
        </>
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
          <Pick label="Which game" value={deed.game} options={games("")} onSet={(game) => onSet({ ...deed, game })} />
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
