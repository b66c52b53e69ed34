"use client";
import { Box, Button, chakra, Flex, Stack, Text } from "@chakra-ui/react";
import { Play, Plus, Trash2 } from "lucide-react";
import { useRef, useState } from "react";
import { mostVoices, type VoicesSettings } from "../../core/games/voices/settings";
import { roles, roleWords, type Role } from "../../core/signals/names";
import { offered, offeredOf, timbres, timbreWords } from "../../core/speech/catalogue";
import type { Voice } from "../../core/speech/voice";
import { counted } from "../../core/words/sentence";
import { IconButton } from "../../ui/icon-button";
import { inputLook } from "../../ui/input-look";
import { ListField } from "../../ui/list-field";
import { NumberField } from "../../ui/number-field";
import { Pick } from "../../ui/pick";
import { RowName } from "../../ui/row-name";
import type { LooksProps } from "../shown";

const freshId = (): string => `v${Date.now().toString(36)}`;
const byMark = (voice: Voice): string => `${voice.engine}/${voice.mark}`;

/** The voices one keeps, to hear and to name; which word and which role speaks in which; and how names are said. */
export function VoicesList({ settings, onChange }: LooksProps) {
  const { voices, words, byRole, said } = settings as VoicesSettings;
  const [trouble, setTrouble] = useState("");
  const [playing, setPlaying] = useState("");
  const sound = useRef<HTMLAudioElement | null>(null);
  const put = (next: readonly Voice[]): void => onChange("voices", next);
  const set = (id: string, part: Partial<Voice>): void => put(voices.map((v) => (v.id === id ? { ...v, ...part } : v)));
  const choices = [{ value: "", words: "the usual voice" }, ...voices.map((v) => ({ value: v.id, words: v.name }))];
  const hear = async (voice: Voice): Promise<void> => {
    setTrouble("");
    setPlaying(voice.id);
    sound.current?.pause();
    const answer = await fetch("/api/speech", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ voice }),
    }).catch(() => null);
    // Our own server of the same build answers.
    const told = (await answer?.json().catch(() => null)) as { ok?: boolean; value?: { url: string }; words?: string } | null | undefined;
    if (told?.ok !== true || told.value === undefined) {
      setPlaying("");
      return setTrouble(told?.words ?? "It can’t be heard at the moment. Try again.");
    }
    const audio = new Audio(told.value.url);
    sound.current = audio;
    audio.volume = voice.level / 100;
    audio.onended = () => setPlaying("");
    await audio.play().catch(() => {
      setPlaying("");
      setTrouble("The browser does not let this page make sound yet: click once more.");
    });
  };
  return (
    <Box mt="5" data-testid="voices-list">
      <Flex align="baseline" gap="3" mb="2" wrap="wrap">
        <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="17px">
          The voices
        </Text>
        <Text color="inkSoft" fontSize="15px" flex="1">
          {counted(voices.length, "voice")}; the first is the usual one
        </Text>
        <Button
          size="xs"
          variant="outline"
          disabled={voices.length >= mostVoices}
          onClick={() => put([...voices, { ...(voices[0] as Voice), id: freshId(), name: `Voice ${voices.length + 1}` }])}
        >
          <Plus size={15} aria-hidden="true" /> Add
        </Button>
      </Flex>
      <Stack gap="2" role="list" aria-label="Voices">
        {voices.map((voice, i) => (
          <Box key={voice.id} role="listitem" bg="raised" borderRadius="8px" px="3" py="2" data-voice={voice.id}>
            <Flex gap="2" align="center">
              <Button
                size="xs"
                variant="outline"
                aria-label={`Hear ${voice.name}`}
                loading={playing === voice.id && sound.current === null}
                onClick={() => void hear(voice)}
              >
                <Play size={14} aria-hidden="true" /> Hear
              </Button>
              <RowName label={`Name of voice ${i + 1}`} value={voice.name} most={40} onSet={(name) => set(voice.id, { name })} />
              <IconButton
                label={`Remove ${voice.name}`}
                disabled={voices.length < 2}
                onClick={() => put(voices.filter((v) => v !== voice))}
              >
                <Trash2 size={16} aria-hidden="true" />
              </IconButton>
            </Flex>
            <Box fontSize="15.5px" lineHeight="2.1" mt="1">
              <Pick
                label={`Kind of ${voice.name}`}
                value={byMark(voice)}
                options={offered.map((o) => ({ value: `${o.engine}/${o.mark}`, words: o.words }))}
                onSet={(mark) => {
                  const [engine = "", ...rest] = mark.split("/");
                  const next = offeredOf(engine, rest.join("/"));
                  if (next !== null)
                    set(voice.id, { engine: next.engine, mark: next.mark, ...(next.engine === "flite" ? { timbre: "" as const } : {}) });
                }}
              />
              {voice.engine === "espeak" && (
                <>
                  ,{" "}
                  <Pick
                    label={`Timbre of ${voice.name}`}
                    value={voice.timbre}
                    options={timbres.map((t) => ({ value: t, words: timbreWords[t] }))}
                    onSet={(timbre) => set(voice.id, { timbre: timbre as Voice["timbre"] })}
                  />
                </>
              )}
              , pitch{" "}
              <NumberField
                label={`Pitch of ${voice.name}`}
                value={voice.pitch}
                min={0}
                max={100}
                onSet={(pitch) => set(voice.id, { pitch })}
              />
              , pace{" "}
              <NumberField
                label={`Pace of ${voice.name}`}
                value={voice.pace}
                min={80}
                max={300}
                unit="words a minute"
                onSet={(pace) => set(voice.id, { pace })}
              />
              , level{" "}
              <NumberField
                label={`Level of ${voice.name}`}
                value={voice.level}
                min={10}
                max={100}
                unit="%"
                onSet={(level) => set(voice.id, { level })}
              />
            </Box>
          </Box>
        ))}
      </Stack>
      {trouble !== "" && (
        <Text role="alert" color="brickText" mt="2">
          {trouble}
        </Text>
      )}
      <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="17px" mt="5">
        Who speaks in which
      </Text>
      <Stack gap="1" mt="1" fontSize="16px">
        {words.map((w, i) => (
          <Flex key={i} gap="2" align="center" wrap="wrap">
            <Text>What begins with</Text>
            <chakra.input
              {...inputLook}
              width="130px"
              fontFamily="mono"
              aria-label={`Word ${i + 1}`}
              defaultValue={w.word}
              key={w.word}
              onBlur={(e) => {
                const word = e.currentTarget.value.trim();
                if (word !== "" && word !== w.word)
                  onChange(
                    "words",
                    words.map((x, k) => (k === i ? { ...x, word } : x)),
                  );
              }}
            />
            <Text>in</Text>
            <Pick
              label={`Voice of ${w.word}`}
              value={w.voice}
              options={choices}
              onSet={(voice) =>
                onChange(
                  "words",
                  words.map((x, k) => (k === i ? { ...x, voice } : x)),
                )
              }
            />
            <IconButton
              label={`Remove ${w.word}`}
              onClick={() =>
                onChange(
                  "words",
                  words.filter((_, k) => k !== i),
                )
              }
            >
              <Trash2 size={16} aria-hidden="true" />
            </IconButton>
          </Flex>
        ))}
        <Box>
          <Button
            size="xs"
            variant="outline"
            disabled={words.length >= 20}
            onClick={() => onChange("words", [...words, { word: `!say${words.length === 0 ? "" : words.length + 1}`, voice: "" }])}
          >
            <Plus size={15} aria-hidden="true" /> Add a word
          </Button>
        </Box>
        {roles.slice(1).map((role) => (
          <Flex key={role} gap="2" align="center" wrap="wrap">
            <Text>{roleWords[role][0]?.toUpperCase() + roleWords[role].slice(1)} in</Text>
            <Pick
              label={`Voice of ${roleWords[role]}`}
              value={byRole.find((r) => r.role === role)?.voice ?? ""}
              options={choices}
              onSet={(voice) => {
                const others = byRole.filter((r) => r.role !== role);
                // In the order of the roles: of several that somebody has the highest counts.
                const order = (r: Readonly<{ role: Role }>): number => roles.indexOf(r.role);
                onChange(
                  "byRole",
                  (voice === "" ? others : [...others, { role, voice }]).sort((a, b) => order(a) - order(b)),
                );
              }}
            />
          </Flex>
        ))}
      </Stack>
      <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="17px" mt="5">
        How names are said
      </Text>
      <Text color="inkSoft" fontSize="15px">
        One in each line: the name, then “=” and how it is said. All others are said as they are written.
      </Text>
      <ListField
        label="How names are said"
        list={said.map((s) => `${s.name} = ${s.as}`)}
        shape={{ apart: "lines", most: 200, letters: 170 }}
        rows={Math.max(2, Math.min(6, said.length + 1))}
        width="100%"
        placeholder="ferrule7 = feral seven"
        onSet={(list) =>
          onChange(
            "said",
            list.flatMap((line) => {
              const [name = "", ...as] = line.split("=");
              const aloud = as.join("=").trim();
              return name.trim() === "" || aloud === "" ? [] : [{ name: name.trim().slice(0, 80), as: aloud.slice(0, 80) }];
            }),
          )
        }
      />
    </Box>
  );
}
