"use client";
import { Box, Button, Flex, Text } from "@chakra-ui/react";
import { useCallback, useEffect, useState } from "react";
import type { SaleState } from "../../../../core/rewards/ledger-view";
import { count } from "../../../../core/words/sentence";
import type { SaleLine } from "../../../../server/ports/points-store";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";
import { useLive } from "../../../_frame/live";
import { commandAndTell, theRewards } from "../../../_frame/show";
import { When } from "../../../../ui/when";

const states: readonly (readonly [SaleState | "all", string])[] = [
  ["waiting", "Waiting"],
  ["done", "Done"],
  ["refunded", "Given back"],
  ["all", "All"],
];

/** What viewers bought: to be done, done, given back. Every step can be taken back. */
export function Sales({ first, owner, name }: Readonly<{ first: readonly SaleLine[]; owner: boolean; name: string }>) {
  const [sales, setSales] = useState(first);
  const [state, setState] = useState<SaleState | "all">("waiting");
  const waiting = useLive((s) => s.standing?.sales.count);
  const changes = useLive((s) => s.standing?.sales.changes);
  const load = useCallback(async (which: SaleState | "all") => {
    const said = await call<readonly SaleLine[]>("GET", `/sales?state=${which}`);
    if (said.ok) setSales(said.value);
    else tellTrouble(said.words);
  }, []);
  // Whoever decided something, here or elsewhere: what stands here is true.
  useEffect(() => void load(state), [load, state, waiting, changes]);
  const act = async (sale: SaleLine, what: "done" | "refund"): Promise<void> => {
    const done = await commandAndTell(theRewards, { do: "sale", sale: sale.id, what, seen: sale.state });
    if (!done) return void load(state);
    const undo = async (): Promise<void> => {
      await commandAndTell(
        theRewards,
        what === "done" ? { do: "sale", sale: sale.id, what: "undone" } : { do: "sale-again", sale: sale.id },
      );
      await load(state);
    };
    tell(
      what === "done" ? `${sale.rewardName} for ${sale.viewer.name}: done.` : `${sale.viewer.name} got ${count(sale.price)} ${name} back.`,
      () => void undo(),
    );
    await load(state);
  };
  const groups = [...new Map(sales.filter((s) => s.state === "waiting").map((s) => [s.rewardId, s.rewardName]))]
    .map(([id, title]) => ({ id, title, many: sales.filter((s) => s.rewardId === id && s.state === "waiting").length }))
    .filter((g) => g.many > 1);
  const refundAll = async (id: string, title: string): Promise<void> => {
    const those = sales.filter((s) => s.rewardId === id && s.state === "waiting");
    if (!(await commandAndTell(theRewards, { do: "refund-all", reward: id }, () => undefined))) return;
    tell(
      `All who asked for ${title} got their ${name} back.`,
      () =>
        void (async () => {
          for (const s of those) await commandAndTell(theRewards, { do: "sale-again", sale: s.id });
          await load(state);
        })(),
    );
    await load(state);
  };
  return (
    <Box maxW="1040px" mx="auto" px="5" py="5">
      <Flex align="baseline" gap="4" mb="3" wrap="wrap">
        <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="22px">
          Sales
        </Text>
        <Flex gap="1" role="group" aria-label="Which sales">
          {states.map(([id, words]) => (
            <Button
              key={id}
              size="sm"
              variant={id === state ? "solid" : "outline"}
              aria-pressed={id === state}
              onClick={() => setState(id)}
            >
              {words}
              {id === "waiting" && (waiting ?? 0) > 0 ? ` ${count(waiting ?? 0)}` : ""}
            </Button>
          ))}
        </Flex>
        <Box flex="1" />
        {groups.map((g) => (
          <Button key={g.id} size="xs" variant="outline" onClick={() => void refundAll(g.id, g.title)}>
            Refund all {g.many} of {g.title}
          </Button>
        ))}
      </Flex>
      {sales.length === 0 ? (
        <Text color="inkSoft">
          {state === "waiting" ? "Nothing waits. Rewards that need a yes, or something to be handed over, come here." : "None."}
        </Text>
      ) : (
        <Box role="list" aria-label="Sales">
          {sales.map((s) => (
            <Flex key={s.id} role="listitem" gap="4" py="2" align="center" borderBottomWidth="1px" borderColor="line" data-sale={s.id}>
              <Box flex="1" minW="0">
                <Text>
                  <b>{s.viewer.name}</b> {s.state === "waiting" ? "wants" : "bought"} <b>{s.rewardName}</b>
                  {s.text === "" ? "" : `: “${s.text}”`}
                </Text>
                <Text color="inkSoft" fontSize="14.5px">
                  {count(s.price)} {name} · <When atMs={s.atMs} />
                  {s.decidedBy === "" ? "" : ` · ${s.state === "done" ? "done" : "given back"} by ${s.decidedBy}`}
                </Text>
                {s.hasDetail && owner && <Detail sale={s.id} />}
                {s.hasDetail && !owner && (
                  <Text color="inkSoft" fontSize="14.5px">
                    With something private, for the owner’s eyes.
                  </Text>
                )}
              </Box>
              {s.state === "waiting" && (
                <Button size="sm" variant="outline" color="mossText" onClick={() => void act(s, "done")}>
                  Done
                </Button>
              )}
              {s.state !== "refunded" ? (
                <Button size="sm" variant="ghost" color="brickText" onClick={() => void act(s, "refund")}>
                  Refund
                </Button>
              ) : (
                <Text color="inkSoft">given back</Text>
              )}
            </Flex>
          ))}
        </Box>
      )}
    </Box>
  );
}

/** Read only when asked for, and each reading is written down. */
function Detail({ sale }: Readonly<{ sale: string }>) {
  const [text, setText] = useState<string | null>(null);
  const read = async (): Promise<void> => {
    const said = await call<{ detail: string }>("POST", `/sales/${sale}/detail`);
    if (said.ok) setText(said.value.detail);
    else tellTrouble(said.words);
  };
  return text === null ? (
    <Button size="xs" variant="outline" mt="1" onClick={() => void read()}>
      Show what is private
    </Button>
  ) : (
    <Text mt="1" bg="note" borderRadius="6px" px="3" py="1.5" whiteSpace="pre-wrap">
      {text}
    </Text>
  );
}
