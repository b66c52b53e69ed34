"use client";
import { Box } from "@chakra-ui/react";
import dynamic from "next/dynamic";

/** A living picture, whose renderer and scenes come after the page itself; its place is kept for it. */
export const LivingPicture = dynamic(() => import("./living-picture").then((m) => m.LivingPicture), {
  ssr: false,
  loading: () => <Box css={{ aspectRatio: "16 / 9" }} backgroundImage="url(/studio.svg)" backgroundSize="cover" aria-hidden="true" />,
});
