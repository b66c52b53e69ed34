"use client";
import { Box, Button, Flex, Input, Text } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import { type ChipTone, chipsOf } from "../../../../../core/chips";
import type { TalkItem } from "../../../../../core/wire/messages";
import { counted } from "../../../../../core/words/sentence";
import { Pick } from "../../../../../ui/pick";
import { call } from "../../../../_frame/call";
import { clockOf } from "../../../../../core/words/clock";
import type { Span } from "./show-tape";

type Chip = Readonly<{ short: string; words: string; tone: ChipTone }>;
type Page = Readonly<{ lines: readonly TalkItem[]; more: boolean }>;
const only = [
  { value: "all", words: "all of it" },
  { value: "chat", words: "chat" },
  { value: "rest", words: "what happened" },
];
const waitMs = 250;

/** What was said in the stretch of tape that is looked at, and beside it what it led to. */
export function Lines({
  path,
  span,
  whole,
  games,
  startMs,
}: Readonly<{ path: string; span: Span; whole: Span; games: readonly Readonly<{ id: string; kind: string }>[]; startMs: number }>) {
  const [which, setWhich] = useState("all");
  const [words, setWords] = useState("");
  const [page, setPage] = useState<Page | null>(null);
  const [trouble, setTrouble] = useState("");
  const asked = useRef(0);
  const isWhole = span.fromMs <= whole.fromMs && span.toMs >= whole.toMs;
  // What led up to a show, and what came of it, is part of it where all of it is looked at.
  const query = `from=${Math.round(span.fromMs) - (isWhole ? 1_000 : 0)}&to=${Math.round(span.toMs) + (isWhole ? 1_000 : 0)}&only=${which}&words=${encodeURIComponent(words)}`;
  useEffect(() => {
    const turn = (asked.current += 1);
    const timer = setTimeout(() => {
      void call<Page>("GET", `${path}/lines?${query}`).then((said) => {
        // Another stretch was asked for meanwhile.
        if (turn !== asked.current) return;
        setTrouble(said.ok ? "" : said.words);
        if (said.ok) setPage(said.value);
      });
    }, waitMs);
    return () => clearTimeout(timer);
  }, [path, query]);
  const more = async (): Promise<void> => {
    const last = page?.lines.at(-1);
    if (page === null || last === undefined) return;
    const turn = (asked.current += 1);
    const said = await call<Page>("GET", `${path}/lines?${query}&at=${last.atMs}&seq=${last.seq}`);
    if (turn !== asked.current) return;
    if (said.ok) setPage({ lines: [...page.lines, ...said.value.lines], more: said.value.more });
    else setTrouble(said.words);
  };
  const kindOf = (game: string): string => games.find((g) => g.id === game)?.kind ?? "";
  return (
    <Box minW="0">
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="18px" mb="1">
        What was said, and what it led to
      </Text>
      <Flex gap="2" mb="2" wrap="wrap">
        <Pick label="Which lines" value={which} options={only} onSet={setWhich} />
        <Input
          aria-label="Find in this stretch"
          placeholder="a name or a word"
          size="sm"
          width="220px"
          value={words}
          maxLength={80}
          onChange={(e) => setWords(e.currentTarget.value)}
        />
      </Flex>
      <LinesShown
        lines={page?.lines.map((item) => ({ item, chips: chipsOf(item, kindOf) })) ?? null}
        more={page?.more === true}
        trouble={trouble}
        empty={
          words === "" ? "Nothing of this stretch is in the log any more, or nothing was said in it." : "No line of this stretch has it."
        }
        startMs={startMs}
        onMore={() => void more()}
      />
    </Box>
  );
}
type Shown = Readonly<{ item: Pick<TalkItem, "atMs" | "name" | "text">; chips: readonly Chip[] }>;
/** Lines of a show in a box of their own, a page of them at a time; null while they are read. */
export const LinesShown = ({
  lines,
  more,
  trouble,
  empty,
  startMs,
  onMore,
}: Readonly<{ lines: readonly Shown[] | null; more: boolean; trouble: string; empty: string; startMs: number; onMore: () => void }>) => (
  <>
    {trouble !== "" && (
      <Text role="alert" color="brickText">
        {trouble}
      </Text>
    )}
    <Box
      maxH="560px"
      overflowY="auto"
      tabIndex={0}
      role="group"
      aria-label="What was said"
      borderWidth="1px"
      borderColor="line"
      borderRadius="10px"
      py="1"
    >
      {(lines === null || lines.length === 0) && (
        <Text px="3" color="inkSoft">
          {lines === null ? "Reading…" : empty}
        </Text>
      )}
      {lines !== null && lines.length > 0 && (
        <Box as="ul" aria-label="Lines of the show">
          {lines.map(({ item, chips }, i) => (
            <Line key={i} item={item} chips={chips} startMs={startMs} />
          ))}
        </Box>
      )}
      {more && (
        <Flex justify="center" py="2">
          <Button size="xs" variant="outline" onClick={onMore}>
            More
          </Button>
        </Flex>
      )}
    </Box>
    {lines !== null && (
      <Text fontSize="14px" color="inkSoft" mt="1" role="status">
        {counted(lines.length, "line")}
        {more ? ", and more" : ""}
      </Text>
    )}
  </>
);
const tones = { good: "mossText", spent: "ochreText", no: "brickText", said: "slateText" } as const;

/** One line: when into the show, who, what, and beside it what it led to. */
const Line = ({ item, chips, startMs }: Shown & Readonly<{ startMs: number }>) => (
  <Flex
    as="li"
    listStyleType="none"
    gap="2"
    rowGap="1"
    px="3"
    py="3px"
    fontSize="15px"
    lineHeight="1.35"
    align="flex-start"
    wrap={{ base: "wrap", md: "nowrap" }}
  >
    <Text fontFamily="mono" fontSize="14px" color="inkSoft" flexShrink="0" lineHeight="1.45">
      {clockOf(Math.max(0, item.atMs - startMs))}
    </Text>
    <Text flex="1" minW={{ base: "60%", md: "0" }} overflowWrap="anywhere">
      {item.name !== "" && <b>{item.name}</b>} {item.text}
    </Text>
    {chips.length > 0 && (
      <Flex
        direction={{ base: "row", md: "column" }}
        wrap="wrap"
        align="flex-end"
        gap={{ base: "1.5", md: "0.5" }}
        maxW={{ base: "100%", md: "200px" }}
        flexShrink="0"
      >
        {chips.slice(0, 4).map((c, i) => (
          <Text
            key={i}
            fontSize="14px"
            px="1.5"
            borderRadius="0 5px 5px 0"
            borderLeftWidth="3px"
            borderLeftColor={tones[c.tone]}
            truncate
            maxW="200px"
            title={c.words}
            bg={`${tones[c.tone]}/12`}
          >
            {c.short}
          </Text>
        ))}
      </Flex>
    )}
  </Flex>
);
