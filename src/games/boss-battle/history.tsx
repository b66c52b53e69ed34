"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { kindOfSignalInWords } from "../../core/signals/kinds";
import { count } from "../../core/words/sentence";
import { When } from "../../ui/when";
import type { HistoryProps } from "../shown";
import { useRecords } from "../use-records";

type Body = Readonly<{
  name?: string;
  by?: string;
  how?: string;
  health?: number;
  amount?: number;
  kind?: string;
  boss?: string;
  after?: number;
}>;

/** What came to pass in a boss battle: who reigned, who struck; and what sets it right. */
export function BossHistory({ view, load, command }: HistoryProps) {
  const mark = `${String(view?.["health"])} ${String(view?.["falls"])} ${String(view?.["name"])}`;
  const records = useRecords(load, ["reign", "hit"], mark);
  const loaded = records !== null;
  const { reign: reigns = [], hit: hits = [] } = records ?? {};
  return (
    <Box>
      {view !== undefined && (
        <Box bg="raised" borderRadius="10px" p="4" mb="5">
          <Text fontWeight="700" fontSize="17px">
            {String(view["name"])} stands at {count(Number(view["health"]))} of {count(Number(view["max"]))}
          </Text>
          <Flex gap="2" mt="2" wrap="wrap">
            <Button
              size="sm"
              variant="outline"
              disabled={view["undoable"] !== true}
              onClick={() => void command({ do: "undo" }, "The last hit was undone.")}
            >
              Undo the last hit
            </Button>
            <Button size="sm" variant="outline" onClick={() => void command({ do: "tell-rules" }, "Chat was told the rules.")}>
              Tell the rules in chat
            </Button>
            <Button
              size="sm"
              variant="outline"
              color="brickText"
              onClick={() => void command({ do: "start-over" }, "Started over. Who was the boss until now is kept below.")}
            >
              Start over
            </Button>
          </Flex>
        </Box>
      )}
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mb="2">
        Who was the boss
      </Text>
      {loaded && reigns.length === 0 && <Text color="inkSoft">Nobody was defeated yet. When a boss falls, it stands here.</Text>}
      <Stack gap="1.5" role="list" aria-label="Who was the boss" maxH="300px" overflowY="auto" tabIndex={reigns.length > 4 ? 0 : undefined}>
        {reigns.map((r) => {
          // What the boss's own rules wrote.
          const b = r.body as Body;
          return (
            <Flex key={r.id} role="listitem" gap="3" bg="raised" borderRadius="8px" px="3" py="1.5" fontSize="15.5px" wrap="wrap">
              <Text fontWeight="700">{b.name}</Text>
              <Text flex="1" color="inkSoft">
                {b.how === "start-over"
                  ? `ended by ${b.by ?? ""}, who started over`
                  : `defeated by ${b.by ?? ""}, with ${kindOfSignalInWords(b.how ?? "")}`}
                , had {count(b.health ?? 0)} health
              </Text>
              <Text color="inkSoft">
                <When atMs={r.toMs} />
              </Text>
            </Flex>
          );
        })}
      </Stack>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mt="5" mb="2">
        The last hits
      </Text>
      {loaded && hits.length === 0 && <Text color="inkSoft">Nobody has struck yet.</Text>}
      <Stack gap="1" role="list" aria-label="Hits" maxH="300px" overflowY="auto" tabIndex={hits.length > 6 ? 0 : undefined}>
        {hits.slice(0, 40).map((r) => {
          const b = r.body as Body;
          return (
            <Flex key={r.id} role="listitem" gap="3" fontSize="15.5px" borderBottomWidth="1px" borderColor="line" py="1">
              <Text fontFamily="mono" width="90px" textAlign="right">
                −{count(b.amount ?? 0)}
              </Text>
              <Text flex="1">
                {r.viewer?.name ?? b.by}, with {kindOfSignalInWords(b.kind ?? "")}, to {b.boss}: {count(b.after ?? 0)} left
              </Text>
              <Text color="inkSoft">
                <When atMs={r.toMs} />
              </Text>
            </Flex>
          );
        })}
      </Stack>
    </Box>
  );
}
