"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { letterOf } from "../../core/games/prediction/letters";
import { count, counted } from "../../core/words/sentence";
import type { BoothProps } from "../shown";
import { AskNow } from "./ask-now";

type Outcome = Readonly<{ label: string; stakes: number; people: number; share: number; odds: string }>;
const clock = (ms: number): string => `${Math.floor(ms / 60_000)}:${String(Math.floor((ms % 60_000) / 1000)).padStart(2, "0")}`;

/** A prediction in the booth: its clock, what backs each outcome, what came; and a new one in a few words. */
export function PredictionBooth({ view, command }: BoothProps) {
  const phase = String(view["phase"] ?? "");
  const stakes = view["stakes"] === true;
  const locksMs = Number(view["locksMs"] ?? 0);
  // Views of operators are written by the prediction's own rules.
  const outcomes = (view["outcomes"] ?? []) as readonly Outcome[];
  const result = typeof view["result"] === "number" ? view["result"] : null;
  const foreign = view["foreign"] as Readonly<{ title: string; state: string }> | null;
  const [asking, setAsking] = useState(false);
  const [nowMs, setNowMs] = useState(() => Date.now());
  useEffect(() => {
    if (phase !== "open") return;
    const timer = setInterval(() => setNowMs(Date.now()), 500);
    return () => clearInterval(timer);
  }, [phase]);
  const through = Number(view["through"] ?? 0);
  const people = Number(view["people"] ?? 0);
  const words: Readonly<Record<string, string>> = {
    "": "It waits to be opened.",
    open: `Open, locks in ${clock(Math.max(0, locksMs - nowMs))}`,
    locked: view["late"] === true ? "Locked. The result is due." : "Locked. Say what came.",
    paying: `Pays: ${count(through)} of ${counted(people, "viewer")}`,
    done: result === null ? "" : `${letterOf(result)} ${outcomes[result]?.label ?? ""} it was.`,
    reversing: `Takes back: ${count(through)} of ${counted(people, "viewer")}`,
    returning: `Gives back: ${count(through)} of ${counted(people, "viewer")}`,
    cancelled: "Cancelled. Everybody has their own back.",
  };
  return (
    <Box data-testid="prediction-booth">
      {view["title"] !== "" && (
        <Text fontWeight="700" lineHeight="1.25">
          {String(view["title"])}
        </Text>
      )}
      <Text fontSize="15px" aria-live="polite" color={view["late"] === true && phase === "locked" ? "brickText" : undefined}>
        {words[phase]}
      </Text>
      {outcomes.length > 0 && (
        <Stack as="ul" gap="0" mt="1" aria-label="Outcomes" maxH="132px" overflowY="auto" tabIndex={outcomes.length > 5 ? 0 : undefined}>
          {outcomes.map((o, i) => (
            <Flex as="li" key={i} gap="2" fontSize="15px" align="baseline" color={result !== null && result !== i ? "inkSoft" : undefined}>
              <Text fontFamily="mono" fontWeight="700">
                {letterOf(i)}
              </Text>
              <Text flex="1" truncate fontWeight={result === i ? "700" : undefined}>
                {o.label}
              </Text>
              <Text fontFamily="mono" fontSize="14px" flexShrink="0">
                {stakes ? `${count(o.stakes)} · ${o.odds === "–" ? "–" : `${o.odds} ×`}` : `${count(o.people)} · ${o.share} %`}
              </Text>
            </Flex>
          ))}
        </Stack>
      )}
      {foreign !== null && (
        <Text fontSize="15px" color="inkSoft" lineClamp={2}>
          On the platform: {foreign.title} ({foreign.state})
        </Text>
      )}
      {view["canOpen"] === true && (
        <Button size="xs" variant="outline" mt="1" px="2" onClick={() => setAsking(true)}>
          Ask something else…
        </Button>
      )}
      {asking && <AskNow view={view} command={command} onClose={() => setAsking(false)} />}
    </Box>
  );
}
