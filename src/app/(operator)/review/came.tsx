"use client";
import { Box, Link, Text } from "@chakra-ui/react";
import { Fragment } from "react";
import { counted } from "../../../core/words/sentence";
import type { WhoCame } from "../../../server/ports/show-store";

/** Who came: how many, who was new, who was back, and whom one presented, with their pages. */
export function Came({ came }: Readonly<{ came: WhoCame }>) {
  const more = (count: number, shown: number): string => (count > shown ? ` and ${counted(count - shown, "more", "more")}` : "");
  return (
    <Box fontSize="15.5px" data-testid="who-came">
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
