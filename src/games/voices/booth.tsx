"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import type { BoothProps } from "../shown";

type Told = Readonly<{
  n: number;
  name: string;
  text: string;
  voice: string;
  asks: boolean;
  fromMs: number;
  phase?: string;
  untilMs?: number;
}>;

/** Voices in the booth: what is being said, what waits and for what, and each may be dropped. */
export function VoicesBooth({ view, command }: BoothProps) {
  // Views of operators are written by the voices' own rules.
  const now = (view["now"] ?? null) as Told | null;
  const texts = (view["texts"] ?? []) as readonly Told[];
  const [nowMs, setNowMs] = useState(() => Date.now());
  const ticking = now !== null || texts.length > 0;
  useEffect(() => {
    if (!ticking) return;
    const timer = setInterval(() => setNowMs(Date.now()), 500);
    return () => clearInterval(timer);
  }, [ticking]);
  const waits = (t: Told): string => {
    if (t.asks) return "waits for a yes";
    const s = Math.ceil((t.fromMs - nowMs) / 1000);
    return s > 0 ? `in ${s} s` : t.voice === "" ? "to be shown" : `voice: ${t.voice}`;
  };
  return (
    <Box data-testid="voices-booth">
      {view["held"] === true && (
        <Text fontWeight="700" color="ochreText">
          Held: nothing more begins.
        </Text>
      )}
      <Text fontWeight="700" aria-live="polite" lineHeight="1.25" lineClamp={3} overflowWrap="anywhere">
        {now === null ? (
          "Nothing is being said."
        ) : (
          <>
            {now.name !== "" && (
              <>
                <bdi>{now.name}</bdi>:{" "}
              </>
            )}
            “{now.text}”
          </>
        )}
      </Text>
      {now !== null && (
        <Text fontSize="15px" color="inkSoft">
          {now.phase === "making"
            ? "The voice is getting ready…"
            : `${Math.max(0, Math.ceil(((now.untilMs ?? 0) - nowMs) / 1000))} s to go`}
        </Text>
      )}
      {texts.length > 0 && (
        <Stack as="ul" gap="0.5" mt="1" aria-label="What waits" maxH="132px" overflowY="auto" tabIndex={texts.length > 3 ? 0 : undefined}>
          {texts.map((t) => (
            <Flex as="li" key={t.n} gap="2" fontSize="15px" align="center">
              <Text flex="1" truncate title={t.text}>
                <Text as="span" fontWeight="700">
                  {t.name}
                </Text>{" "}
                {t.text}
              </Text>
              <Text color="inkSoft" flexShrink="0" fontSize="14px">
                {waits(t)}
              </Text>
              {t.asks && (
                <Button
                  size="xs"
                  variant="outline"
                  px="2"
                  aria-label={`Say it: what ${t.name || "somebody"} wrote`}
                  onClick={() => void command({ do: "approve", n: t.n })}
                >
                  Say it
                </Button>
              )}
              <Button
                size="xs"
                variant="outline"
                px="2"
                aria-label={`Drop what ${t.name || "somebody"} wrote`}
                onClick={() => void command({ do: "drop", n: t.n })}
              >
                Drop
              </Button>
            </Flex>
          ))}
        </Stack>
      )}
    </Box>
  );
}
