"use client";
import { Box, Button, chakra, Flex, Input, Menu, Portal, Stack, Text } from "@chakra-ui/react";
import { ChevronDown, Plus, Trash2 } from "lucide-react";
import { useMemo, useState } from "react";
import { type Cue, type CueBook, cueBookSchema, newCue } from "../../../../core/cues/settings";
import { variablesOf } from "../../../../core/rules/deeds";
import { cueHints, deedInWords } from "../../../../core/rules/words";
import type { GameDraft } from "../../../../server/ports/operator-store";
import { Blank } from "../../../../ui/blank";
import { KeyCap } from "../../../../ui/key-cap";
import { type Act, useOffer } from "../../../../ui/keys";
import { NumberField } from "../../../../ui/number-field";
import { Pick } from "../../../../ui/pick";
import { Stub } from "../../../../ui/stub";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";
import { useLive } from "../../../_frame/live";
import { CopyField } from "../../../_frame/copy-field";
import { DraftBar } from "../_draft/draft-bar";
import { useDraft } from "../_draft/use-draft";
import { DeedList } from "../_deeds/deed-list";
import { bookFacts, namesOf, type Parts } from "../_deeds/parts";
import { inputLook } from "../../../../ui/input-look";

const freshId = (): string => crypto.getRandomValues(new Uint32Array(3)).join("-");

/** Cues: named sets of effects, fired by key, click, trigger address or chat word. */
export function CuesEditor({
  draft: first,
  parts,
  linked: firstLinked,
  owner,
}: Readonly<{ draft: GameDraft; parts: Parts; linked: readonly string[]; owner: boolean }>) {
  const draft = useDraft(first.id, first);
  // The server's schema has accepted what it handed over, and every change here keeps to its shape.
  const book = draft.settings as CueBook;
  const published = draft.published.settings as CueBook | null;
  const [open, setOpen] = useState<string | null>(null);
  const [linked, setLinked] = useState(firstLinked);
  const onNow = useLive((s) => s.standing?.games.find((g) => g.kind === "cues")?.view["on"]) as readonly string[] | undefined;
  const put = (cues: Cue[]): void => draft.change({ ...book, cues });
  const hints = cueHints(book.cues, bookFacts(parts));
  const problem = cueBookSchema.safeParse(book);
  const live = useMemo(() => published?.cues ?? [], [published]);

  const fire = async (cue: Cue, via: "key" | "click"): Promise<void> => {
    const done = await call("POST", `/cues/${cue.id}/fire`, { id: freshId(), via });
    if (done.ok) tell(`${cue.name}: fired.`);
    else tellTrouble(done.words);
  };
  const acts = useMemo(
    (): Act[] =>
      live.map((cue) => ({
        id: `cue.${cue.id}`,
        label: `Fire the cue ${cue.name}`,
        group: "Cues",
        ...(cue.key === "" ? {} : { key: cue.key }),
        run: () => void fire(cue, "key"),
      })),
    [live],
  );
  useOffer("cues", acts);

  return (
    <Box>
      <DraftBar
        id={first.id}
        draft={draft}
        thing="list of cues"
        where=""
        lead={
          <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="19px">
            Cues
          </Text>
        }
      />
      <Box px="5" py="4" maxW="1100px" mx="auto">
        <Text color="inkSoft" mb="3">
          Effects you fire yourself: by a key on this page and in the booth, by a click, by a button device that calls an address, or by a
          word in chat. What is published can be fired.
        </Text>
        {!problem.success && (
          <Box bg="blank" borderRadius="8px" px="4" py="2.5" mb="3" role="alert" fontSize="15.5px">
            <b>Not saved yet.</b> {problem.error.issues[0]?.message}
          </Box>
        )}
        <Stack gap="3" role="list" aria-label="Cues">
          {book.cues.map((cue) => {
            const isLive = live.some((c) => c.id === cue.id);
            const isOn = onNow?.includes(cue.id) === true;
            return (
              <CueCard
                key={cue.id}
                cue={cue}
                parts={parts}
                open={open === cue.id}
                isLive={isLive}
                isOn={isOn}
                owner={owner}
                linked={linked.includes(cue.id)}
                hints={hints.filter((h) => h.ruleId === cue.id).map((h) => h.text)}
                onOpen={() => setOpen(open === cue.id ? null : cue.id)}
                onFire={() => void fire(cue, "click")}
                onLinked={(on) => setLinked((all) => (on ? [...all, cue.id] : all.filter((id) => id !== cue.id)))}
                onSet={(part) => put(book.cues.map((c) => (c.id === cue.id ? { ...c, ...part } : c)))}
                onRemove={() => put(book.cues.filter((c) => c.id !== cue.id))}
              />
            );
          })}
        </Stack>
        {book.cues.length === 0 && (
          <Text bg="raised" borderRadius="10px" p="4">
            There is no cue yet. Add one, choose what it does, give it a key, and publish.
          </Text>
        )}
        <Button
          mt="4"
          variant="outline"
          disabled={book.cues.length >= 60}
          onClick={() => {
            const id = `c${Date.now().toString(36)}`;
            put([...book.cues, newCue(id, `Cue ${book.cues.length + 1}`)]);
            setOpen(id);
          }}
        >
          <Plus size={16} aria-hidden="true" /> Add a cue
        </Button>
      </Box>
    </Box>
  );
}

