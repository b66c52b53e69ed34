"use client";
import { Button, Text } from "@chakra-ui/react";
import { HistoryList } from "../history-list";
import type { HistoryProps, RecordRow } from "../shown";
import { useRecords } from "../use-records";

type Body = Readonly<{ name?: string; page?: string; by?: string }>;
// What the presenting's own rules wrote.
const bodyOf = ({ body }: RecordRow): Body => body as Body;

/** Whom one presented, with their pages; and once more in a click. */
export function PresentingHistory({ view, load, command }: HistoryProps) {
  const records = useRecords(load, ["presented"], JSON.stringify(view?.["person"] ?? null));
  const again = (row: RecordRow) => {
    const { name = "" } = bodyOf(row);
    return (
      <Button size="xs" variant="outline" px="2" onClick={() => void command({ do: "present", name }, `${name} is being looked for.`)}>
        Again
      </Button>
    );
  };
  return (
    <HistoryList
      title="Who was presented"
      empty="Nobody yet. Each presented person is listed here, with their page."
      rows={records?.presented ?? null}
      end={again}
    >
      {(row) => {
        const { name = "", page = "", by = "" } = bodyOf(row);
        return (
          <>
            <Text fontWeight="600" minW="150px">
              <bdi>{name}</bdi>
            </Text>
            <Text flex="1" color="inkSoft" minW="180px" overflowWrap="anywhere">
              {page}
              {by === "" ? "" : ` · by ${by}`}
            </Text>
          </>
        );
      }}
    </HistoryList>
  );
}
