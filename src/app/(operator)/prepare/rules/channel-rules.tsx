"use client";
import { ListField } from "../../../../ui/list-field";
import { IconButton } from "../../../../ui/icon-button";
import { Box, Button, chakra, Flex, Stack, Text } from "@chakra-ui/react";
import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import type { Rulebook } from "../../../../core/rules/settings";
import { NumberField } from "../../../../ui/number-field";
import { tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";
import { useLive } from "../../../_frame/live";
import { inputLook } from "../../../../ui/input-look";

type Props = Readonly<{ book: Rulebook; onChange: (part: Partial<Rulebook>) => void }>;

/** What holds for all rules: queues, money, words that are never shown. */
export function ChannelRules({ book, onChange }: Props) {
  return (
    <Stack gap="5">
      <Queues book={book} onChange={onChange} />
      <Money book={book} onChange={onChange} />
      <chakra.label display="block">
        <Text fontFamily="heading" fontWeight="700" fontSize="17px">
          Words never shown
        </Text>
        <Text color="inkSoft" fontSize="15px" mb="1">
          In names and texts from viewers they are covered. Set apart by commas.
        </Text>
        <ListField
          list={book.hiddenWords}
          shape={{ apart: "commas", most: 500, letters: 60 }}
          width="100%"
          rows={2}
          onSet={(hiddenWords) => onChange({ hiddenWords })}
        />
      </chakra.label>
    </Stack>
  );
}

function Queues({ book, onChange }: Props) {
  const standing = useLive((s) => s.standing?.queues) ?? [];
  const act = async (queue: string, what: "skip" | "clear" | "pause" | "go-on"): Promise<void> => {
    const done = await call("POST", "/queues", { do: what, queue });
    if (!done.ok) tellTrouble(done.words);
  };
  return (
    <Box>
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px">
        Queues
      </Text>
      <Text color="inkSoft" fontSize="15px" mb="2">
        What stands in one queue plays one after another, never over each other.
      </Text>
      <Stack gap="2">
        {book.queues.map((queue, i) => {
          const now = standing.find((s) => s.id === queue.id);
          const put = (part: Partial<typeof queue>): void =>
            onChange({ queues: book.queues.map((l, k) => (k === i ? { ...l, ...part } : l)) });
          return (
            <Box key={queue.id} bg="raised" borderRadius="8px" px="3" py="2" fontSize="15px" lineHeight="1.9">
              <Flex align="center" gap="2">
                <chakra.input
                  aria-label="Name of the queue"
                  value={queue.name}
                  maxLength={40}
                  fontWeight="700"
                  bg="transparent"
                  flex="1"
                  minW="0"
                  onChange={(e) => e.currentTarget.value.trim() !== "" && put({ name: e.currentTarget.value })}
                />
                {i > 0 && (
                  <IconButton label={`Take ${queue.name} out`} onClick={() => onChange({ queues: book.queues.filter((_, k) => k !== i) })}>
                    <Trash2 size={15} />
                  </IconButton>
                )}
              </Flex>
              a gap of{" "}
              <NumberField label="Gap" value={queue.gapMs} min={0} max={60_000} scale={1000} unit="s" onSet={(gapMs) => put({ gapMs })} />,
              at most{" "}
              <NumberField label="Most waiting" value={queue.mostWaiting} min={0} max={200} onSet={(mostWaiting) => put({ mostWaiting })} />{" "}
              waiting
              {now !== undefined && (
                <Flex gap="2" align="center" wrap="wrap">
                  <Text color="mossText" fontWeight="600">
                    {now.playing === null ? (now.paused ? "held" : "") : `plays ${now.playing === "" ? "now" : `“${now.playing}”`}`}
                    {now.waiting > 0 ? ` · ${now.waiting} waiting` : ""}
                  </Text>
                  <Button size="xs" variant="outline" onClick={() => void act(queue.id, "skip")}>
                    Skip
                  </Button>
                  <Button size="xs" variant="outline" onClick={() => void act(queue.id, now.paused ? "go-on" : "pause")}>
                    {now.paused ? "Go on" : "Pause"}
                  </Button>
                  {now.waiting > 0 && (
                    <Button size="xs" variant="outline" onClick={() => void act(queue.id, "clear")}>
                      Drop what waits
                    </Button>
                  )}
                </Flex>
              )}
            </Box>
          );
        })}
      </Stack>
      {book.queues.length < 10 && (
        <Button
          size="xs"
          variant="outline"
          mt="2"
          onClick={() =>
            onChange({
              queues: [
                ...book.queues,
                { id: `l${Date.now().toString(36)}`, name: `Queue ${book.queues.length + 1}`, gapMs: 500, mostWaiting: 20 },
              ],
            })
          }
        >
          <Plus size={14} aria-hidden="true" /> Another queue
        </Button>
      )}
    </Box>
  );
}

function Money({ book, onChange }: Props) {
  const { money } = book;
  const [home, setHome] = useState(money.home);
  const [other, setOther] = useState("");
  const rate = (i: number, millionths: number): void =>
    onChange({ money: { ...money, rates: money.rates.map((r, k) => (k === i ? { ...r, millionths } : r)) } });
  return (
    <Box fontSize="15.5px">
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px">
        Money
      </Text>
      <Box lineHeight="2.1">
        Tips count in{" "}
        <chakra.input
          {...inputLook}
          aria-label="Home currency"
          width="70px"
          value={home}
          maxLength={3}
          onChange={(e) => {
            const next = e.currentTarget.value.toUpperCase();
            setHome(next);
            if (/^[A-Z]{3}$/.test(next)) onChange({ money: { ...money, home: next } });
          }}
        />
        . Others count by these rates; a currency without one counts for nothing, and you are told.
      </Box>
      {money.rates.map((r, i) => (
        <Flex key={r.currency} align="center" gap="2" mt="1">
          1 {r.currency} is{" "}
          <NumberField
            label={`Rate of ${r.currency}`}
            value={r.millionths}
            min={1}
            max={1_000_000_000_000}
            scale={1_000_000}
            unit={money.home}
            onSet={(m) => rate(i, m)}
          />
          <IconButton
            label={`Take ${r.currency} out`}
            onClick={() => onChange({ money: { ...money, rates: money.rates.filter((_, k) => k !== i) } })}
          >
            <Trash2 size={15} />
          </IconButton>
        </Flex>
      ))}
      <Flex mt="2" gap="2">
        <chakra.input
          {...inputLook}
          aria-label="Another currency"
          placeholder="USD"
          width="80px"
          maxLength={3}
          value={other}
          onChange={(e) => setOther(e.currentTarget.value.toUpperCase())}
        />
        <Button
          size="sm"
          variant="outline"
          disabled={!/^[A-Z]{3}$/.test(other) || other === money.home || money.rates.some((r) => r.currency === other)}
          onClick={() => {
            onChange({ money: { ...money, rates: [...money.rates, { currency: other, millionths: 1_000_000 }] } });
            setOther("");
          }}
        >
          Add a rate
        </Button>
      </Flex>
    </Box>
  );
}