type CardProps = Readonly<{
  cue: Cue;
  parts: Parts;
  open: boolean;
  isLive: boolean;
  isOn: boolean;
  owner: boolean;
  linked: boolean;
  hints: readonly string[];
  onOpen: () => void;
  onFire: () => void;
  onLinked: (on: boolean) => void;
  onSet: (part: Partial<Cue>) => void;
  onRemove: () => void;
}>;

function CueCard({ cue, parts, open, isLive, isOn, owner, linked, hints, onOpen, onFire, onLinked, onSet, onRemove }: CardProps) {
  const names = namesOf(parts);
  return (
    <Stub
      role="listitem"
      data-cue={cue.id}
      end={
        <>
          <Button colorPalette="ochre" fontWeight="700" disabled={!isLive} onClick={onFire} title={isLive ? undefined : "Publish it first"}>
            {cue.kind === "on-off" ? (isOn ? "Turn off" : "Turn on") : "Fire"} {cue.key !== "" && <KeyCap>{cue.key}</KeyCap>}
          </Button>
          <Button size="xs" variant="ghost" mb={open ? "auto" : undefined} aria-expanded={open} onClick={onOpen}>
            {open ? "Done" : "Change"}
          </Button>
        </>
      }
    >
      <Flex align="center" gap="3">
        {open ? (
          <Input
            size="sm"
            aria-label="Name of the cue"
            value={cue.name}
            maxLength={40}
            fontWeight="700"
            onChange={(e) => onSet({ name: e.currentTarget.value })}
          />
        ) : (
          <Text fontWeight="700">{cue.name}</Text>
        )}
        {isOn && (
          <Text color="mossText" fontWeight="700" fontSize="15px">
            on
          </Text>
        )}
        {open && (
          <Button size="xs" variant="ghost" px="1" aria-label="Take this cue out" onClick={onRemove}>
            <Trash2 size={15} />
          </Button>
        )}
      </Flex>
      {!open && (
        <Text color="inkSoft" fontSize="15.5px">
          {cue.deeds.map((d) => deedInWords(d, "cue", names)).join(", then ") || "does nothing yet"}
          {cue.word === "" ? "" : ` · in chat: ${cue.word}`}
          {linked ? " · has a trigger address" : ""}
        </Text>
      )}
      {open && (
        <Stack gap="3" mt="2" fontSize="15.5px" lineHeight="2">
          <Box>
            It is{" "}
            <Pick
              label="Once or on and off"
              value={cue.kind}
              options={[
                { value: "once", words: "done once" },
                { value: "on-off", words: "on until it is fired again" },
              ]}
              onSet={(kind) => onSet({ kind: kind === "on-off" ? "on-off" : "once" })}
            />
            , fired by the key{" "}
            <chakra.input
              {...inputLook}
              aria-label="Key"
              width="52px"
              textAlign="center"
              value={cue.key}
              maxLength={1}
              placeholder="none"
              onChange={(e) => onSet({ key: e.currentTarget.value.toLowerCase().replace(/[.?\s]/g, "") })}
            />
            , in chat by{" "}
            <chakra.input
              {...inputLook}
              aria-label="Chat word"
              width="110px"
              value={cue.word}
              maxLength={40}
              placeholder="no word"
              onChange={(e) => onSet({ word: e.currentTarget.value.replace(/\s/g, "") })}
            />{" "}
            from{" "}
            <Blank
              blank={{
                path: "roles",
                label: "Who may fire it in chat",
                text: cue.roles.includes("viewer") ? "everyone" : cue.roles.length === 1 ? "one role" : `${cue.roles.length} roles`,
                field: { kind: "roles" },
              }}
              value={cue.roles}
              onChange={(roles) => onSet({ roles: roles as Cue["roles"] })}
            />
            . Then it rests for{" "}
            <NumberField
              label="Rests for"
              value={cue.cooldownMs}
              min={0}
              max={3_600_000}
              scale={1000}
              unit="s"
              onSet={(cooldownMs) => onSet({ cooldownMs })}
            />
            .
          </Box>
          <DeedList
            label="What it does"
            deeds={cue.deeds}
            when="cue"
            variables={variablesOf["cue"] ?? []}
            parts={parts}
            onSet={(deeds) => onSet({ deeds })}
          />
          {cue.kind === "on-off" && (
            <Box>
              <Text fontWeight="700">When it is fired again</Text>
              <Text color="inkSoft" lineHeight="1.4" mb="1">
                What it shows goes away by itself.
              </Text>
              <DeedList
                label="What it does when it goes off"
                deeds={cue.offDeeds}
                when="cue"
                variables={variablesOf["cue"] ?? []}
                parts={parts}
                onSet={(offDeeds) => onSet({ offDeeds })}
              />
            </Box>
          )}
          <TriggerAddress cue={cue} owner={owner} linked={linked} onLinked={onLinked} />
        </Stack>
      )}
      {hints.map((hint) => (
        <Box key={hint} mt="2" bg="note" borderRadius="6px" px="3" py="1.5" fontSize="15px">
          {hint}
        </Box>
      ))}
    </Stub>
  );
}

