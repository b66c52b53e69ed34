import { Box, Flex } from "@chakra-ui/react";
import Link from "next/link";
import type { ReactNode } from "react";

type Part = Readonly<{ id: string; path: string; name: string }>;
const PartLink = ({ part, here }: Readonly<{ part: Part; here: boolean }>) => (
  <Link href={part.path} aria-current={here ? "page" : undefined} style={{ textDecoration: "none", display: "flex" }}>
    <Flex
      align="center"
      py="1.5"
      whiteSpace="nowrap"
      color={here ? "ink" : "inkSoft"}
      fontWeight={here ? 700 : 500}
      borderBottomWidth="3px"
      borderBottomColor={here ? "ochre.solid" : "transparent"}
      _hover={{ color: "ink" }}
    >
      {part.name}
    </Flex>
  </Link>
);

/** The parts of a phase, one line under the top bar. */
export function SectionNav({ label, parts, here }: Readonly<{ label: string; parts: readonly Part[]; here: string }>) {
  return (
    <Flex
      as="nav"
      aria-label={label}
      px="5"
      minH="48px"
      align="stretch"
      gap="5"
      overflowX="auto"
      borderBottomWidth="1px"
      borderColor="line"
    >
      {parts.map((p) => (
        <PartLink key={p.id} part={p} here={p.id === here} />
      ))}
    </Flex>
  );
}

/** Groups of places in one line, and the places of the open group in a second one where it has more than one. */
export function GroupNav({
  label,
  groups,
  group,
  parts,
  here,
  end,
}: Readonly<{ label: string; groups: readonly Part[]; group: string; parts: readonly Part[]; here: string; end: ReactNode }>) {
  return (
    <Box borderBottomWidth="1px" borderColor="line">
      <Flex
        as="nav"
        aria-label={label}
        px="5"
        minH="50px"
        align="center"
        gap="1"
        wrap={{ base: "wrap", md: "nowrap" }}
        py={{ base: "1", md: "0" }}
      >
        {groups.map((g) => {
          const open = g.id === group;
          return (
            <Link key={g.id} href={g.path} aria-current={open ? "true" : undefined} style={{ textDecoration: "none", display: "flex" }}>
              <Box
                px="3.5"
                py="1.5"
                borderRadius="full"
                whiteSpace="nowrap"
                fontWeight={open ? 700 : 500}
                color={open ? "ground" : "inkSoft"}
                bg={open ? "ink" : "transparent"}
                _hover={open ? {} : { color: "ink", bg: "raised" }}
              >
                {g.name}
              </Box>
            </Link>
          );
        })}
        <Box flex="1" />
        {end}
      </Flex>
      {parts.length > 1 && (
        <Flex as="nav" aria-label={`${label}: ${groups.find((g) => g.id === group)?.name ?? ""}`} px="5" gap="5" overflowX="auto">
          {parts.map((p) => (
            <PartLink key={p.id} part={p} here={p.id === here} />
          ))}
        </Flex>
      )}
    </Box>
  );
}
