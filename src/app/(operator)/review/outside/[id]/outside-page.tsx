"use client";
import { Box, Flex, Grid, Text } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import type { OutsideShow } from "../../../../../core/review/outside";
import { clockOf } from "../../../../../core/words/clock";
import { count, counted } from "../../../../../core/words/sentence";
import { ClockRow, Part } from "../../shows/[id]/part";
import { Results } from "../../shows/[id]/results";
import { ShowTape, type Span } from "../../shows/[id]/show-tape";
import { OutsideLines } from "./outside-lines";

/** A show of another installation, to be looked at: its tape, what was said, its moments and results. Nothing of it can be changed. */
export function OutsidePage({ id, name, show }: Readonly<{ id: string; name: string; show: OutsideShow }>) {
  const { manifest, curve, moments, results, marks } = show;
  const [fromMs, endMs] = [Date.parse(manifest.show.from), Date.parse(manifest.show.to)];
  const whole: Span = { fromMs, toMs: Math.max(endMs, fromMs + 1_000) };
  const [span, setSpan] = useState<Span>(whole);
  const onTape = useMemo(() => moments.map((m, i) => ({ ...m, id: String(i) })), [moments]);
  return (
    <Box maxW="1280px" mx="auto" px="5" pt="4" pb="12">
      <Flex align="baseline" gap="4" wrap="wrap">
        <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="24px" lineHeight="1.2" overflowWrap="anywhere">
          {name}
        </Text>
        <Text color="inkSoft">
          {new Date(fromMs).toLocaleString("en-GB", { dateStyle: "full", timeStyle: "short" })}, {clockOf(endMs - fromMs)}
        </Text>
      </Flex>
      <Text mt="1" mb="3">
        Brought in from a file, of the channel <b>{manifest.channel}</b>: {counted(show.messages, "message")} from{" "}
        {counted(show.people, "viewer")}. It is here to be looked at; none of it counts in this channel.
        {show.bad > 0 && ` ${count(show.bad)} ${show.bad === 1 ? "line" : "lines"} of its log could not be read and are left out.`}
      </Text>
      <ShowTape view={{ marks, cut: false, series: curve, show: { fromMs } }} moments={onTape} whole={whole} span={span} onSpan={setSpan} />
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1.25fr) minmax(0,1fr)" }} gap="6" mt="4">
        <OutsideLines id={id} span={span} whole={whole} startMs={fromMs} />
        <Box minW="0">
          <Part title="Moments">
            {moments.length === 0 ? (
              <Text color="inkSoft">No moments came with it.</Text>
            ) : (
              <Box as="ul" aria-label="Moments of this show">
                {moments.map((m, i) => (
                  <ClockRow key={i} afterMs={m.atMs - fromMs} end={m.state === "kept" && <Text color="mossText">kept</Text>}>
                    <b>{m.name}</b> {m.why}
                  </ClockRow>
                ))}
              </Box>
            )}
          </Part>
          <Part title="Rounds and results">
            <Results results={results} startMs={fromMs} />
          </Part>
        </Box>
      </Grid>
    </Box>
  );
}
