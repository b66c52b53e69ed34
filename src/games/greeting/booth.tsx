"use client";
import { Box, Text } from "@chakra-ui/react";
import { count, counted } from "../../core/words/sentence";
import { NameForm } from "../name-form";
import type { BoothProps } from "../shown";

type Card = Readonly<{ kind: string; name: string; line: string; count: number }>;
type Next = Readonly<{ name: string; line: string; count: number }>;

/** Greetings in the booth: who is greeted, who waits, and greeting somebody by hand. */
export function GreetingBooth({ view, command }: BoothProps) {
  // Views of operators are written by the greeting's own rules.
  const card = (view["card"] ?? null) as Card | null;
  const next = (view["next"] ?? []) as readonly Next[];
  const raid = (view["raid"] ?? null) as Readonly<{ name: string; count: number }> | null;
  const more = Number(view["more"] ?? 0);
  return (
    <Box data-testid="greeting-booth">
      <Text fontWeight="700" aria-live="polite" lineHeight="1.25">
        {card === null ? (
          "Nobody is being greeted."
        ) : (
          <>
            <bdi>{card.name}</bdi> {card.kind === "one" ? card.line : `and those who came along: ${count(card.count)}`}
          </>
        )}
      </Text>
      {raid !== null && (
        <Text fontSize="15px">
          The raid of {raid.name}: {counted(raid.count, "viewer")} so far, greeted together.
        </Text>
      )}
      {next.length + more > 0 && (
        <Text fontSize="15px" color="inkSoft" lineClamp={2}>
          Next: {next.map((n) => n.name).join(", ")}
          {more > 0 ? ` and ${count(more)} on one card` : ""}
        </Text>
      )}
      <Text fontSize="15px" color="inkSoft">
        {counted(Number(view["greeted"] ?? 0), "viewer")} greeted in this show
      </Text>
      <NameForm label="Whom to greet" act="Greet" onName={(name) => command({ do: "greet", name })} />
    </Box>
  );
}
