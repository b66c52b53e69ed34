"use client";
import { Box, Input, Text } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import type { OutsideLine } from "../../../../../core/review/outside";
import { call } from "../../../../_frame/call";
import { LinesShown } from "../../shows/[id]/lines";
import type { Span } from "../../shows/[id]/show-tape";

type Page = Readonly<{ lines: readonly OutsideLine[]; more: boolean }>;
const waitMs = 250;

/** What was said in the stretch that is looked at, and beside it what it led to. */
export function OutsideLines({ id, span, whole, startMs }: Readonly<{ id: string; span: Span; whole: Span; startMs: number }>) {
  const [words, setWords] = useState("");
  const [page, setPage] = useState<Page | null>(null);
  const [trouble, setTrouble] = useState("");
  const asked = useRef(0);
  const isWhole = span.fromMs <= whole.fromMs && span.toMs >= whole.toMs;
  // What led up to a show, and what came of it, is part of it where all of it is looked at.
  const stretch = isWhole ? "" : `from=${Math.round(span.fromMs)}&to=${Math.round(span.toMs)}&`;
  const query = `/review/outside/${id}/lines?${stretch}words=${encodeURIComponent(words)}`;
  useEffect(() => {
    const turn = (asked.current += 1);
    const timer = setTimeout(() => {
      void call<Page>("GET", query).then((said) => {
        if (turn !== asked.current) return;
        setTrouble(said.ok ? "" : said.words);
        if (said.ok) setPage(said.value);
      });
    }, waitMs);
    return () => clearTimeout(timer);
  }, [query]);
  const more = async (): Promise<void> => {
    if (page === null) return;
    const turn = (asked.current += 1);
    const said = await call<Page>("GET", `${query}&skip=${page.lines.length}`);
    if (turn !== asked.current) return;
    if (said.ok) setPage({ lines: [...page.lines, ...said.value.lines], more: said.value.more });
    else setTrouble(said.words);
  };
  return (
    <Box minW="0">
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="18px" mb="1">
        What was said, and what it led to
      </Text>
      <Input
        aria-label="Find in this stretch"
        placeholder="a name or a word"
        size="sm"
        width="220px"
        mb="2"
        value={words}
        maxLength={80}
        onChange={(e) => setWords(e.currentTarget.value)}
      />
      <LinesShown
        lines={page?.lines.map((item) => ({ item, chips: item.chips })) ?? null}
        more={page?.more === true}
        trouble={trouble}
        empty={words === "" ? "Nothing was said in this stretch." : "No line of this stretch has it."}
        startMs={startMs}
        onMore={() => void more()}
      />
    </Box>
  );
}
