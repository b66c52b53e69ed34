"use client";
import { Flex, Text, VisuallyHidden } from "@chakra-ui/react";
import { Part } from "./part";

const tables = [
  ["results", "Results"],
  ["winners", "Winners"],
  ["aired", "Spoken and shown"],
  ["sales", "Sales"],
  ["people", "People"],
] as const;

/** The show as files: its tables, and all of it as one. */
export function ShowFiles({ id }: Readonly<{ id: number }>) {
  const path = `/api/review/shows/${id}`;
  return (
    <Part title="Files of this show">
      <Flex as="ul" direction="column" gap="1" aria-label="Files of this show">
        {tables.map(([what, name]) => (
          <Flex as="li" key={what} listStyleType="none" gap="4">
            <Text minW="140px">{name}</Text>
            <a href={`${path}/table?what=${what}&as=csv`} download>
              CSV<VisuallyHidden> of {name.toLowerCase()}</VisuallyHidden>
            </a>
            <a href={`${path}/table?what=${what}&as=json`} download>
              JSON<VisuallyHidden> of {name.toLowerCase()}</VisuallyHidden>
            </a>
          </Flex>
        ))}
        <Flex as="li" listStyleType="none" gap="4">
          <Text minW="140px">All of it</Text>
          <a href={`${path}/whole`} download>
            ZIP with its manifest
          </a>
        </Flex>
      </Flex>
      <Text fontSize="15px" color="inkSoft" mt="2">
        The ZIP holds the whole log; its manifest says what is in it. Sales, people and the whole leave with the owner alone.
      </Text>
    </Part>
  );
}
