"use client";
import { Box } from "@chakra-ui/react";
import { useLive } from "./live";
import { StatusLine } from "./status-line";

/** How one part of the installation stands, in a line: what is the case, and what to do. Nothing while there is no such part. */
export function HealthLine({ id }: Readonly<{ id: string }>) {
  const item = useLive((s) => s.standing?.health.find((h) => h.id === id));
  if (item === undefined) return null;
  const { state, says, means, todo } = item;
  return (
    <Box mb="3">
      <StatusLine id={id} state={state} colour={state === "good" ? "mossText" : state === "bad" ? "brickText" : "ochreText"}>
        {says} {means} {todo}
      </StatusLine>
    </Box>
  );
}
