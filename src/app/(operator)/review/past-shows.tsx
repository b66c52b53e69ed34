"use client";
import { Box, chakra, Grid, Link, Text } from "@chakra-ui/react";
import { ChevronDown, ChevronRight } from "lucide-react";
import { Fragment, useEffect, useState } from "react";
import { counted } from "../../../core/words/sentence";
import type { PastShow, WhoCame } from "../../../server/ports/show-store";
import { clockOf } from "../../_frame/show";
import { When } from "../../../ui/when";

/** The shows and rehearsals that ended, newest first; each with who came to it. */
export function PastShows({ shows }: Readonly<{ shows: readonly PastShow[] }>) {
  const [open, setOpen] = useState("");
  return (
    <Box maxW="640px" mx="auto" px="5" pt="8" pb="10">
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="19px" mb="2">
        Shows so far
      </Text>
      {shows.length === 0 ? (
        <Text color="inkSoft">None has ended yet. Go on air in the booth, and it stands here afterwards.</Text>
      ) : (
        <Box role="list" aria-label="Shows so far">
          {shows.map((s) => {
            const key = `${s.fromMs}.${s.toMs}`;
            const isOpen = open === key;
            return (
              <Box key={key} role="listitem" borderBottomWidth="1px" borderColor="line">
                <Grid templateColumns="minmax(0,1fr) 90px 150px" gap="4" py="1.5" alignItems="center">
                  {s.rehearsal ? (
                    <Text pl="22px">Rehearsal, begun by {s.by}</Text>
                  ) : (
                    <chakra.button
                      type="button"
                      textAlign="left"
                      cursor="pointer"
                      aria-expanded={isOpen}
                      onClick={() => setOpen(isOpen ? "" : key)}
                      display="flex"
                      alignItems="center"
                      gap="1.5"
                    >
                      {isOpen ? <ChevronDown size={16} aria-hidden="true" /> : <ChevronRight size={16} aria-hidden="true" />}
                      Show, begun by {s.by}
                    </chakra.button>
                  )}
                  <Text fontFamily="mono" fontSize="15px" textAlign="right">
                    {clockOf(s.toMs - s.fromMs)}
                  </Text>
                  <Text color="inkSoft" textAlign="right">
                    <When atMs={s.toMs} />
                  </Text>
                </Grid>
                {isOpen && <Came show={s} />}
              </Box>
            );
          })}
        </Box>
      )}
    </Box>
  );
}

/** Who came: how many, who was new, who was back, and whom one presented, with their pages. */
function Came({ show }: Readonly<{ show: PastShow }>) {
  const [came, setCame] = useState<WhoCame | "failed" | null>(null);
  useEffect(() => {
    let gone = false;
    void fetch(`/api/review/people?from=${show.fromMs}&to=${show.toMs}`)
      .then((r) => r.json())
      .then((said: { ok: boolean; value?: WhoCame }) => !gone && setCame(said.ok && said.value !== undefined ? said.value : "failed"))
      .catch(() => !gone && setCame("failed"));
    return () => void (gone = true);
  }, [show.fromMs, show.toMs]);
  if (came === null)
    return (
      <Text color="inkSoft" pl="22px" pb="2">
        Reading…
      </Text>
    );
  if (came === "failed")
    return (
      <Text color="brickText" pl="22px" pb="2" role="alert">
        It can’t be read at the moment. Close it and try again.
      </Text>
    );
  const more = (count: number, shown: number): string => (count > shown ? ` and ${counted(count - shown, "more", "more")}` : "");
  return (
    <Box pl="22px" pb="3" fontSize="15.5px" data-testid="who-came">
      <Text>{came.came === 0 ? "Nobody was counted in this show." : `${counted(came.came, "viewer")} wrote in it.`}</Text>
      {came.fresh.count > 0 && (
        <Text mt="1">
          <b>For the first time</b> ({came.fresh.count}): {came.fresh.names.join(", ")}
          {more(came.fresh.count, came.fresh.names.length)}
        </Text>
      )}
      {came.back.count > 0 && (
        <Text mt="1">
          <b>Back after a month or longer</b> ({came.back.count}):{" "}
          {came.back.people.map((p) => `${p.name} (${counted(p.days, "day")})`).join(", ")}
          {more(came.back.count, came.back.people.length)}
        </Text>
      )}
      {came.presented.length > 0 && (
        <Text mt="1">
          <b>Presented</b>:{" "}
          {came.presented.map((p, i) => (
            <Fragment key={i}>
              {i > 0 ? ", " : ""}
              {/^https?:/.test(p.page) ? (
                <Link href={p.page} target="_blank" rel="noreferrer noopener" color="slateText" textDecoration="underline">
                  {p.name}
                </Link>
              ) : (
                p.name
              )}
            </Fragment>
          ))}
        </Text>
      )}
    </Box>
  );
}
