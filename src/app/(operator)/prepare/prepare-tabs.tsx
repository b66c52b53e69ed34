import { Box, Text } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { FindButton } from "../../_frame/find-button";
import { prepareGroups, type PreparePart, prepareParts } from "../../_frame/places";
import { GroupNav } from "../../../ui/section-nav";

/** The places of Prepare, by what people want to do: a line of groups, and under it the places of the one that is open. */
export function PrepareNav({ here }: Readonly<{ here: PreparePart }>) {
  const group = prepareParts.find((p) => p.id === here)?.group ?? "screen";
  return (
    <GroupNav
      label="Prepare"
      groups={prepareGroups.map((g) => ({ ...g, path: prepareParts.find((p) => p.group === g.id)?.path ?? "/prepare" }))}
      group={group}
      parts={prepareParts.filter((p) => p.group === group)}
      here={here}
      end={<FindButton />}
    />
  );
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
