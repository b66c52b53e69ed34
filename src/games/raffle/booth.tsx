"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { count, counted } from "../../core/words/sentence";
import type { BoothProps } from "../shown";
import { AddPeople } from "./add-people";
import { WhoIsIn } from "./who-is-in";

type Winner = Readonly<{ name: string; prize: string; state: string; guess: number | null; untilMs: number }>;
const stateWords: Readonly<Record<string, string>> = {
  drawn: "drawn",
  waits: "is to answer",
  claimed: "claimed it",
  passed: "did not answer",
};
const clock = (ms: number): string => `${Math.floor(ms / 60_000)}:${String(Math.floor((ms % 60_000) / 1000)).padStart(2, "0")}`;

/** A draw in the booth: who is in, how long it is open, who won and whether they answered. */
export function RaffleBooth({ view, command, people: sources }: BoothProps) {
  const phase = String(view["phase"] ?? "");
  const openedMs = Number(view["openedMs"] ?? 0);
  const locksMs = Number(view["locksMs"] ?? 0);
  const people = Number(view["people"] ?? 0);
  const tickets = Number(view["tickets"] ?? 0);
  // Views of operators are written by the draw's own rules.
  const winners = (view["winners"] ?? []) as readonly Winner[];
  const [open, setOpen] = useState<"who" | "add" | null>(null);
  const [nowMs, setNowMs] = useState(() => Date.now());
  const ticking = phase === "open" || winners.some((w) => w.state === "waits");
  useEffect(() => {
    if (!ticking) return;
    const timer = setInterval(() => setNowMs(Date.now()), 500);
    return () => clearInterval(timer);
  }, [ticking]);
  return (
    <Box data-testid="raffle-booth">
      <Text fontWeight="700" lineHeight="1.25">
        {String(view["title"] ?? "")}
        {view["subtitle"] !== "" && (
          <Text as="span" fontWeight="400" color="inkSoft">
            {" "}
            {String(view["subtitle"])}
          </Text>
        )}
      </Text>
      {phase === "" ? (
        <Text color="inkSoft" fontSize="15px">
          It waits to be opened.
        </Text>
      ) : (
        <>
          <Text fontSize="15px" aria-live="polite">
            {phase === "open"
              ? `Open for ${clock(Math.max(0, nowMs - openedMs))}${locksMs > 0 ? `, locks in ${clock(Math.max(0, locksMs - nowMs))}` : ""}`
              : phase === "shaking"
                ? `Locked. ${count(Number(view["shaken"] ?? 0))} of ${counted(Number(view["shakers"] ?? 0), "viewer")} shook the drum.`
                : phase === "cancelled"
                  ? "Cancelled. Points go back."
                  : view["target"] === null
                    ? "Locked."
                    : `Locked. The number is ${count(Number(view["target"]))}.`}
          </Text>
          <Text fontFamily="mono" fontSize="15px" data-testid="raffle-counts">
            {counted(people, "viewer")} · {counted(tickets, "ticket")}
          </Text>
          <Flex align="center" gap="2" mt="1">
            <Button size="xs" variant="outline" px="2" onClick={() => setOpen("who")}>
              Who is in
            </Button>
            {phase === "open" && view["by"] === "tickets" && (
              <Button size="xs" variant="outline" px="2" onClick={() => setOpen("add")}>
                Add people
              </Button>
            )}
          </Flex>
        </>
      )}
      {winners.length > 0 && (
        <Stack as="ul" gap="0.5" mt="1" aria-label="Winners" maxH="104px" overflowY="auto" tabIndex={winners.length > 4 ? 0 : undefined}>
          {winners.map((w, i) => (
            <Flex as="li" key={i} gap="2" fontSize="15px" align="baseline">
              <Text fontWeight="700" truncate>
                <bdi>{w.name}</bdi>
              </Text>
              <Text color={w.state === "passed" ? "inkSoft" : "mossText"} flexShrink="0">
                {w.state === "waits" ? `is to answer: ${clock(Math.max(0, w.untilMs - nowMs))}` : (stateWords[w.state] ?? "")}
                {w.guess === null ? "" : `, ${count(w.guess)}`}
                {w.prize === "" ? "" : `, ${w.prize}`}
              </Text>
            </Flex>
          ))}
        </Stack>
      )}
      {view["undrawn"] === true && (
        <Text fontSize="15px" color="brickText">
          Nobody was drawn yet.
        </Text>
      )}
      {open === "who" && <WhoIsIn view={view} command={command} onClose={() => setOpen(null)} />}
      {open === "add" && <AddPeople most={Number(view["most"] ?? 1)} sources={sources} command={command} onClose={() => setOpen(null)} />}
    </Box>
  );
}
