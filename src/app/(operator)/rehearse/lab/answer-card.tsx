"use client";
import { Box, Button, chakra, Flex, Grid, Progress, Text } from "@chakra-ui/react";
import Link from "next/link";
import { useState } from "react";
import { inUnit, type LabAsk } from "../../../../core/lab/ask";
import type { Summary } from "../../../../core/lab/statistics";
import type { LabUnit } from "../../../../core/module/lab";
import { count, valueAt, withValueAt } from "../../../../core/words/sentence";
import type { LabAnswer } from "../../../../server/web/lab";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { When } from "../../../../ui/when";
import { call } from "../../../_frame/call";
import { Histogram } from "./histogram";
import { AsTable } from "../../../../ui/as-table";

type Props = Readonly<{
  answer: LabAnswer;
  points: string;
  onAct: (body: Readonly<{ do: string; name?: string }>, done?: string) => Promise<void>;
  onCopy: (ask: LabAsk) => void;
}>;

/** One question that was asked: its answer as sentences and as a picture, and what can be done with it. */
export function AnswerCard({ answer, points, onAct, onCopy }: Props) {
  const { ask, state, done, result, lines, instead, stale, why } = answer;
  const [naming, setNaming] = useState(false);
  const called = answer.name === "" ? answer.asked : answer.name;
  const open = state === "waiting" || state === "working";
  // A page's units are those of the questions the server told of.
  const unit = answer.unit as LabUnit;
  const plain: Side = { title: instead === null ? "" : "As it is", lines, summary: result?.plain ?? null };
  const sides: readonly Side[] =
    instead === null || result?.instead == null
      ? [plain]
      : [plain, { title: `If ${instead.what}`, lines: [...instead.lines.slice(0, 1), instead.compared], summary: result.instead }];
  return (
    <Box as="li" listStyleType="none" bg="raised" borderWidth="1px" borderColor="line" borderRadius="10px" p="4" data-question={answer.id}>
      <Flex gap="3" align="baseline" wrap="wrap">
        {naming ? (
          <Naming
            value={answer.name}
            asked={answer.asked}
            onDone={(name) => {
              setNaming(false);
              if (name !== null && name !== answer.name) void onAct({ do: "rename", name });
            }}
          />
        ) : (
          <Text as="h3" flex="1" minW="240px" fontWeight="700" fontSize="17px" lineHeight="1.35">
            {called}
          </Text>
        )}
        <Text color="inkSoft" fontSize="14.5px">
          {answer.by}
          {answer.endedMs === null ? "" : ", "}
          {answer.endedMs !== null && <When atMs={answer.endedMs} />}
        </Text>
      </Flex>
      {answer.name !== "" && !naming && (
        <Text color="inkSoft" fontSize="15px">
          {answer.asked}
        </Text>
      )}
      {open && (
        <Flex align="center" gap="3" mt="2">
          <Progress.Root
            value={ask === null ? 0 : (done / ask.n) * 100}
            flex="1"
            size="sm"
            colorPalette="ochre"
            aria-label={`How far: ${called}`}
          >
            <Progress.Track>
              <Progress.Range />
            </Progress.Track>
          </Progress.Root>
          <Text fontSize="15px" fontFamily="mono" role="status">
            {state === "waiting" ? "waits its turn" : `${count(done)} of ${count(ask?.n ?? 0)}`}
          </Text>
          <Button size="xs" variant="outline" onClick={() => void onAct({ do: "stop" })}>
            {state === "waiting" ? "Stop" : "Stop and answer"}
          </Button>
        </Flex>
      )}
      {state === "failed" && (
        <Text mt="1.5" color="brickText" role="alert">
          {why}
        </Text>
      )}
      {stale && !open && (
        <Text mt="1.5" color="ochreText" fontWeight="600">
          Settings were published since: ask again to see what holds now.
        </Text>
      )}
      {lines.length > 0 && (
        <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "1fr 1fr" }} columnGap="6" rowGap="1" mt="2" opacity={open ? 0.55 : 1}>
          {sides.map((s) => (
            <Words key={`words ${s.title}`} {...s} />
          ))}
          {sides.map((s, i) => (
            <Picture key={s.title} {...s} other={sides[1 - i]?.summary ?? null} unit={unit} points={points} />
          ))}
        </Grid>
      )}
      {result !== null && (
        <Text mt="2" fontSize="14.5px" color="inkSoft">
          {result.shows > 0 ? `From what ${result.shows === 1 ? "one past show" : `${result.shows} past shows`} left in the log. ` : ""}
          {count(Math.round(result.signals))} signals in {(result.ms / 1000).toFixed(1)} s
          {result.stopped ? "; stopped before all evenings were played" : ""}.
        </Text>
      )}
      <Flex gap="2" mt="3" wrap="wrap">
        {!open && ask !== null && (
          <Button
            size="xs"
            {...(stale ? { colorPalette: "ochre", fontWeight: "700" } : { variant: "outline" as const })}
            onClick={() => void onAct({ do: "again" })}
          >
            Ask again
          </Button>
        )}
        {instead !== null && ask !== null && result?.instead != null && <UseThis ask={ask} what={instead.what} />}
        {ask !== null && (
          <Button size="xs" variant="outline" onClick={() => onCopy(ask)}>
            Ask something like it
          </Button>
        )}
        <Button size="xs" variant="outline" onClick={() => setNaming(true)}>
          Name it
        </Button>
        <Button
          size="xs"
          variant="outline"
          aria-label={`Remove ${called}`}
          onClick={() => void onAct({ do: "remove" }, "Removed. It can be brought back below.")}
        >
          Remove
        </Button>
      </Flex>
    </Box>
  );
}

