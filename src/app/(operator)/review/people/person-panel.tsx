"use client";
import dynamic from "next/dynamic";
import { Box, Button, chakra, Flex, Stack, Text } from "@chakra-ui/react";
import { useCallback, useEffect, useState } from "react";
import { historyInWords } from "../../../../core/points/history";
import { count } from "../../../../core/words/sentence";
import type { Person, PersonCard } from "../../../../server/ports/points-store";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";
import { sendCommand, commandAndTell, thePoints, useShow } from "../../../_frame/show";
import { When } from "../../../../ui/when";
import { inputLook } from "../../../../ui/input-look";

// What games do to somebody needs every game; a person can be read before.
const OnPerson = dynamic(() => import("../../../_frame/on-person").then((m) => m.OnPerson), { ssr: false });

/** One viewer: what they have, its history with reasons, and what can be set right. */
export function PersonPanel({
  person,
  name,
  owner,
  onChanged,
  onGone,
}: Readonly<{ person: Person; name: string; owner: boolean; onChanged: () => void; onGone: () => void }>) {
  const [card, setCard] = useState<PersonCard | null>(null);
  const muted = useShow()?.muted.find((m) => m.id === person.id);
  const load = useCallback(async () => {
    const said = await call<PersonCard>("GET", `/people/card?id=${encodeURIComponent(person.id)}`);
    if (said.ok) setCard(said.value);
    else tellTrouble(said.words);
  }, [person.id]);
  useEffect(() => void load(), [load]);
  const changed = async (): Promise<void> => {
    await load();
    onChanged();
  };
  const adjust = async (by: number, why: string): Promise<boolean> => {
    const done = await commandAndTell(thePoints, { do: "adjust", viewer: person.id, name: person.name, by, why });
    if (done) {
      tell(
        `${person.name}: ${by > 0 ? "+" : "−"}${count(Math.abs(by))} ${name}.`,
        () =>
          void commandAndTell(thePoints, {
            do: "adjust",
            viewer: person.id,
            name: person.name,
            by: -by,
            why: `taken back: ${why}`.slice(0, 120),
          }).then(changed),
      );
      await changed();
    }
    return done;
  };
  const mute = async (on: boolean): Promise<void> => {
    if ((await sendCommand("show", { do: "mute", id: person.id, name: person.name, on })) !== null)
      tell(on ? `${person.name} is muted in games.` : `${person.name} counts in games again.`);
  };
  return (
    <Stack gap="4">
      <Flex align="baseline" gap="4" wrap="wrap">
        <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="22px">
          {person.name}
        </Text>
        <Text fontFamily="mono" fontSize="22px" fontWeight="700" color="ochreText" data-testid="balance">
          {count(card?.balance ?? person.balance)}
        </Text>
        <Text color="inkSoft">{name}</Text>
      </Flex>
      {card !== null && (
        <Text color="inkSoft" fontSize="15px">
          Earned {count(card.earned)} and spent {count(card.spent)} in all; gifts and corrections are neither.
        </Text>
      )}
      <Adjust name={name} onAdjust={adjust} />
      <Merge person={person} name={name} onMerged={onGone} />
      <OnPerson person={person} />
      <Flex gap="2" wrap="wrap">
        <Button size="sm" variant="outline" onClick={() => void mute(muted === undefined)}>
          {muted === undefined ? "Mute in games" : "Let them count again"}
        </Button>
        <Button size="sm" variant="outline" asChild>
          <a href={`/api/people/export?id=${encodeURIComponent(person.id)}`} download>
            All that is kept of them
          </a>
        </Button>
        {owner && <Forget person={person} onGone={onGone} />}
      </Flex>
      <Box>
        <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="17px" mb="1">
          History
        </Text>
        {card === null ? (
          <Text color="inkSoft">Reading…</Text>
        ) : card.history.length === 0 ? (
          <Text color="inkSoft">Nothing yet.</Text>
        ) : (
          <Box role="list" aria-label={`History of ${person.name}`} maxH="360px" overflowY="auto" tabIndex={0}>
            {card.history.map((h, i) => (
              <Flex key={`${h.atMs}.${i}`} role="listitem" gap="4" py="1" borderBottomWidth="1px" borderColor="line" fontSize="15.5px">
                <Text flex="1" minW="0">
                  {historyInWords(h.reason, h.about)}
                  {h.by === "" ? "" : `, by ${h.by}`}
                </Text>
                <Text color="inkSoft">
                  <When atMs={h.atMs} />
                </Text>
                <Text fontFamily="mono" minW="90px" textAlign="right" color={h.amount < 0 ? "ink" : "mossText"}>
                  {h.amount < 0 ? "−" : "+"}
                  {count(Math.abs(h.amount))}
                </Text>
              </Flex>
            ))}
          </Box>
        )}
      </Box>
    </Stack>
  );
}

