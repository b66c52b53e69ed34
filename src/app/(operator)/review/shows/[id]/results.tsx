import { Box, Flex, Text } from "@chakra-ui/react";
import Link from "next/link";
import { clockOf } from "../../../../../core/words/clock";

type Result = Readonly<{ atMs: number; title: string; result: string; check?: string }>;

/** Rounds of a show in their order, with how they ended; a drawn one leads to its proof. */
export function Results({ results, startMs }: Readonly<{ results: readonly Result[]; startMs: number }>) {
  if (results.length === 0) return <Text color="inkSoft">Nothing was drawn, spun or asked in this show.</Text>;
  const inOrder = [...results].sort((a, b) => a.atMs - b.atMs);
  return (
    <Box as="ul" aria-label="Rounds of this show">
      {inOrder.map((r, i) => (
        <Flex as="li" key={i} listStyleType="none" gap="3" py="1" align="baseline" borderBottomWidth="1px" borderColor="line">
          <Text fontFamily="mono" fontSize="14px" color="inkSoft">
            {clockOf(Math.max(0, r.atMs - startMs))}
          </Text>
          <Text flex="1" minW="0" overflowWrap="anywhere">
            <b>{r.title}</b> {r.result}
          </Text>
          {r.check !== undefined && r.check !== "" && <Link href={`/rounds/${encodeURIComponent(r.check)}`}>Proof</Link>}
        </Flex>
      ))}
    </Box>
  );
}
