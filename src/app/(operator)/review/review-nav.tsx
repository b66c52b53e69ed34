import { Flex } from "@chakra-ui/react";
import Link from "next/link";

const parts = [
  { id: "shows", path: "/review", name: "Shows" },
  { id: "points", path: "/review/points", name: "Points" },
  { id: "sales", path: "/review/sales", name: "Sales" },
  { id: "people", path: "/review/people", name: "People" },
] as const;

/** The parts of Review, one line under the top bar. */
export function ReviewNav({ here }: Readonly<{ here: (typeof parts)[number]["id"] }>) {
  return (
    <Flex
      as="nav"
      aria-label="Review"
      px="5"
      minH="48px"
      align="stretch"
      gap="6"
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
