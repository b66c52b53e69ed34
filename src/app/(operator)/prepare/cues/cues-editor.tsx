"use client";
import { Box, Button, Stack, Text } from "@chakra-ui/react";
import { Plus } from "lucide-react";
import { useSearchParams } from "next/navigation";
import { useMemo, useState } from "react";
import { type Cue, type CueBook, newCue } from "../../../../core/cues/settings";
import { cueHints } from "../../../../core/rules/hints";
import type { GameDraft } from "../../../../server/ports/operator-store";
import { type Act, useOffer } from "../../../../ui/keys";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";
import { useLive } from "../../../_frame/live";
import { DraftBar } from "../_draft/draft-bar";
import { useDraft } from "../_draft/use-draft";
import { bookFacts, type Available } from "../_effects/available";
import { starterCues } from "../../../../core/cues/starter";
import { BeginWith } from "../begin-with";
import { CueCard } from "./cue-card";

const freshId = (): string => crypto.getRandomValues(new Uint32Array(3)).join("-");

/** Cues: named sets of effects, fired by key, click, trigger address or chat word. */
export function CuesEditor({
  draft: first,
  available,
  linked: firstLinked,
  owner,
}: Readonly<{ draft: GameDraft; available: Available; linked: readonly string[]; owner: boolean }>) {
  const draft = useDraft(first.id, first);
  // The server's schema has accepted what it handed over, and every change here keeps to its shape.
  const book = draft.settings as CueBook;
  const published = draft.published.settings as CueBook | null;
  const [open, setOpen] = useState<string | null>(useSearchParams().get("open"));
  const [linked, setLinked] = useState(firstLinked);
  const onNow = useLive((s) => s.standing?.games.find((g) => g.kind === "cues")?.view["on"]) as readonly string[] | undefined;
  const put = (cues: Cue[]): void => draft.change({ ...book, cues });
  const hints = cueHints(book.cues, bookFacts(available));
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
        <Stack gap="3" role="list" aria-label="Cues">
          {book.cues.map((cue) => {
            const isLive = live.some((c) => c.id === cue.id);
            const isOn = onNow?.includes(cue.id) === true;
            return (
              <CueCard
                key={cue.id}
                cue={cue}
                cues={book.cues}
                available={available}
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
                onTakeKey={(key, from) =>
                  put(book.cues.map((c) => (c.id === cue.id ? { ...c, key } : c.id === from.id ? { ...c, key: "" } : c)))
                }
                onRemove={() => put(book.cues.filter((c) => c.id !== cue.id))}
              />
            );
          })}
        </Stack>
        {book.cues.length === 0 && (
          <BeginWith
            words="There is no cue yet. Add one, choose what it does, give it a key, and publish."
            offer="Begin with three cues"
            onBegin={() => put(starterCues((n) => `c${Date.now().toString(36)}${n}`))}
          />
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
