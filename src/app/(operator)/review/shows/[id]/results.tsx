import { Box, Text } from "@chakra-ui/react";
import Link from "next/link";
import { ClockRow } from "./part";

type Result = Readonly<{ atMs: number; title: string; result: string; check?: string }>;

/** Rounds of a show in their order, with how they ended; a drawn one leads to its proof. */
export function Results({ results, startMs }: Readonly<{ results: readonly Result[]; startMs: number }>) {
  if (results.length === 0) return <Text color="inkSoft">Nothing was drawn, spun or asked in this show.</Text>;
  const inOrder = [...results].sort((a, b) => a.atMs - b.atMs);
  return (
    <Box as="ul" aria-label="Rounds of this show">
      {inOrder.map(({ atMs, title, result, check = "" }, i) => (
        <ClockRow key={i} afterMs={atMs - startMs} end={check !== "" && <Link href={`/rounds/${encodeURIComponent(check)}`}>Proof</Link>}>
          <b>{title}</b> {result}
        </ClockRow>
      ))}
    </Box>
  );
}
