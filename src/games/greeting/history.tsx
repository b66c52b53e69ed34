"use client";
import { Text } from "@chakra-ui/react";
import { counted, ordinal } from "../../core/words/sentence";
import { HistoryList } from "../history-list";
import type { HistoryProps } from "../shown";
import { useRecords } from "../use-records";

type Body = Readonly<{ shows?: number; days?: number | null }>;

/** Who was greeted lately: new, back, or for the how-manieth time. */
export function GreetingHistory({ view, load }: HistoryProps) {
  const records = useRecords(load, ["greeted"], String(view?.["greeted"]));
  return (
    <HistoryList
      title="Who was greeted"
      empty="Nobody yet. The first message of each viewer in a show is listed here."
      rows={records?.greeted ?? null}
    >
      {({ viewer, body }) => {
        // What the greeting's own rules wrote.
        const { shows = 1, days = null } = body as Body;
        return (
          <>
            <Text fontWeight="600" minW="160px">
              <bdi>{viewer?.name ?? "somebody"}</bdi>
            </Text>
            <Text flex="1" color="inkSoft">
              {days === null ? "for the first time" : `for the ${ordinal(shows)} time${days >= 2 ? `, after ${counted(days, "day")}` : ""}`}
            </Text>
          </>
        );
      }}
    </HistoryList>
  );
}
