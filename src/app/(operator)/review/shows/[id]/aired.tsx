"use client";
import { Box, Link, Text } from "@chakra-ui/react";
import { useState } from "react";
import { count } from "../../../../../core/words/sentence";
import type { ReviewView } from "../../../../../server/web/review";
import { Pick } from "../../../../../ui/pick";
import { ClockRow } from "./part";

/** What was put before the audience, in its order: spoken, shown, presented, cued. */
export function Aired({ aired: { rows, more }, startMs }: Readonly<{ aired: ReviewView["aired"]; startMs: number }>) {
  const [how, setHow] = useState("");
  if (rows.length === 0) return <Text color="inkSoft">Nothing was spoken, shown or presented in this show.</Text>;
  const hows = [...new Set(rows.map((r) => r.how))].sort();
  const shown = rows.filter((r) => how === "" || r.how === how).reverse();
  return (
    <>
      {hows.length > 1 && (
        <Box mb="2">
          <Pick
            label="Which of them"
            value={how}
            options={[{ value: "", words: "all of them" }, ...hows.map((value) => ({ value, words: value }))]}
            width="200px"
            onSet={setHow}
          />
        </Box>
      )}
      <Box as="ul" aria-label="Spoken and shown" maxH="320px" overflowY="auto" tabIndex={0}>
        {shown.map((r, i) => (
          <ClockRow
            key={i}
            afterMs={r.atMs - startMs}
            end={
              r.link === "" ? (
                <Text color="inkSoft" fontSize="15px">
                  {r.how}
                </Text>
              ) : (
                <Link href={r.link} target="_blank" rel="noreferrer" color="slate" fontSize="15px">
                  {r.how}
                </Link>
              )
            }
          >
            <bdi>{r.what}</bdi>
            {r.by !== "" && (
              <Text as="span" color="inkSoft">
                {" "}
                by <bdi>{r.by}</bdi>
              </Text>
            )}
          </ClockRow>
        ))}
      </Box>
      {more && (
        <Text fontSize="15px" color="inkSoft" mt="1">
          The newest {count(rows.length)}; all of them are in the file below.
        </Text>
      )}
    </>
  );
}
