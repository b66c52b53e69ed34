"use client";
import { Box, Flex, Grid, Stack, Text } from "@chakra-ui/react";
import { Check, Eye, Minus } from "lucide-react";
import Link from "next/link";
import { useEffect, useState } from "react";
import type { ReportPart } from "../../../../../core/rehearsal/report";
import { rehearsalRefusalInWords } from "../../../../../core/rehearsal/words";
import type { RehearsalStanding } from "../../../../../core/wire/messages";
import { count } from "../../../../../core/words/sentence";
import { call } from "../../../../_frame/call";
import { clockOf } from "../../../../../core/words/clock";

type Report = Readonly<{ standing: RehearsalStanding; parts: readonly ReportPart[] | null }>;
const signs = { look: Eye, fine: Check, told: Minus } as const;
const colours = { look: "ochreText", fine: "mossText", told: "inkSoft" } as const;
const none: Readonly<Record<string, string>> = {
  came: "Nothing that a game tells of.",
  points: "None were moved.",
  never: "Everything that could happen did.",
  refused: "Nothing was.",
  queues: "Nothing had to.",
  reach: "Everything on sale was within somebody’s reach.",
};

/** What a rehearsal taught, part by part; what is worth a look has where to set it right. */
export function Learnt({ id }: Readonly<{ id: string }>) {
  const [report, setReport] = useState<Report | null>(null);
  const [trouble, setTrouble] = useState("");
  useEffect(() => {
    void call<Report>("GET", `/rehearsals/${id}`).then((said) => (said.ok ? setReport(said.value) : setTrouble(said.words)));
  }, [id]);
  const parts = report?.parts ?? [];
  const look = parts.flatMap((p) => p.lines).filter((l) => l.tone === "look").length;
  const standing = report?.standing ?? null;
  return (
    <Box maxW="1180px" mx="auto" px="5" pt="5" pb="12" data-testid="learnt">
      <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="24px" lineHeight="1.2">
        What the rehearsal taught
      </Text>
      {trouble !== "" && (
        <Text role="alert" color="brickText" mt="2">
          {trouble}
        </Text>
      )}
      {standing !== null && (
        <Text color="inkSoft" mb="5">
          {clockOf(standing.nowMs - standing.fromMs)} with {standing.crowd}, {count(standing.signals)} signals, begun by {standing.by}.{" "}
          {standing.why !== null && `It is over: ${rehearsalRefusalInWords({ code: standing.why.code, facts: {} })}. `}
          Everything stands as before. <Link href="/rehearse">Rehearse again</Link>
        </Text>
      )}
      {report !== null && (
        <Text fontWeight="700" mb="4" color={look > 0 ? "ochreText" : "mossText"}>
          {look === 0
            ? "Nothing needs to be set right."
            : look === 1
              ? "One thing is worth a look before the show."
              : `${look} things are worth a look before the show.`}
        </Text>
      )}
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "1fr 1fr" }} columnGap="8" rowGap="6" alignItems="start">
        {parts.map((part) => (
          <Box as="section" key={part.id} aria-labelledby={`learnt-${part.id}`} data-part={part.id}>
            <Text as="h2" id={`learnt-${part.id}`} fontFamily="heading" fontWeight="700" fontSize="18px" mb="1">
              {part.title}
            </Text>
            {part.lines.length === 0 && <Text color="inkSoft">{none[part.id] ?? "Nothing."}</Text>}
            <Stack as="ul" gap="0">
              {part.lines.map((line, i) => {
                const Sign = signs[line.tone];
                return (
                  <Flex
                    as="li"
                    key={i}
                    listStyleType="none"
                    gap="2.5"
                    py="1.5"
                    borderTopWidth={i === 0 ? "0" : "1px"}
                    borderColor="line"
                    data-tone={line.tone}
                  >
                    <Box color={colours[line.tone]} pt="1" flexShrink="0">
                      <Sign
                        size={16}
                        aria-label={line.tone === "look" ? "Worth a look" : line.tone === "fine" ? "As it should be" : "Told"}
                      />
                    </Box>
                    <Box minW="0">
                      <Text fontWeight={line.tone === "look" ? 600 : 400} overflowWrap="anywhere">
                        {line.words}
                      </Text>
                      {line.links.length > 0 && (
                        <Flex gap="4" fontSize="15px">
                          {line.links.map((l) => (
                            <Link key={l.href} href={l.href}>
                              {l.words}
                            </Link>
                          ))}
                        </Flex>
                      )}
                    </Box>
                  </Flex>
                );
              })}
            </Stack>
          </Box>
        ))}
      </Grid>
    </Box>
  );
}
