"use client";
import { Box, Button, chakra, Flex, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Command } from "../../core/signals/signal";
import { count, counted } from "../../core/words/sentence";
import { Modal } from "../../ui/modal";
import { useSure } from "../../ui/sure";
import type { BoothProps } from "../shown";

type Recent = Readonly<{ name: string; tickets: number; guess: number | null; key: string }>;
type Barred = Readonly<{ id: string; name: string }>;

/** Who came in last, with what can be done about each; others are found by their name. */
export function WhoIsIn({ view, command, onClose }: Pick<BoothProps, "view" | "command"> & Readonly<{ onClose: () => void }>) {
  // Views of operators are written by the draw's own rules.
  const recent = (view["recent"] ?? []) as readonly Recent[];
  const barred = (view["barred"] ?? []) as readonly Barred[];
  const people = Number(view["people"] ?? 0);
  const isOpen = view["phase"] === "open";
  const [name, setName] = useState("");
  const run = (what: Command): void => void command(what);
  const clear = useSure("Take everybody out", () => run({ do: "clear" }));
  const given = name.trim();
  return (
    <Modal
      title="Who is in"
      about={`${counted(people, "viewer")}${people > recent.length ? `, the newest ${count(recent.length)} here` : ""}`}
      onClose={onClose}
    >
      <Flex gap="2" mb="3">
        <chakra.input
          aria-label="Name of somebody"
          placeholder="a name"
          value={name}
          maxLength={80}
          flex="1"
          minW="0"
          minH="34px"
          px="2"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          bg="ground"
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <Button size="sm" variant="outline" disabled={given === "" || !isOpen} onClick={() => run({ do: "remove", name: given })}>
          Take out
        </Button>
        <Button size="sm" variant="outline" disabled={given === ""} onClick={() => run({ do: "bar", name: given, on: true })}>
          Bar
        </Button>
      </Flex>
      {recent.length === 0 && <Text color="inkSoft">Nobody is in yet. Who enters stands here, newest first.</Text>}
      <Stack gap="0" role="list" aria-label="Newest entrants" maxH="320px" overflowY="auto" tabIndex={recent.length > 8 ? 0 : undefined}>
        {recent.map((e) => (
          <Flex key={e.key} role="listitem" align="center" gap="2" borderBottomWidth="1px" borderColor="line" py="0.5">
            <Text flex="1" minW="0" truncate>
              <bdi>{e.name}</bdi>
            </Text>
            <Text color="inkSoft" fontFamily="mono" fontSize="14px">
              {e.guess === null ? counted(e.tickets, "ticket") : count(e.guess)}
            </Text>
            <Button
              size="xs"
              variant="ghost"
              disabled={!isOpen}
              aria-label={`Take ${e.name} out`}
              onClick={() => run({ do: "remove", viewer: e.key })}
            >
              Take out
            </Button>
            <Button
              size="xs"
              variant="ghost"
              aria-label={`Bar ${e.name}`}
              onClick={() => run({ do: "bar", viewer: e.key, name: e.name, on: true })}
            >
              Bar
            </Button>
          </Flex>
        ))}
      </Stack>
      {barred.length > 0 && (
        <Box mt="4">
          <Text fontWeight="700">Barred</Text>
          <Flex gap="2" wrap="wrap" mt="1">
            {barred.map((b) => (
              <Button
                key={b.id}
                size="xs"
                variant="outline"
                aria-label={`Let ${b.name} in again`}
                onClick={() => run({ do: "bar", viewer: b.id, name: b.name, on: false })}
              >
                <bdi>{b.name}</bdi> ×
              </Button>
            ))}
          </Flex>
        </Box>
      )}
      {people > 0 && isOpen && (
        <Button mt="4" size="sm" variant="outline" color="brickText" onBlur={clear.leave} onClick={clear.press}>
          {clear.words}
        </Button>
      )}
    </Modal>
  );
}
