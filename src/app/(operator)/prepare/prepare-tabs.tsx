import { Box, Text } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { SectionNav } from "../../../ui/section-nav";

const parts = [
  { id: "games", path: "/prepare", name: "Games" },
  { id: "rules", path: "/prepare/rules", name: "Rules" },
  { id: "cues", path: "/prepare/cues", name: "Cues" },
  { id: "rewards", path: "/prepare/rewards", name: "Rewards" },
  { id: "points", path: "/prepare/points", name: "Points" },
  { id: "commands", path: "/prepare/commands", name: "Commands" },
  { id: "show", path: "/prepare/show", name: "Show" },
  { id: "props", path: "/prepare/props", name: "Props" },
  { id: "emotes", path: "/prepare/emotes", name: "Emotes" },
  { id: "overlays", path: "/prepare/overlays", name: "Overlays" },
  { id: "connections", path: "/prepare/connections", name: "Connections" },
] as const;

export type PreparePart = (typeof parts)[number]["id"];

/** The parts of Prepare, one line under the top bar. */
export function PrepareNav({ here }: Readonly<{ here: PreparePart }>) {
  return <SectionNav label="Prepare" parts={parts} here={here} />;
}

/** A part of Prepare with its title and what it is for. */
export function PrepareTabs({
  here,
  title,
  about,
  children,
}: Readonly<{ here: PreparePart; title: string; about: string; children: ReactNode }>) {
  return (
    <Box>
      <PrepareNav here={here} />
      <Box maxW="1040px" mx="auto" px="5" py="6">
        <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="26px">
          {title}
        </Text>
        <Text color="inkSoft" mb="6" maxW="70ch">
          {about}
        </Text>
        {children}
      </Box>
    </Box>
  );
}
