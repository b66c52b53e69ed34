"use client";
import { Box, Text } from "@chakra-ui/react";
import Link from "next/link";
import { useState } from "react";
import { mostShowBytes } from "../../../core/props/sizes";
import { counted } from "../../../core/words/sentence";
import type { OutsideShowRow } from "../../../server/ports/outside-show-store";
import { tell, tellTrouble } from "../../../ui/toaster";
import { When } from "../../../ui/when";
import { BringIn, BroughtIn } from "../../_frame/brought-in";
import { type Answer, call } from "../../_frame/call";

/** Shows of other installations, brought in as their ZIP to be looked at. */
export function OutsideShows({ shows: first }: Readonly<{ shows: readonly OutsideShowRow[] }>) {
  const [shows, setShows] = useState(first);
  const look = async (): Promise<void> => {
    const said = await call<{ shows: readonly OutsideShowRow[] }>("GET", "/review/outside");
    if (said.ok) setShows(said.value.shows);
  };
  const came = (said: Answer<{ id: string; bad: number }>): void => {
    if (!said.ok) tellTrouble(said.words);
    else if (said.value.bad === 0) tell("It came in, and stands below.");
    else tell(`It came in; ${counted(said.value.bad, "line")} of its log could not be read.`);
  };
  return (
    <Box mt="8">
      <BringIn
        aria-labelledby="shows-from-outside"
        data-testid="outside-shows"
        label="The ZIP of a show"
        button="Bring in a show"
        accept=".zip,application/zip"
        path="/review/outside"
        most={mostShowBytes}
        onAnswer={came}
        onDone={look}
      >
        {(button) => (
          <>
            <Text as="h2" id="shows-from-outside" fontFamily="heading" fontWeight="700" fontSize="19px" mb="1">
              Shows from outside
            </Text>
            <Text color="inkSoft" fontSize="15px" mb="2">
              The ZIP of a show, from another installation or kept from this one, can be opened here to be looked at. None of it counts in
              this channel.
            </Text>
            {button}
            <BroughtIn
              items={shows}
              label="Shows from outside"
              fieldLabel="What this show is called"
              path="/review/outside"
              name={(s) => <Link href={`/review/outside/${s.id}`}>{s.name}</Link>}
              facts={(s) => (
                <>
                  brought in by {s.by}, <When atMs={s.createdMs} />
                </>
              )}
              onChanged={look}
            />
          </>
        )}
      </BringIn>
    </Box>
  );
}
