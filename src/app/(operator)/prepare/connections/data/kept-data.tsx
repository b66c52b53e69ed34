"use client";
import { Box, Button, chakra, Field, Flex, Input, Table, Text } from "@chakra-ui/react";
import { Download } from "lucide-react";
import { useRouter } from "next/navigation";
import { type FormEvent, useState } from "react";
import { count, counted } from "../../../../../core/words/sentence";
import type { DataStore, KeptMonth, Retention } from "../../../../../server/ports/operator-store";
import { tell } from "../../../../../ui/toaster";
import { call } from "../../../../_frame/call";
import { Trouble } from "../../../../_frame/trouble";

const sizeInWords = (bytes: number): string =>
  bytes < 1_000_000
    ? `${Math.max(1, Math.round(bytes / 1_000))} kB`
    : bytes < 1e9
      ? `${(bytes / 1e6).toFixed(1)} MB`
      : `${(bytes / 1e9).toFixed(2)} GB`;
const monthInWords = (month: string): string =>
  new Intl.DateTimeFormat("en-GB", { month: "long", year: "numeric", timeZone: "UTC" }).format(new Date(`${month}-01T00:00:00Z`));
const dayInWords = (atMs: number): string =>
  new Intl.DateTimeFormat("en-GB", { dateStyle: "medium", timeZone: "UTC" }).format(new Date(atMs));

/** The log by month, each with a download and the day it goes; what else takes room; and for how long it all is kept. */
export function KeptData({
  retention,
  months,
  sizes,
  owner,
}: Readonly<{ retention: Retention; months: readonly KeptMonth[]; sizes: Awaited<ReturnType<DataStore["sizes"]>>; owner: boolean }>) {
  const router = useRouter();
  const [trouble, setTrouble] = useState("");
  const save = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const of = (name: string): number => Number(form.get(name));
    setTrouble("");
    const done = await call("PUT", "/data", { logDays: of("logDays"), auditDays: of("auditDays"), hitDays: of("hitDays") });
    if (!done.ok) return setTrouble(done.words);
    tell("Kept so from now on. What is older goes within a day.");
    router.refresh();
  };
  const next = months.reduce<KeptMonth | null>((first, m) => (first === null || m.goesMs < first.goesMs ? m : first), null);
  return (
    <>
      <Box as="section" aria-label="The log">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="20px">
          The log
        </Text>
        <Text color="inkSoft" mb="3" maxW="72ch">
          What was said and what happened, as it happened.{" "}
          {next === null ? "" : `${monthInWords(next.month)} goes next, on ${dayInWords(next.goesMs)}. `}
          Points, sales, shows, who reigned and all sums are kept for good, whatever goes here.
        </Text>
        {months.length === 0 ? (
          <Text color="inkSoft">Nothing yet. The first message makes the first month.</Text>
        ) : (
          <Table.Root
            size="sm"
            variant="line"
            bg="transparent"
            css={{ "& tr": { bg: "transparent" }, "& td, & th": { borderColor: "line", bg: "transparent", color: "ink" } }}
          >
            <Table.Header>
              <Table.Row>
                <Table.ColumnHeader>Month</Table.ColumnHeader>
                <Table.ColumnHeader textAlign="end">Messages</Table.ColumnHeader>
                <Table.ColumnHeader textAlign="end">Other signals</Table.ColumnHeader>
                <Table.ColumnHeader textAlign="end">On disk</Table.ColumnHeader>
                <Table.ColumnHeader>Goes on</Table.ColumnHeader>
                <Table.ColumnHeader />
              </Table.Row>
            </Table.Header>
            <Table.Body>
              {months.map((m) => (
                <Table.Row key={m.month}>
                  <Table.Cell fontWeight="600">{monthInWords(m.month)}</Table.Cell>
                  <Table.Cell textAlign="end" fontFamily="mono">
                    {count(m.messages)}
                  </Table.Cell>
                  <Table.Cell textAlign="end" fontFamily="mono">
                    {count(m.others)}
                  </Table.Cell>
                  <Table.Cell textAlign="end" fontFamily="mono">
                    {sizeInWords(m.bytes)}
                  </Table.Cell>
                  <Table.Cell>{dayInWords(m.goesMs)}</Table.Cell>
                  <Table.Cell textAlign="end">
                    {owner && (
                      <chakra.a
                        href={`/api/data/${m.month}`}
                        download
                        display="inline-flex"
                        alignItems="center"
                        gap="1.5"
                        aria-label={`Download the log of ${monthInWords(m.month)}`}
                      >
                        <Download size={15} aria-hidden="true" /> Download
                      </chakra.a>
                    )}
                  </Table.Cell>
                </Table.Row>
              ))}
            </Table.Body>
          </Table.Root>
        )}
        {!owner && months.length > 0 && (
          <Text mt="2" color="inkSoft">
            Only the owner may download it, or change how long it is kept.
          </Text>
        )}
      </Box>

      <Box as="section" mt="8" aria-label="How long">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="20px">
          How long
        </Text>
        <Text color="inkSoft" mb="3" maxW="72ch">
          For all channels of this installation. A month of the log goes as a whole, when its last day is old enough.
        </Text>
        <form onSubmit={(e) => void save(e)}>
          <Flex gap="5" wrap="wrap" align="flex-end">
            {(
              [
                ["logDays", "The log, in days"],
                ["auditDays", "Who did what, in days"],
                ["hitDays", "Single hits, heals, entries and stakes, in days"],
              ] as const
            ).map(([name, label]) => (
              <Field.Root key={name} required disabled={!owner} width="auto">
                <Field.Label>{label}</Field.Label>
                <Input
                  name={name}
                  type="number"
                  min={7}
                  max={3_650}
                  step={1}
                  defaultValue={retention[name]}
                  key={retention[name]}
                  fontFamily="mono"
                  maxW="140px"
                />
              </Field.Root>
            ))}
            {owner && (
              <Button type="submit" variant="outline">
                Keep it so
              </Button>
            )}
          </Flex>
          <Trouble words={trouble} mt="2" />
        </form>
        <Text mt="3" color="inkSoft" maxW="72ch">
          Removed props and emotes can be brought back for 30 days; then their files go, unless something else uses them. Private details of
          a sale go ten minutes after it was decided.
        </Text>
      </Box>

      <Box as="section" mt="8" aria-label="What else takes room">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="20px" mb="2">
          What else takes room
        </Text>
        <Box role="list" aria-label="Sizes" maxW="560px">
          {sizes.map((s) => (
            <Flex key={s.what} role="listitem" gap="4" py="1.5" borderBottomWidth="1px" borderColor="line">
              <Text flex="1">{s.what}</Text>
              <Text fontFamily="mono" color="inkSoft">
                about {counted(s.rows, "row")}
              </Text>
              <Text fontFamily="mono" minW="80px" textAlign="end">
                {sizeInWords(s.bytes)}
              </Text>
            </Flex>
          ))}
        </Box>
      </Box>
    </>
  );
}