/** The address any button device can call. Its token is the whole secret, so it is copied without being shown. */
function TriggerAddress({
  cue,
  owner,
  linked,
  onLinked,
}: Readonly<{ cue: Cue; owner: boolean; linked: boolean; onLinked: (on: boolean) => void }>) {
  const [byHand, setByHand] = useState("");
  if (!owner) return <Text color="inkSoft">Only the owner may make or copy a trigger address.</Text>;
  const act = async (what: "copy" | "replace" | "revoke"): Promise<void> => {
    const done = await call<{ token: string } | null>("POST", `/cues/${cue.id}/link`, { do: what });
    if (!done.ok) return tellTrouble(done.words);
    onLinked(what !== "revoke");
    if (what === "revoke") return tell("The trigger address is off. Whoever calls it now fires nothing.");
    const url = `${location.origin}/trigger/${done.value?.token ?? ""}`;
    try {
      await navigator.clipboard.writeText(url);
      setByHand("");
      tell("Trigger address copied, without being shown.");
    } catch {
      setByHand(url);
    }
  };
  return (
    <Box>
      <Flex gap="2" align="center" wrap="wrap">
        <Text>
          <b>Trigger address</b>{" "}
          <Text as="span" fontFamily="mono" color="inkSoft" fontSize="14.5px">
            {linked ? "…/trigger/••••••••••••" : "none yet"}
          </Text>
        </Text>
        <Button size="xs" variant="outline" onClick={() => void act(linked ? "copy" : "replace")}>
          {linked ? "Copy" : "Make one"}
        </Button>
        {linked && (
          <Menu.Root positioning={{ placement: "bottom-start" }}>
            <Menu.Trigger asChild>
              <Button size="xs" variant="ghost">
                Leaked? <ChevronDown size={14} aria-hidden="true" />
              </Button>
            </Menu.Trigger>
            <Portal>
              <Menu.Positioner>
                <Menu.Content>
                  <Menu.Item value="replace" onClick={() => void act("replace")}>
                    Replace it: the old one fires nothing
                  </Menu.Item>
                  <Menu.Item value="revoke" color="brickText" onClick={() => void act("revoke")}>
                    Turn it off
                  </Menu.Item>
                </Menu.Content>
              </Menu.Positioner>
            </Portal>
          </Menu.Root>
        )}
        <Text color="inkSoft" fontSize="15px" lineHeight="1.4">
          Any device that can call an address fires the cue by it, with GET or POST.
        </Text>
      </Flex>
      {byHand !== "" && <CopyField label="The trigger address, hidden" value={byHand} onDone={() => setByHand("")} />}
    </Box>
  );
}