function Naming({ value, asked, onDone }: Readonly<{ value: string; asked: string; onDone: (name: string | null) => void }>) {
  const [name, setName] = useState(value);
  return (
    <chakra.input
      autoFocus
      aria-label="Name of the question"
      placeholder={asked}
      value={name}
      maxLength={120}
      flex="1"
      minW="240px"
      bg="blank"
      fontWeight="700"
      px="2"
      borderRadius="6px"
      onChange={(e) => setName(e.currentTarget.value)}
      onBlur={() => onDone(name.trim())}
      onKeyDown={(e) => {
        if (e.key === "Enter") onDone(name.trim());
        if (e.key === "Escape") onDone(null);
      }}
    />
  );
}

/** Writes the other value into the draft of whom it is about; publishing it stays a step of its own. */
function UseThis({ ask, what }: Readonly<{ ask: LabAsk; what: string }>) {
  const [written, setWritten] = useState(false);
  if (ask.instead === null) return null;
  const { path, value } = ask.instead;
  const use = async (): Promise<void> => {
    const draft = await call<{ settings: unknown; revision: number }>("POST", `/games/${ask.module}/draft`);
    if (!draft.ok) return tellTrouble(draft.words);
    if (valueAt(draft.value.settings, path) === undefined)
      return tellTrouble("The draft has no such setting any more. Open it, and set it right by hand.");
    const saved = await call<unknown>("PUT", `/games/${ask.module}/draft`, {
      revision: draft.value.revision,
      settings: withValueAt(draft.value.settings, path, value),
    });
    if (!saved.ok) return tellTrouble(saved.words);
    setWritten(true);
    tell(`Written into the draft: ${what}. It counts once it is published.`);
  };
  return written ? (
    <Link href={`/prepare/games/${ask.module}`}>Open the draft</Link>
  ) : (
    <Button size="xs" colorPalette="ochre" fontWeight="700" onClick={() => void use()}>
      Use this
    </Button>
  );
}

type Side = Readonly<{ title: string; lines: readonly string[]; summary: Summary | null }>;
function Words({ title, lines: [first = "", ...rest] }: Side) {
  return (
    <Box>
      {title !== "" && (
        <Text fontWeight="700" fontSize="15px" color="slateText">
          {title}
        </Text>
      )}
      <Text fontSize="17px" lineHeight="1.4">
        {first}
      </Text>
      {rest.map((line) => (
        <Text key={line} fontSize="15px" color="inkSoft">
          {line}
        </Text>
      ))}
    </Box>
  );
}
function Picture({
  title,
  lines,
  summary,
  other,
  unit,
  points,
}: Side & Readonly<{ other: Summary | null; unit: LabUnit; points: string }>) {
  if (summary === null) return null;
  const label = `${title === "" ? "" : `${title}: `}${lines[0] ?? ""}`;
  return (
    <Box minW="0">
      <Histogram summary={summary} other={other} unit={unit} points={points} label={label} />
      {summary.bins.length > 0 && <AsTable head={["From", "up to", "Evenings"]} rows={rowsOf(summary, unit, points)} />}
    </Box>
  );
}

const rowsOf = ({ bins, never }: Summary, unit: LabUnit, points: string): readonly (readonly string[])[] => [
  ...bins.map((b) => [inUnit(unit, b.from, points), inUnit(unit, b.to, points), count(b.count)]),
  ...(never > 0 ? [["never", "", count(never)]] : []),
];
