"use client";
import { Box, Text } from "@chakra-ui/react";
import Link from "next/link";
import { useLive } from "../../../../_frame/live";
import { Booth, type BoothProps } from "../../../run/booth";
import { Learnt } from "./learnt";
import { Strip, stripPx } from "./strip";

/** A rehearsal: the booth on its copies, with hands on its time and its crowd above; afterwards what was learnt. */
export function Room({ id, ...booth }: Readonly<{ id: string }> & Omit<BoothProps, "above">) {
  const linked = useLive((s) => s.linked);
  const state = useLive((s) => (s.standing?.rehearsal?.id === id ? s.standing.rehearsal.state : null));
  if (linked === "gone")
    return (
      <Box maxW="640px" mx="auto" px="5" pt="12">
        <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="24px" mb="2">
          This rehearsal is not there any more
        </Text>
        <Text mb="3">
          It ended some time ago, or Izzam was restarted. Nothing of it was kept anywhere, and the channel stands as it did before.
        </Text>
        <Link href="/rehearse">Begin another</Link>
      </Box>
    );
  if (state === null)
    return (
      <Text px="5" pt="8" color="inkSoft" role="status">
        Getting the copies ready…
      </Text>
    );
  if (state === "over") return <Learnt id={id} />;
  return <Booth {...booth} above={{ strip: <Strip id={id} />, px: stripPx }} />;
}
