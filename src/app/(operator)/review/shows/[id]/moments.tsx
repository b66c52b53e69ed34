"use client";
import { Box, Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { ReviewedShow } from "../../../../../server/ports/review-store";
import type { ShownMoment } from "../../../../../server/web/review";
import { RowName } from "../../../../../ui/row-name";
import { clockOf } from "../../../../../core/words/clock";
import type { Span } from "./show-tape";

type Props = Readonly<{
  moments: readonly ShownMoment[] | null;
  show: ReviewedShow;
  span: Span;
  whole: Span;
  onAct: (body: object) => Promise<boolean>;
  onSpan: (span: Span) => void;
}>;

/** Moments worth keeping: found by themselves, each with its reason, to be kept, named, dropped; and one's own. */
export function Moments({ moments, show, span, whole, onAct, onSpan }: Props) {
  const open = (moments ?? []).filter((m) => m.state !== "dropped");
  const dropped = (moments ?? []).filter((m) => m.state === "dropped");
  const isWhole = span.toMs - span.fromMs >= whole.toMs - whole.fromMs;
  return (
    <Box>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="18px" mb="1">
        Moments
      </Text>
      {moments === null ? (
        <Text color="inkSoft">Looking for what stands out…</Text>
      ) : open.length === 0 ? (
        <Text color="inkSoft">
          Nothing stands out of this evening’s own usual. Mark one yourself: look closer at the tape, then add it.
        </Text>
      ) : (
        <Stack as="ul" gap="1.5" aria-label="Moments">
          {open.map((m) => (
            <One
              key={m.id}
              moment={m}
              show={show}
              onAct={onAct}
              onLook={() => onSpan({ fromMs: Math.max(whole.fromMs, m.atMs - 30_000), toMs: Math.min(whole.toMs, m.toMs + 30_000) })}
            />
          ))}
        </Stack>
      )}
      <Flex gap="2" mt="2" align="center" wrap="wrap">
        <Button
          size="xs"
          variant="outline"
          disabled={isWhole}
          title={isWhole ? "Look closer at the tape first" : undefined}
          onClick={() => void onAct({ do: "add", atMs: Math.round(span.fromMs), toMs: Math.round(span.toMs), name: "A moment" })}
        >
          Add what the tape shows
        </Button>
        {isWhole && (
          <Text fontSize="14.5px" color="inkSoft">
            Look closer at the tape to mark a stretch of your own.
          </Text>
        )}
      </Flex>
      {dropped.length > 0 && (
        <Box as="details" mt="2" fontSize="15px">
          <Text as="summary" cursor="pointer" color="inkSoft">
            Dropped ({dropped.length})
          </Text>
          {dropped.map((m) => (
            <Flex key={m.id} gap="2" align="center">
              <Text flex="1" minW="0" truncate>
                {clockOf(Math.max(0, m.atMs - show.fromMs))} {m.name}
              </Text>
              <Button
                size="xs"
                variant="outline"
                aria-label={`Bring back ${m.name}`}
                onClick={() => void onAct(m.why === "" ? { do: "keep", moment: of(m) } : { do: "undecide", moment: m.id })}
              >
                Bring back
              </Button>
            </Flex>
          ))}
        </Box>
      )}
    </Box>
  );
}
const of = ({ id, atMs, toMs, name, why }: ShownMoment) => ({ id, atMs, toMs, name, why });

function One({
  moment,
  show,
  onAct,
  onLook,
}: Readonly<{ moment: ShownMoment; show: ReviewedShow; onAct: Props["onAct"]; onLook: () => void }>) {
  const [name, setName] = useState(moment.name);
  const kept = moment.state === "kept";
  const keep = (): void => void onAct({ do: "keep", moment: { ...of(moment), name: name.trim() } });
  return (
    <Box
      as="li"
      listStyleType="none"
      bg="raised"
      borderRadius="8px"
      borderLeftWidth="4px"
      borderLeftColor={kept ? "ochre.solid" : "line"}
      px="2"
      py="1.5"
      data-moment={moment.state}
    >
      <Flex gap="2" align="center">
        <Button size="xs" variant="ghost" px="1" fontFamily="mono" aria-label={`Look at ${moment.name} on the tape`} onClick={onLook}>
          {clockOf(Math.max(0, moment.atMs - show.fromMs))}
        </Button>
        <Box
          flex="1"
          minW="0"
          display="flex"
          onBlur={() => name.trim() !== moment.name && name.trim() !== "" && keep()}
          onKeyDown={(e) => e.key === "Enter" && (e.target as HTMLElement).blur()}
        >
          <RowName
            label={`Name of the moment at ${clockOf(Math.max(0, moment.atMs - show.fromMs))}`}
            value={name}
            most={120}
            onSet={setName}
          />
        </Box>
        {!kept && (
          <Button size="xs" colorPalette="ochre" fontWeight="700" aria-label={`Keep ${moment.name}`} onClick={keep}>
            Keep
          </Button>
        )}
        <Button
          size="xs"
          variant="outline"
          aria-label={`Drop ${moment.name}`}
          onClick={() => void onAct({ do: "drop", moment: of(moment) })}
        >
          Drop
        </Button>
      </Flex>
      <Text fontSize="14.5px" color="inkSoft" pl="1">
        {kept ? `kept by ${moment.by}` : "found"}
        {moment.why === "" ? "" : `: ${moment.why}`}
      </Text>
    </Box>
  );
}
