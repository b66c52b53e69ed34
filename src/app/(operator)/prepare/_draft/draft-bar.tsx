"use client";
import { counted } from "../../../../core/words/sentence";
import { Box, Button, Flex, Text } from "@chakra-ui/react";
import { Redo2, Undo2 } from "lucide-react";
import { type ReactNode, useMemo, useState } from "react";
import { type Act, useOffer } from "../../../../ui/keys";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";
import type { Draft } from "./use-draft";
import { Versions } from "./versions";

/** How many settings differ, counted by their leaves. */
export function differences(a: unknown, b: unknown): number {
  if (JSON.stringify(a) === JSON.stringify(b)) return 0;
  if (typeof a !== "object" || typeof b !== "object" || a === null || b === null || Array.isArray(a) || Array.isArray(b)) return 1;
  const [x, y] = [a as Record<string, unknown>, b as Record<string, unknown>];
  return [...new Set([...Object.keys(x), ...Object.keys(y)])].reduce((sum, key) => sum + differences(x[key], y[key]), 0);
}

/**
 * The line over everything that is kept as a draft: whether it is saved, what is not published, undo,
 * versions, publish; and below it what another tab did meanwhile. `where` says where it will be seen.
 */
export function DraftBar({
  id,
  draft,
  thing,
  where,
  lead,
  publishedBut = "",
}: Readonly<{
  id: string;
  draft: Draft;
  thing: string;
  where: string;
  lead: ReactNode;
  /** What of it does not work although it is published, told with that it was. */
  publishedBut?: string;
}>) {
  const { settings, undo, redo, save } = draft;
  const [publishing, setPublishing] = useState(false);
  const changes = draft.published.settings === null ? 1 : differences(draft.published.settings, settings);

  const publish = useMemo(
    () => async (): Promise<void> => {
      setPublishing(true);
      if (await save()) {
        const done = await call<{ version: number }>("POST", `/games/${id}/publish`, { revision: draft.revision() });
        if (done.ok) {
          draft.setPublished({ version: done.value.version, settings });
          tell(`Published as version ${done.value.version}${where === "" ? "" : `, seen on ${where}`}. ${publishedBut}`.trim());
        } else tellTrouble(done.words);
      }
      setPublishing(false);
    },
    [draft, id, save, settings, where, publishedBut],
  );
  const acts = useMemo(
    (): Act[] => [
      { id: "editor.undo", label: "Undo the last change", group: `This ${thing}`, key: "$mod+z", run: undo },
      { id: "editor.redo", label: "Do it again", group: `This ${thing}`, key: "$mod+Shift+z", run: redo },
      { id: "editor.publish", label: `Publish this ${thing}`, group: `This ${thing}`, key: "p", run: () => void publish() },
    ],
    [undo, redo, publish, thing],
  );
  useOffer("draft", acts);

  const saved =
    draft.state === "saved"
      ? "Saved"
      : draft.state === "saving"
        ? "Saving…"
        : draft.state === "conflict"
          ? "Not saved: changed elsewhere"
          : "Not saved yet";
  const { theirs } = draft;
  return (
    <>
      <Flex px="5" minH="52px" py="1.5" align="center" gap="3" borderBottomWidth="1px" borderColor="line" wrap="wrap">
        {lead}
        <Box flex="1" />
        <Text
          fontSize="15px"
          color={draft.state === "saved" || draft.state === "saving" ? "inkSoft" : "brickText"}
          role="status"
          data-testid="save-state"
        >
          {saved} ·{" "}
          {changes === 0
            ? "all published"
            : draft.published.settings === null
              ? "never published"
              : `${counted(changes, "change")} not published`}
        </Text>
        <Flex gap="1">
          <Button size="sm" variant="ghost" px="2" aria-label="Undo" disabled={draft.undoable.undo === 0} onClick={undo}>
            <Undo2 size={18} />
          </Button>
          <Button size="sm" variant="ghost" px="2" aria-label="Redo" disabled={draft.undoable.redo === 0} onClick={redo}>
            <Redo2 size={18} />
          </Button>
        </Flex>
        <Versions
          id={id}
          version={draft.published.version}
          onBring={(old, n) => {
            draft.change(old);
            tell(`The draft is version ${n} again. Publish to put it on air.`, undo);
          }}
        />
        <Button
          size="sm"
          colorPalette="ochre"
          fontWeight="700"
          loading={publishing}
          disabled={changes === 0 || draft.state === "conflict" || draft.problem !== ""}
          onClick={() => void publish()}
        >
          {where === "" ? "Publish" : `Publish to ${where}`}
        </Button>
      </Flex>
      {draft.state === "conflict" && theirs !== null && (
        <Flex bg="blank" px="5" py="3" gap="4" align="center" role="alert" wrap="wrap">
          <Text flex="1" minW="280px">
            <b>
              {theirs.by || "Somebody"} changed the same in this {thing}
            </b>{" "}
            as you did just now ({differences(theirs.settings, settings)} differ). Nothing is lost: the other one stays an undo, or a click,
            away.
          </Text>
          <Button size="sm" variant="outline" onClick={() => draft.keepTheirs(theirs)}>
            Take theirs
          </Button>
          <Button size="sm" colorPalette="ochre" fontWeight="700" onClick={() => draft.keepMine(theirs)}>
            Keep mine
          </Button>
        </Flex>
      )}
      {draft.problem !== "" && (
        <Box bg="blank" px="5" py="2.5" role="alert">
          <b>Not saved yet.</b> {draft.problem}
        </Box>
      )}
      {draft.state === "waiting" && draft.problem === "" && draft.trouble !== "" && (
        <Box bg="blank" px="5" py="2.5" role="alert">
          {draft.trouble} What you changed stays here.
        </Box>
      )}
      {draft.joined !== "" && (
        <Box bg="note" px="5" py="2.5" role="status">
          {draft.joined} changed something else in this {thing} meanwhile; what both of you changed is kept.
        </Box>
      )}
      {draft.took !== "" && (
        <Box bg="note" px="5" py="2.5" role="status">
          {draft.took} changed this {thing} in another tab; you see it as it is now. Undo brings back what you had.
        </Box>
      )}
    </>
  );
}
