"use client";
import { Box, Grid, Text } from "@chakra-ui/react";
import Link from "next/link";
import { clockOf } from "../../../core/words/clock";
import type { OutsideShowRow } from "../../../server/ports/outside-show-store";
import type { PastShow } from "../../../server/ports/show-store";
import { OutsideShows } from "./outside-shows";
import { Trends } from "./trends";
import { When } from "../../../ui/when";

/** The shows and rehearsals that ended, newest first; a show opens into its tape. */
export function PastShows({ shows, outside }: Readonly<{ shows: readonly PastShow[]; outside: readonly OutsideShowRow[] }>) {
  return (
    <Box maxW="900px" mx="auto" px="5" pt="6" pb="10">
      {shows.some((s) => !s.rehearsal) && <Trends key={shows[0]?.id} />}
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="19px" mb="2">
        Shows so far
      </Text>
      {shows.length === 0 ? (
        <Text color="inkSoft">None has ended yet. Go on air in the booth, and it stands here afterwards.</Text>
      ) : (
        <Box role="list" aria-label="Shows so far">
          {shows.map((s) => (
            <Box key={s.id} role="listitem" borderBottomWidth="1px" borderColor="line">
              <Grid templateColumns="minmax(0,1fr) 90px 150px" gap="4" py="1.5" alignItems="center">
                {s.rehearsal ? (
                  <Text color="inkSoft">Rehearsal, begun by {s.by}</Text>
                ) : (
                  <Link href={`/review/shows/${s.id}`}>{calledOf(s)}</Link>
                )}
                <Text fontFamily="mono" fontSize="15px" textAlign="right">
                  {clockOf(s.toMs - s.fromMs)}
                </Text>
                <Text color="inkSoft" textAlign="right">
                  <When atMs={s.toMs} />
                </Text>
              </Grid>
            </Box>
          ))}
        </Box>
      )}
      <OutsideShows shows={outside} />
    </Box>
  );
}
/** A show without a name goes by its day. */
const calledOf = ({ name, fromMs }: PastShow): string =>
  name === "" ? `Show of ${new Date(fromMs).toLocaleDateString("en-GB", { weekday: "long", day: "numeric", month: "long" })}` : name;
