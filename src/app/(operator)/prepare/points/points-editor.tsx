"use client";
import { Box, chakra, Flex, Stack, Text } from "@chakra-ui/react";
import type { PointsSettings } from "../../../../core/points/settings";
import { pointsSentences } from "../../../../core/points/words";
import { roles, roleWords } from "../../../../core/signals/names";
import type { GameDraft } from "../../../../server/ports/operator-store";
import { NumberField } from "../../../../ui/number-field";
import { SentenceForm } from "../../../../ui/sentence-form";
import { DraftBar } from "../_draft/draft-bar";
import { useDraft } from "../_draft/use-draft";

const asked: readonly (readonly [keyof PointsSettings["words"], string, string])[] = [
  ["balance", "Word for one’s own points", "How much somebody has"],
  ["top", "Word for the top list", "Who has most"],
  ["give", "Word for giving", "Giving: the word, a name and an amount"],
];

/** How points are called, earned and given, in sentences. */
export function PointsEditor({ draft: first, home }: Readonly<{ draft: GameDraft; home: string }>) {
  const draft = useDraft(first.id, first);
  // The server's schema has accepted what it handed over, and every change here keeps to its shape.
  const points = draft.settings as PointsSettings;
  const times = (role: (typeof roles)[number]): number => points.times.find((t) => t.role === role)?.hundredths ?? 100;
  const setTimes = (role: (typeof roles)[number], hundredths: number): void =>
    draft.change({
      ...points,
      times: [...points.times.filter((t) => t.role !== role), ...(hundredths === 100 ? [] : [{ role, hundredths }])],
    });
  return (
    <Box>
      <DraftBar
        id={first.id}
        draft={draft}
        thing="page of points"
        where=""
        lead={
          <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="19px">
            Points
          </Text>
        }
      />
      <Flex px="5" py="5" gap="10" maxW="1240px" mx="auto" wrap="wrap">
        <Box flex="1" minW="420px">
          <SentenceForm sentences={pointsSentences(points, home)} settings={points} onChange={draft.set} />
        </Box>
        <Stack width="420px" gap="6">
          <Box>
            <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px">
              Some earn more
            </Text>
            <Text color="inkSoft" fontSize="15px" mb="2">
              What is earned counts so many times; of several roles the highest counts.
            </Text>
            <Stack gap="1" fontSize="16px">
              {roles
                .filter((r) => r !== "viewer")
                .map((role) => (
                  <Flex key={role} justify="space-between" align="center">
                    <span>{roleWords[role]}</span>
                    <NumberField
                      label={`Times for ${roleWords[role]}`}
                      value={times(role)}
                      min={0}
                      max={10_000}
                      scale={100}
                      unit="×"
                      onSet={(n) => setTimes(role, n)}
                    />
                  </Flex>
                ))}
            </Stack>
          </Box>
          <Box>
            <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px">
              Words in chat
            </Text>
            <Text color="inkSoft" fontSize="15px" mb="2">
              Empty turns one off. Words for rewards stand on their price tags.
            </Text>
            <Stack gap="1.5" fontSize="16px">
              {asked.map(([key, label, words]) => (
                <Flex key={key} justify="space-between" align="center" gap="3">
                  <span>{words}</span>
                  <chakra.input
                    aria-label={label}
                    value={points.words[key]}
                    maxLength={30}
                    placeholder="no word"
                    width="120px"
                    px="2"
                    minH="34px"
                    fontFamily="mono"
                    borderWidth="1px"
                    borderColor="line"
                    borderRadius="6px"
                    bg="ground"
                    onChange={(e) =>
                      draft.change({ ...points, words: { ...points.words, [key]: e.currentTarget.value.replace(/\s/g, "") } })
                    }
                  />
                </Flex>
              ))}
            </Stack>
          </Box>
          <Box>
            <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px">
              The channel’s day
            </Text>
            <Text fontSize="16px" lineHeight="2.2">
              begins at midnight,{" "}
              <NumberField
                label="Hours east of UTC"
                value={points.dayOffsetMin}
                min={-720}
                max={840}
                scale={60}
                unit="hours"
                onSet={(n) => draft.set("dayOffsetMin", n)}
              />{" "}
              from UTC. A fee of{" "}
              <NumberField
                label="Fee on giving, percent"
                value={points.give.feeBp}
                min={0}
                max={5_000}
                scale={100}
                unit="%"
                onSet={(n) => draft.set("give.feeBp", n)}
              />{" "}
              stays with the channel when viewers give.
            </Text>
          </Box>
        </Stack>
      </Flex>
    </Box>
  );
}
