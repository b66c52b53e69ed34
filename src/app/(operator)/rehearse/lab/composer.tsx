"use client";
import { Box, Button, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { type EveningLike, eveningInWords, type LabAsk } from "../../../../core/lab/ask";
import { roomNames, roomsInWords } from "../../../../core/lab/crowd";
import { formParts, type Field } from "../../../../core/module/fields";
import { type BlankField, count } from "../../../../core/words/sentence";
import type { LabThing, LabView } from "../../../../server/web/lab";
import { Blank } from "../../../../ui/blank";
import { Pick } from "../../../../ui/pick";
import { Stub } from "../../../../ui/stub";

type Question = LabThing["questions"][number];
type Value = number | string;
const lastShows = [1, 5, 10, 20] as const;
const evenings = [
  ...lastShows.map((n) => ({ value: `last.${n}`, words: eveningInWords({ like: "last", shows: n }) })),
  ...roomNames.map((room) => ({ value: `room.${room}`, words: roomsInWords[room] })),
];
const often = [50, 200, 1_000, 5_000, 10_000] as const;

/** A blank of a question as a blank of a sentence; a name is picked from what the settings hold. */
function blankField(field: Field, lists: Question["lists"]): BlankField {
  if (field.kind === "amount" || field.kind === "whole") return { kind: "whole", min: field.min, max: field.most };
  if (field.kind === "choice") return { kind: "choice", options: field.options };
  if (field.kind === "text" && field.oneOf !== undefined)
    return {
      kind: "choice",
      options: [{ value: "", words: field.oneOf.none }, ...(lists[field.oneOf.list] ?? []).map((name) => ({ value: name, words: name }))],
    };
  return { kind: "text", most: 80, placeholder: "" };
}
const startOf = ({ input }: Question): Record<string, Value> =>
  Object.fromEntries(
    Object.entries(input).map(([name, field]) => [
      name,
      "start" in field && (typeof field.start === "number" || typeof field.start === "string") ? field.start : "",
    ]),
  );

/** A question as it stands in the list of them: with its blanks as they begin. */
const inShort = (question: Question, game: string): string =>
  formParts(question.form)
    .map((part) => {
      if (typeof part === "string") return part;
      if (part.blank === "game") return game;
      if (part.blank === "evening") return "an evening";
      const field = question.input[part.blank];
      if (field?.kind === "choice") return field.options.find((o) => o.value === field.start)?.words ?? "";
      if (field?.kind === "text") return field.start === "" ? (field.oneOf?.none ?? "") : field.start;
      return field !== undefined && "start" in field && typeof field.start === "number" ? count(field.start) : "";
    })
    .join("");

/** Chooses a question, fills its blanks, and asks it; with a setting that were another, if wanted. */
export function Composer({
  things,
  chats,
  about,
  begin,
  onAsk,
}: Readonly<{
  /** Chat from outside, to be asked about evenings like it. */
  chats: LabView["chats"];
  things: readonly LabThing[];
  /** Of what it is asked at first; empty for whatever. */ about: string;
  begin: LabAsk | null;
  onAsk: (ask: LabAsk) => Promise<void>;
}>) {
  const all = things.flatMap((thing) => thing.questions.map((question) => ({ thing, question, key: `${thing.id} ${question.id}` })));
  const [key, setKey] = useState(
    begin === null ? ((all.find((a) => a.thing.id === about) ?? all[0])?.key ?? "") : `${begin.module} ${begin.question}`,
  );
  const chosen = all.find((a) => a.key === key) ?? all[0];
  const [given, setGiven] = useState<Readonly<Record<string, Value>>>(begin?.input ?? {});
  const [evening, setEvening] = useState<EveningLike>(begin?.evening ?? { like: "last", shows: 10 });
  const [hours, setHours] = useState(begin?.evening.like === "room" ? begin.evening.hours : 3);
  const [n, setN] = useState<number | null>(begin?.n ?? null);
  const [instead, setInstead] = useState<LabAsk["instead"]>(begin?.instead ?? null);
  const [asking, setAsking] = useState(false);
  if (chosen === undefined) return null;
  const { thing, question } = chosen;
  // Where all of the channel plays along, an evening takes a hundred times as long.
  const played = n ?? (question.whole ? 200 : 1_000);
  const input = { ...startOf(question), ...Object.fromEntries(Object.entries(given).filter(([name]) => name in question.input)) };
  const setting = thing.settings.find((s) => s.path === instead?.path) ?? null;
  const send = async (): Promise<void> => {
    setAsking(true);
    const like = evening.like === "room" ? { ...evening, hours } : evening;
    await onAsk({ module: thing.id, question: question.id, input, evening: like, instead: setting === null ? null : instead, n: played });
    setAsking(false);
  };
  return (
    <Stub
      data-testid="composer"
      end={
        <Button colorPalette="ochre" fontWeight="700" loading={asking} onClick={() => void send()}>
          Ask
        </Button>
      }
    >
      <Flex gap="2" align="center" mb="2.5" wrap="wrap">
        <Text fontSize="15px" color="inkSoft">
          About
        </Text>
        <Pick
          label="What is asked about"
          value={key}
          options={all.map((a) => ({ value: a.key, words: `${a.thing.name}: ${inShort(a.question, a.thing.name)}` }))}
          onSet={(next) => {
            setKey(next);
            if (!next.startsWith(`${thing.id} `)) setInstead(null);
          }}
          width="min(640px, 100%)"
        />
      </Flex>
      <Text as="p" fontSize="19px" lineHeight="1.8" data-testid="question">
        {formParts(question.form).map((part, i) => {
          if (typeof part === "string") return part;
          if (part.blank === "game") return <b key={i}>{thing.name}</b>;
          if (part.blank === "evening")
            return (
              <Blank
                key={i}
                blank={{
                  path: "evening",
                  label: "On which evening",
                  text: "",
                  field: {
                    kind: "choice",
                    options: [...evenings, ...chats.map((c) => ({ value: `log.${c.id}`, words: eveningInWords(likeChat(c)) }))],
                  },
                }}
                value={valueOf(evening)}
                onChange={(value) => setEvening(eveningOf(String(value), hours, chats))}
              />
            );
          const field = question.input[part.blank];
          if (field === undefined) return `{${part.blank}}`;
          return (
            <Blank
              key={i}
              blank={{ path: part.blank, label: field.label ?? part.blank, text: "", field: blankField(field, question.lists) }}
              value={input[part.blank]}
              onChange={(value) => setGiven({ ...given, [part.blank]: value as Value })}
            />
          );
        })}
      </Text>
      {question.crowd && evening.like === "room" && (
        <Text as="p" fontSize="16px" mt="1">
          It lasts{" "}
          <Blank
            blank={{ path: "hours", label: "Hours of the evening", text: "", field: { kind: "whole", min: 1, max: 12 } }}
            value={hours}
            onChange={(value) => setHours(Number(value))}
          />{" "}
          {hours === 1 ? "hour" : "hours"}.
        </Text>
      )}
      {thing.settings.length > 0 && (
        <Flex as="p" mt="2.5" gap="2" align="baseline" wrap="wrap" fontSize="16px" data-testid="instead">
          And the same, if{" "}
          <Pick
            label="Which setting"
            value={instead?.path ?? ""}
            options={[
              { value: "", words: "nothing were otherwise" },
              ...thing.settings.map((s) => ({ value: s.path, words: `${s.label.toLowerCase()}` })),
            ]}
            onSet={(path) => {
              const next = thing.settings.find((s) => s.path === path);
              setInstead(next === undefined ? null : { path, value: next.value });
            }}
            width="min(320px, 100%)"
          />
          {setting !== null && instead !== null && (
            <Box as="span">
              were{" "}
              <Blank
                key={setting.path}
                blank={{ path: setting.path, label: `${setting.label}, if it were`, text: "", field: setting.field }}
                value={instead.value}
                onChange={(value) => setInstead({ path: setting.path, value: value as number | string | boolean })}
              />
              <Text as="span" color="inkSoft" fontSize="15px">
                {" "}
                (now: “{setting.sentence}”)
              </Text>
            </Box>
          )}
        </Flex>
      )}
      <Text as="p" mt="2" fontSize="15px" color="inkSoft">
        Played through{" "}
        <Blank
          blank={{
            path: "n",
            label: "How many evenings",
            text: "",
            field: { kind: "choice", options: often.map((o) => ({ value: String(o), words: o.toLocaleString("en-GB") })) },
          }}
          value={String(played)}
          onChange={(value) => setN(Number(value))}
        />{" "}
        evenings: more are slower, and surer.
      </Text>
    </Stub>
  );
}

const likeChat = ({ id, name }: LabView["chats"][number]): EveningLike => ({ like: "log", log: id, name });
const valueOf = (evening: EveningLike): string =>
  evening.like === "last" ? `last.${evening.shows}` : evening.like === "log" ? `log.${evening.log}` : `room.${evening.room}`;
function eveningOf(value: string, hours: number, chats: LabView["chats"]): EveningLike {
  const [like, of = ""] = value.split(".");
  const room = roomNames.find((r) => r === of);
  if (like === "room" && room !== undefined) return { like: "room", room, hours };
  const chat = chats.find((c) => c.id === of);
  return like === "log" && chat !== undefined ? likeChat(chat) : { like: "last", shows: Number(of) || 10 };
}
