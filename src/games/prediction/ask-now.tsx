"use client";
import { Button, chakra, Flex, Stack, Text } from "@chakra-ui/react";
import { type FormEvent, useState } from "react";
import { fold } from "../../core/kernel/fold";
import { mostOutcomes, type Template } from "../../core/games/prediction/settings";
import { listFrom } from "../../core/words/list";
import { Modal } from "../../ui/modal";
import { NumberField } from "../../ui/number-field";
import type { BoothProps } from "../shown";

const shape = { apart: "commas", most: mostOutcomes, letters: 40 } as const;
const field = { width: "100%", minH: "38px", px: "2", borderWidth: "1px", borderColor: "line", borderRadius: "6px", bg: "ground" } as const;

/** From a template with a press, or from nothing: a question, its outcomes, and it is open. */
export function AskNow({ view, command, onClose }: Pick<BoothProps, "view" | "command"> & Readonly<{ onClose: () => void }>) {
  const templates = (view["templates"] ?? []) as readonly Template[];
  const { openMs: usual = 120_000 } = (view["set"] ?? {}) as { openMs?: number };
  const [title, setTitle] = useState("");
  const [text, setText] = useState("Yes, No");
  const [openMs, setOpenMs] = useState(usual);
  const outcomes = listFrom(text, shape);
  const distinct = new Set(outcomes.map((o) => fold(o.trim()))).size === outcomes.length;
  const good = title.trim() !== "" && outcomes.length >= 2 && distinct;
  const open = (event: FormEvent): void => {
    event.preventDefault();
    if (!good) return;
    void command({ do: "ask", title: title.trim(), outcomes, openMs }).then((done) => done && onClose());
  };
  return (
    <Modal title="Ask something else" about="It opens at once, on the picture and in chat." onClose={onClose}>
      <form onSubmit={open}>
        <Stack gap="3">
          <chakra.label fontWeight="700">
            The question
            <chakra.input
              {...field}
              fontWeight="400"
              value={title}
              maxLength={80}
              autoFocus
              autoComplete="off"
              placeholder="Will the handle hold?"
              onChange={(e) => setTitle(e.currentTarget.value)}
            />
          </chakra.label>
          <chakra.label fontWeight="700">
            Outcomes, set apart by commas
            <chakra.input
              {...field}
              fontWeight="400"
              value={text}
              maxLength={500}
              autoComplete="off"
              aria-invalid={outcomes.length < 2 || !distinct}
              onChange={(e) => setText(e.currentTarget.value)}
            />
          </chakra.label>
          {(outcomes.length < 2 || !distinct) && (
            <Text color="brickText" fontSize="14.5px" role="alert">
              {distinct ? "There are at least two outcomes." : "Two outcomes read the same."}
            </Text>
          )}
          <Flex align="center" gap="3">
            <Text flex="1">
              Open for{" "}
              <NumberField
                label="How long it is open"
                value={openMs}
                min={10_000}
                max={86_400_000}
                scale={1_000}
                unit="s"
                onSet={setOpenMs}
              />
            </Text>
            <Button type="submit" colorPalette="ochre" fontWeight="700" disabled={!good}>
              Open it
            </Button>
          </Flex>
        </Stack>
      </form>
      {templates.length > 0 && (
        <Text fontWeight="700" mt="5">
          Or one that is kept
        </Text>
      )}
      {templates.length > 0 && (
        <Stack
          gap="1"
          mt="1"
          role="list"
          aria-label="Templates"
          maxH="210px"
          overflowY="auto"
          tabIndex={templates.length > 4 ? 0 : undefined}
        >
          {templates.map((t) => (
            <Flex key={t.id} role="listitem" align="center" gap="3" bg="raised" borderRadius="8px" px="3" py="1">
              <Text flex="1" minW="0">
                <b>{t.title}</b>{" "}
                <Text as="span" color="inkSoft" fontSize="15px">
                  {t.outcomes.join(", ")}
                </Text>
              </Text>
              <Button
                size="xs"
                colorPalette="ochre"
                fontWeight="700"
                aria-label={`Open ${t.title}`}
                onClick={() => void command({ do: "open", template: t.id }).then((done) => done && onClose())}
              >
                Open
              </Button>
            </Flex>
          ))}
        </Stack>
      )}
    </Modal>
  );
}
