"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { z } from "zod";
import { moneyInWords } from "../../core/signals/money-words";
import { count, seconds } from "../../core/words/sentence";
import type { HistoryProps, RecordRow } from "../shown";

const bodySchema = z.object({
  title: z.string(),
  address: z.string(),
  seenMs: z.number(),
  skipped: z.boolean(),
  paid: z.number(),
  by: z.string(),
  currency: z.string(),
});
type Barred = Readonly<{ viewers: readonly string[]; files: readonly Readonly<{ sha: string; title: string }>[] }>;

/** What was shown, when, by whom, and for how much; and whose clips, and which films, are not taken. */
export function ClipsHistory({ view, load, command }: HistoryProps) {
  const [rows, setRows] = useState<readonly RecordRow[] | null>(null);
  useEffect(() => void load("clip").then(setRows), [load]);
  const barred = (view?.["barred"] ?? { viewers: [], files: [] }) as Barred;
  return (
    <Box>
      {rows === null ? (
        <Text color="inkSoft">Asking…</Text>
      ) : rows.length === 0 ? (
        <Text color="inkSoft">No clip has played yet. What plays stands here, with who sent it and what it cost.</Text>
      ) : (
        <Stack gap="1" role="list" aria-label="Clips that played">
          {rows.map((row) => {
            const body = bodySchema.safeParse(row.body);
            if (!body.success) return null;
            const { title, seenMs, skipped, paid, by, currency } = body.data;
            return (
              <Flex key={row.id} role="listitem" gap="3" bg="raised" borderRadius="8px" px="3" py="1.5" wrap="wrap">
                <Text width="150px" color="inkSoft" fontSize="15px">
                  {new Date(row.fromMs).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}
                </Text>
                <Text flex="1" minW="160px" fontWeight="600">
                  <bdi>{row.viewer?.name ?? "the channel"}</bdi>
                  {title === "" ? "" : `: ${title}`}
                </Text>
                <Text color="inkSoft" fontSize="15px">
                  {seenMs <= 0 ? "never seen" : `seen for ${seconds(Math.round(seenMs / 100) * 100)}`}
                  {skipped ? ", skipped" : ""}
                  {paid > 0 ? `, ${by === "money" ? moneyInWords(paid, currency) : `${count(paid)} points`}` : ""}
                </Text>
              </Flex>
            );
          })}
        </Stack>
      )}
      {barred.viewers.length + barred.files.length > 0 && (
        <Box mt="5">
          <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="17px" mb="1">
            Not taken
          </Text>
          <Stack gap="1">
            {barred.viewers.map((name) => (
              <Line
                key={name}
                words={`Clips from ${name}`}
                label={`Take clips from ${name} again`}
                onBack={() => command({ do: "let-back", name }, `Clips from ${name} are taken again.`)}
              />
            ))}
            {barred.files.map(({ sha, title }) => (
              <Line
                key={sha}
                words={`The film “${title}”`}
                label={`Take the film ${title} again`}
                onBack={() => command({ do: "let-file", sha }, "The film may be shown again.")}
              />
            ))}
          </Stack>
        </Box>
      )}
    </Box>
  );
}

const Line = ({ words, label, onBack }: Readonly<{ words: string; label: string; onBack: () => Promise<void> }>) => (
  <Flex gap="3" align="center">
    <Text flex="1">{words}</Text>
    <Button size="xs" variant="outline" aria-label={label} onClick={() => void onBack()}>
      Take again
    </Button>
  </Flex>
);
