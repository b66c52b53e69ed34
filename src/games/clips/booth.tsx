"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { ArrowDown, ArrowUp, ArrowUpToLine } from "lucide-react";
import { useEffect, useState } from "react";
import type { ClipFacts } from "../../core/games/clips/settings";
import { moneyInWords } from "../../core/signals/money-words";
import { count, seconds } from "../../core/words/sentence";
import { FilmStrip } from "../../ui/film-strip";
import { IconButton } from "../../ui/icon-button";
import type { BoothProps } from "../shown";

type Told = Readonly<{
  n: number;
  name: string;
  title: string;
  ms: number;
  phase: "making" | "asks" | "waits";
  paid: Readonly<{ by: string; amount: number; currency: string }> | null;
  facts: ClipFacts | null;
}>;
type Now = Told & Readonly<{ shown: boolean; sinceMs: number; untilMs: number }>;

const who = (c: Told): string => (c.name === "" ? "one of ours" : c.name);
const mostLately = 5;
const phases = { making: "is looked at", asks: "waits for a yes", waits: "waits its turn" } as const;

/** Clips in the booth: what plays, with its four hands on the buttons below; what waits, each with its stills to judge it by. */
export function ClipsBooth({ view, command }: BoothProps) {
  // Views of operators are written by the clips' own rules.
  const now = (view["now"] ?? null) as Now | null;
  const clips = (view["clips"] ?? []) as readonly Told[];
  const lately = (view["lately"] ?? []) as readonly Told[];
  const [nowMs, setNowMs] = useState(() => Date.now());
  useEffect(() => {
    if (now === null) return;
    const timer = setInterval(() => setNowMs(Date.now()), 500);
    return () => clearInterval(timer);
  }, [now]);
  return (
    <Box data-testid="clips-booth">
      {view["held"] === true && (
        <Text fontWeight="700" color="ochreText">
          Held: nothing more begins.
        </Text>
      )}
      <Text fontWeight="700" aria-live="polite" lineHeight="1.25" overflowWrap="anywhere">
        {now === null ? (
          "No clip plays."
        ) : (
          <>
            <bdi>{who(now)}</bdi>
            {now.title === "" ? "" : `: ${now.title}`}
          </>
        )}
      </Text>
      {now !== null && (
        <Text fontSize="15px" color={now.shown ? "mossText" : "ochreText"}>
          {now.shown ? "shown" : "hidden"}, {Math.max(0, Math.ceil((now.untilMs - nowMs) / 1000))} s to go
        </Text>
      )}
      {now?.facts?.strip != null && <FilmStrip strip={now.facts.strip} label="Stills of what plays" most={6} height={30} />}
      {now !== null && now.name !== "" && now.facts !== null && (
        <BarFilm n={now.n} label={`Never show again the film of ${who(now)} that plays`} command={command} />
      )}
      {clips.length > 0 && (
        <Stack
          as="ul"
          gap="2"
          mt="2"
          aria-label="Clips that wait"
          maxH="250px"
          overflowY="auto"
          tabIndex={clips.length > 2 ? 0 : undefined}
        >
          {clips.map((c, i) => (
            <One key={c.n} clip={c} first={i === 0} last={i === clips.length - 1} command={command} />
          ))}
        </Stack>
      )}
      {lately.length > 0 && (
        <Box as="details" mt="2">
          <Text as="summary" cursor="pointer" fontSize="15px" fontWeight="600">
            Played lately
          </Text>
          <Stack as="ul" gap="1" mt="1" aria-label="Clips that played lately">
            {lately.slice(0, mostLately).map((c) => (
              <Flex as="li" key={c.n} listStyleType="none" gap="2" align="center" fontSize="15px">
                <Text flex="1" minW="0" truncate title={c.title}>
                  <bdi>{who(c)}</bdi> {c.title}
                </Text>
                <Button
                  size="xs"
                  variant="outline"
                  px="2"
                  aria-label={`Play the clip of ${who(c)} once more`}
                  onClick={() => void command({ do: "replay", n: c.n })}
                >
                  Once more
                </Button>
                {c.name !== "" && <BarFilm n={c.n} label={`Never show again the film of ${who(c)} that played`} command={command} />}
              </Flex>
            ))}
          </Stack>
        </Box>
      )}
    </Box>
  );
}

const BarFilm = ({ n, label, command }: Readonly<{ n: number; label: string; command: BoothProps["command"] }>) => (
  <Button size="xs" variant="outline" px="2" aria-label={label} onClick={() => void command({ do: "bar-file", n })}>
    Bar this film
  </Button>
);

type OneProps = Readonly<{ clip: Told; first: boolean; last: boolean; command: BoothProps["command"] }>;
function One({ clip, first, last, command }: OneProps) {
  const { n, phase, facts, paid } = clip;
  return (
    <Box as="li" listStyleType="none" bg="raised" borderRadius="8px" p="1.5" data-clip={n}>
      <Flex gap="2" align="baseline" fontSize="15px">
        <Text flex="1" truncate title={clip.title}>
          <Text as="span" fontWeight="700">
            <bdi>{who(clip)}</bdi>
          </Text>{" "}
          {clip.title}
        </Text>
        <Text flexShrink="0" color="inkSoft" fontSize="14px">
          {seconds(clip.ms)}
        </Text>
      </Flex>
      {facts?.strip != null && (
        <FilmStrip strip={facts.strip} label={`Stills of the clip of ${who(clip)}`} most={12} perRow={6} height={28} />
      )}
      <Text fontSize="14px" color="inkSoft">
        {phases[phase]}
        {paid === null ? "" : `, ${paid.by === "money" ? moneyInWords(paid.amount, paid.currency) : `for ${count(paid.amount)}`}`}
        {facts === null ? "" : facts.flashes !== "none" ? ", flashes" : facts.audible ? "" : ", silent"}
      </Text>
      <Flex gap="1.5" mt="1" wrap="wrap">
        {phase === "asks" && (
          <Button
            size="xs"
            colorPalette="ochre"
            fontWeight="700"
            px="2"
            aria-label={`Let the clip of ${who(clip)} play`}
            onClick={() => void command({ do: "approve", n })}
          >
            Let it play
          </Button>
        )}
        <Button
          size="xs"
          variant="outline"
          px="2"
          aria-label={`Leave the clip of ${who(clip)} out`}
          onClick={() => void command({ do: "drop", n })}
        >
          Leave out
        </Button>
        {facts !== null && clip.name !== "" && <BarFilm n={n} label={`Never show the film of ${who(clip)}`} command={command} />}
        {!first && (
          <>
            <IconButton label={`The clip of ${who(clip)} goes first`} onClick={() => void command({ do: "front", n })}>
              <ArrowUpToLine size={14} aria-hidden="true" />
            </IconButton>
            <IconButton label={`The clip of ${who(clip)} one place earlier`} onClick={() => void command({ do: "move", n, by: -1 })}>
              <ArrowUp size={14} aria-hidden="true" />
            </IconButton>
          </>
        )}
        {!last && (
          <IconButton label={`The clip of ${who(clip)} one place later`} onClick={() => void command({ do: "move", n, by: 1 })}>
            <ArrowDown size={14} aria-hidden="true" />
          </IconButton>
        )}
      </Flex>
    </Box>
  );
}
