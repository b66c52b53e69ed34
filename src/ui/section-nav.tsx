import { Flex } from "@chakra-ui/react";
import Link from "next/link";

/** The parts of a phase, one line under the top bar. */
export function SectionNav({
  label,
  parts,
  here,
}: Readonly<{ label: string; parts: readonly Readonly<{ id: string; path: string; name: string }>[]; here: string }>) {
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
        <Link
          key={p.id}
          href={p.path}
          aria-current={p.id === here ? "page" : undefined}
          style={{ textDecoration: "none", display: "flex" }}
        >
          <Flex
            align="center"
            color={p.id === here ? "ink" : "inkSoft"}
            fontWeight={p.id === here ? 700 : 500}
            borderBottomWidth="3px"
            pt="3px"
            borderBottomColor={p.id === here ? "ochre.solid" : "transparent"}
            _hover={{ color: "ink" }}
          >
            {p.name}
          </Flex>
        </Link>
      ))}
    </Flex>
  );
}
