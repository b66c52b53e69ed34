"use client";
import { Box, Button, chakra, Flex, Stack, Text } from "@chakra-ui/react";
import Papa from "papaparse";
import { useMemo, useState } from "react";
import { peopleIn } from "../../core/games/raffle/people-list";
import type { Command } from "../../core/signals/signal";
import { counted } from "../../core/words/sentence";
import { Modal } from "../../ui/modal";
import { NumberField } from "../../ui/number-field";
import type { PeopleSource } from "../shown";

/** Guessing goes wrong where most lines are a name alone. */
const delimiterOf = (text: string): string => (text.includes("\t") ? "\t" : text.includes(";") ? ";" : ",");
const biggestFile = 1_000_000;

/** People come in by hand, from a list, or since they are there: without a price. */
export function AddPeople({
  most,
  sources,
  command,
  onClose,
}: Readonly<{ most: number; sources: readonly PeopleSource[]; command: (command: Command) => Promise<boolean>; onClose: () => void }>) {
  const [text, setText] = useState("");
  const [tickets, setTickets] = useState(1);
  const [minutes, setMinutes] = useState(10);
  const [top, setTop] = useState(10);
  const [problem, setProblem] = useState("");
  const { people, problems } = useMemo(() => peopleIn(Papa.parse<string[]>(text, { delimiter: delimiterOf(text) }).data), [text]);
  const run = async (what: Command): Promise<void> => {
    if (await command(what)) onClose();
  };
  const read = async (file: File | undefined): Promise<void> => {
    if (file === undefined) return;
    if (file.size > biggestFile) return setProblem("The file is larger than 1 MB. Nothing was read.");
    setProblem("");
    setText(await file.text());
  };
  const each = Math.min(tickets, most);
  return (
    <Modal title="Add people" about="They pay nothing; nobody gets more than they may hold." onClose={onClose}>
      <Text fontWeight="700" mb="1">
        From a list
      </Text>
      <chakra.textarea
        aria-label="Names, one a line, with a comma and how many tickets"
        placeholder={"mossy_teapot\nquietferry, 2"}
        rows={5}
        width="100%"
        p="2"
        borderWidth="1px"
        borderColor="line"
        borderRadius="6px"
        bg="ground"
        fontFamily="mono"
        fontSize="15px"
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
      />
      {[...problems.slice(0, 3), ...(problem === "" ? [] : [problem])].map((p) => (
        <Text key={p} color="brickText" fontSize="14.5px" role="alert">
          {p}
        </Text>
      ))}
      {problems.length > 3 && <Text fontSize="14.5px">and {counted(problems.length - 3, "more line")}</Text>}
      <Flex gap="2" mt="1" align="center" wrap="wrap">
        <Button
          size="sm"
          colorPalette="ochre"
          fontWeight="700"
          disabled={people.length === 0}
          onClick={() => void run({ do: "add", viewers: people })}
        >
          Add {people.length === 0 ? "them" : counted(people.length, "viewer")}
        </Button>
        <chakra.label fontSize="15px" textDecoration="underline" cursor="pointer" minH="24px">
          or a CSV file
          <chakra.input type="file" accept=".csv,.txt,text/csv,text/plain" srOnly onChange={(e) => void read(e.currentTarget.files?.[0])} />
        </chakra.label>
      </Flex>
      <Text fontWeight="700" mt="5">
        Since they are there
      </Text>
      <Text fontSize="15px" mb="2">
        Each with{" "}
        <NumberField
          label="Tickets for each"
          value={tickets}
          min={1}
          max={most}
          unit={tickets === 1 ? "ticket" : "tickets"}
          onSet={setTickets}
        />
        .
      </Text>
      <Stack gap="2">
        <Row label="Add" onClick={() => void run({ do: "add-present", minutes, tickets: each })}>
          Everyone who wrote within <NumberField label="Minutes" value={minutes} min={1} max={240} unit="minutes" onSet={setMinutes} />
        </Row>
        <Row label="Add" onClick={() => void run({ do: "add-top", count: top, tickets: each })}>
          The <NumberField label="How many of the top list" value={top} min={1} max={500} unit="" onSet={setTop} /> with most points
        </Row>
        {sources.map((s) => (
          <Row
            key={s.id}
            label="Add"
            onClick={async () => {
              const found = await s.load();
              if (found.length === 0) return setProblem(`Nobody is known ${s.words} yet.`);
              await run({ do: "add", viewers: found.slice(0, 5_000).map((p) => ({ ...p, tickets: each })) });
            }}
          >
            Everyone {s.words}
          </Row>
        ))}
      </Stack>
    </Modal>
  );
}

const Row = ({ label, onClick, children }: Readonly<{ label: string; onClick: () => void | Promise<void>; children: React.ReactNode }>) => (
  <Flex align="center" gap="3" borderBottomWidth="1px" borderColor="line" pb="1.5">
    <Box flex="1">{children}</Box>
    <Button size="xs" variant="outline" onClick={() => void onClick()}>
      {label}
    </Button>
  </Flex>
);