function Adjust({ name, onAdjust }: Readonly<{ name: string; onAdjust: (by: number, why: string) => Promise<boolean> }>) {
  const [amount, setAmount] = useState("");
  const [why, setWhy] = useState("");
  const n = Number(amount.replace(/[\s,]/g, ""));
  const good = Number.isSafeInteger(n) && n > 0 && why.trim() !== "";
  const go = async (sign: 1 | -1): Promise<void> => {
    if (await onAdjust(sign * n, why.trim())) {
      setAmount("");
      setWhy("");
    }
  };
  return (
    <Flex gap="2" align="center" wrap="wrap" role="group" aria-label="Set right">
      <chakra.input
        {...inputLook}
        aria-label={`How many ${name}`}
        inputMode="numeric"
        width="110px"
        placeholder="how many"
        value={amount}
        onChange={(e) => setAmount(e.currentTarget.value)}
      />
      <chakra.input
        {...inputLook}
        aria-label="Why"
        width="260px"
        maxLength={120}
        placeholder="why (stands in the history)"
        value={why}
        onChange={(e) => setWhy(e.currentTarget.value)}
      />
      <Button size="sm" variant="outline" color="mossText" disabled={!good} onClick={() => void go(1)}>
        Give
      </Button>
      <Button size="sm" variant="outline" color="brickText" disabled={!good} onClick={() => void go(-1)}>
        Take
      </Button>
    </Flex>
  );
}

/** Somebody goes by a new name: all of the old one's goes there. */
function Merge({ person, name, onMerged }: Readonly<{ person: Person; name: string; onMerged: () => void }>) {
  const [to, setTo] = useState("");
  const go = async (): Promise<void> => {
    const found = await call<readonly Person[]>("GET", `/people?q=${encodeURIComponent(to.trim())}`);
    if (!found.ok) return tellTrouble(found.words);
    const one =
      found.value.find((p) => p.name.toLowerCase() === to.trim().toLowerCase()) ?? (found.value.length === 1 ? found.value[0] : undefined);
    if (one === undefined)
      return tellTrouble(
        found.value.length === 0 ? `Nobody called ${to.trim()} has an account here.` : "Several are called so: write the whole name.",
      );
    const command = { do: "merge", from: person.id, fromName: person.name, to: one.id, toName: one.name } as const;
    if (await commandAndTell(thePoints, command, (words) => tell(words))) onMerged();
  };
  return (
    <Flex gap="2" align="center" wrap="wrap" fontSize="15.5px">
      Goes by a new name? All {name} to
      <chakra.input
        {...inputLook}
        aria-label="New name"
        width="170px"
        placeholder="the new name"
        value={to}
        onChange={(e) => setTo(e.currentTarget.value)}
      />
      <Button size="sm" variant="outline" disabled={to.trim() === ""} onClick={() => void go()}>
        Merge
      </Button>
    </Flex>
  );
}

/** What can't be undone asks once more. */
function Forget({ person, onGone }: Readonly<{ person: Person; onGone: () => void }>) {
  const [sure, setSure] = useState(false);
  const go = async (): Promise<void> => {
    const done = await call("DELETE", "/people/card", { id: person.id });
    if (!done.ok) return tellTrouble(done.words);
    tell("Deleted: nothing that names them is left.");
    onGone();
  };
  return sure ? (
    <Flex gap="2" align="center" bg="blank" borderRadius="8px" px="3">
      This can’t be undone.
      <Button size="sm" colorPalette="brick" onClick={() => void go()}>
        Delete {person.name}
      </Button>
      <Button size="sm" variant="ghost" onClick={() => setSure(false)}>
        Keep
      </Button>
    </Flex>
  ) : (
    <Button size="sm" variant="ghost" color="brickText" onClick={() => setSure(true)}>
      Delete on request
    </Button>
  );
}
