"use client";
import { Box, Grid, Text } from "@chakra-ui/react";
import type { PastShow } from "../../../server/ports/show-store";
import { clockOf } from "../../_frame/show";
import { When } from "../../../ui/when";

/** The shows and rehearsals that ended, newest first. */
export function PastShows({ shows }: Readonly<{ shows: readonly PastShow[] }>) {
  return (
    <Box maxW="640px" mx="auto" px="5" pt="8" pb="10">
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="19px" mb="2">
        Shows so far
      </Text>
      {shows.length === 0 ? (
        <Text color="inkSoft">None has ended yet. Go on air in the booth, and it stands here afterwards.</Text>
      ) : (
        <Box role="list" aria-label="Shows so far">
          {shows.map((s) => (
            <Grid
              key={`${s.fromMs}.${s.toMs}`}
              role="listitem"
              templateColumns="minmax(0,1fr) 90px 150px"
              gap="4"
              py="1.5"
              borderBottomWidth="1px"
              borderColor="line"
            >
              <Text>
                {s.rehearsal ? "Rehearsal" : "Show"}, begun by {s.by}
              </Text>
              <Text fontFamily="mono" fontSize="15px" textAlign="right">
                {clockOf(s.toMs - s.fromMs)}
              </Text>
              <Text color="inkSoft" textAlign="right">
                <When atMs={s.toMs} />
              </Text>
            </Grid>
          ))}
        </Box>
      )}
    </Box>
  );
}
