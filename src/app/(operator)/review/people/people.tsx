"use client";
import { Box, Button, chakra, Flex, Input, Text } from "@chakra-ui/react";
import { Download, Search } from "lucide-react";
import { useSearchParams } from "next/navigation";
import { useCallback, useEffect, useRef, useState } from "react";
import { count } from "../../../../core/words/sentence";
import type { Person } from "../../../../server/ports/points-store";
import { tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";
import { Face } from "../../../../ui/face";
import { useLive } from "../../../_frame/live";
import { When } from "../../../../ui/when";
import { PersonPanel } from "./person-panel";
import { ImportPoints } from "./import-points";

/** Viewers and their points: found by name on the left, one of them on the right. */
export function People({ first, name, owner }: Readonly<{ first: readonly Person[]; name: string; owner: boolean }>) {
  const [people, setPeople] = useState(first);
  const asks = useSearchParams().get("q") ?? "";
  const [like, setLike] = useState(asks);
  const [open, setOpen] = useState<Person | null>(null);
  const facesUrl = useLive((s) => s.standing?.facesUrl) ?? "";
  const [taking, setTaking] = useState(false);
  const asked = useRef(0);
  /** What is looked for now: what was set off a while ago must not bring back what was looked for then. */
  const sought = useRef(like);
  const load = useCallback(
    async (words: string) => {
      const own = (asked.current += 1);
      const said = await call<readonly Person[]>("GET", `/people?q=${encodeURIComponent(words)}`);
      // An answer that was overtaken says nothing any more.
      if (own !== asked.current) return;
      if (said.ok) {
        setPeople(said.value);
        // Who was looked for by name is opened at once.
        const [only] = said.value.filter((p) => p.name === asks);
        if (words === asks && asks !== "" && only !== undefined) setOpen(only);
      } else tellTrouble(said.words);
    },
    [asks],
  );
  const again = useCallback(() => void load(sought.current), [load]);
  useEffect(() => {
    sought.current = like;
    const timer = setTimeout(() => void load(like), 150);
    return () => clearTimeout(timer);
  }, [like, load]);
  return (
    <Flex align="start" maxW="1280px" mx="auto" wrap={{ base: "wrap", lg: "nowrap" }}>
      <Box width={{ base: "100%", lg: "520px" }} px="5" py="4" borderRightWidth="1px" borderColor="line">
        <Flex gap="2" mb="3" align="center">
          <Flex flex="1" align="center" gap="2" borderWidth="1px" borderColor="line" borderRadius="8px" px="2">
            <Search size={16} aria-hidden="true" />
            <Input
              variant="flushed"
              border="none"
              size="sm"
              aria-label="Find a viewer"
              placeholder="Find a viewer"
              value={like}
              onChange={(e) => setLike(e.currentTarget.value)}
            />
          </Flex>
          <Button size="sm" variant="outline" aria-pressed={taking} onClick={() => setTaking((t) => !t)}>
            Import a list
          </Button>
          <Button size="sm" variant="outline" asChild>
            <a href="/api/people/export" download="people.csv">
              <Download size={16} aria-hidden="true" /> CSV
            </a>
          </Button>
        </Flex>
        <Text color="inkSoft" fontSize="15px" mb="2">
          {like === "" ? `Those with most ${name}.` : `${people.length === 60 ? "The first 60" : count(people.length)} found.`}
        </Text>
        <Box role="list" aria-label="Viewers">
          {people.map((p) => (
            <Box key={p.id} role="listitem">
              <chakra.button
                type="button"
                display="grid"
                gridTemplateColumns="36px 1fr 170px 90px"
                width="100%"
                textAlign="left"
                alignItems="center"
                py="1.5"
                px="2"
                borderBottomWidth="1px"
                borderColor="line"
                bg={open?.id === p.id ? "blank" : "transparent"}
                cursor="pointer"
                _hover={{ bg: "raised" }}
                aria-pressed={open?.id === p.id}
                onClick={() => {
                  setTaking(false);
                  setOpen(p);
                }}
              >
                <Face name={p.name} facesUrl={facesUrl} size={26} />
                <Text fontWeight="700" truncate>
                  {p.name}
                </Text>
                <Text color="inkSoft" fontSize="14.5px" whiteSpace="nowrap">
                  {p.lastMs === null ? "" : <When atMs={p.lastMs} />}
                </Text>
                <Text fontFamily="mono" textAlign="right">
                  {count(p.balance)}
                </Text>
              </chakra.button>
            </Box>
          ))}
        </Box>
        {people.length === 0 && (
          <Text bg="raised" borderRadius="10px" p="4">
            {like === "" ? `Nobody has ${name} yet. Whoever writes during a show gets some, or import a list.` : "Nobody is called so."}
          </Text>
        )}
      </Box>
      <Box flex="1" minW="0" px="6" py="4">
        {taking ? (
          <ImportPoints name={name} onDone={() => again()} />
        ) : open === null ? (
          <Text color="inkSoft">Choose a viewer, and what they have, how it came and went, and what can be corrected stand here.</Text>
        ) : (
          <PersonPanel
            key={open.id}
            person={open}
            name={name}
            owner={owner}
            onChanged={() => again()}
            onGone={() => {
              setOpen(null);
              again();
            }}
          />
        )}
      </Box>
    </Flex>
  );
}
