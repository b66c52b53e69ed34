"use client";
import { Button, chakra, Flex, Input, Stack, Text } from "@chakra-ui/react";
import { Pencil, Trash2 } from "lucide-react";
import { type ReactNode, useRef, useState } from "react";
import { useDrop } from "../../ui/drop-area";
import { IconButton } from "../../ui/icon-button";
import { tell, tellTrouble } from "../../ui/toaster";
import { type Answer, call } from "./call";
import { sendFile } from "./send-file";

type Item = Readonly<{ id: string; name: string; removedMs: number | null }>;

/** What was brought in from outside: each is named, removed, and brought back for a week. */
export function BroughtIn<T extends Item>({
  items,
  label,
  path,
  fieldLabel,
  name,
  facts,
  more,
  onChanged,
}: Readonly<{
  items: readonly T[];
  /** What the list is called for those who hear it, and the field for a new name. */
  label: string;
  fieldLabel: string;
  /** Where one of them is acted on, before its id. */
  path: string;
  name: (item: T) => ReactNode;
  facts: (item: T) => ReactNode;
  more?: (item: T) => ReactNode;
  onChanged: () => Promise<void>;
}>) {
  const [naming, setNaming] = useState<Readonly<{ id: string; name: string }> | null>(null);
  const act = async (id: string, body: Readonly<{ do: string; name?: string }>, done?: string): Promise<void> => {
    const said = await call("POST", `${path}/${id}`, body);
    if (!said.ok) tellTrouble(said.words);
    else if (done !== undefined) tell(done);
    setNaming(null);
    await onChanged();
  };
  return (
    <>
      <Stack as="ul" gap="0" mt="2" aria-label={label}>
        {items
          .filter((one) => one.removedMs === null)
          .map((one) => (
            <Flex
              as="li"
              key={one.id}
              listStyleType="none"
              align="center"
              gap="2"
              py="1"
              borderBottomWidth="1px"
              borderColor="line"
              // On a phone a name has a line of its own.
              wrap={{ base: "wrap", md: "nowrap" }}
            >
              {naming?.id === one.id ? (
                <chakra.form
                  flex="1"
                  display="flex"
                  gap="2"
                  onSubmit={(e) => {
                    e.preventDefault();
                    void act(one.id, { do: "rename", name: naming.name });
                  }}
                >
                  <Input
                    size="sm"
                    autoFocus
                    aria-label={fieldLabel}
                    value={naming.name}
                    maxLength={120}
                    onChange={(e) => setNaming({ id: one.id, name: e.target.value })}
                    onKeyDown={(e) => {
                      if (e.key === "Escape") setNaming(null);
                    }}
                  />
                  <Button size="sm" type="submit">
                    Keep
                  </Button>
                </chakra.form>
              ) : (
                <Text flex={{ base: "1 0 100%", md: "1" }} minW="0" truncate fontWeight="600">
                  {name(one)}
                </Text>
              )}
              <Text color="inkSoft" fontSize="14.5px" whiteSpace="nowrap">
                {facts(one)}
              </Text>
              <IconButton label={`Call ${one.name} something else`} onClick={() => setNaming({ id: one.id, name: one.name })}>
                <Pencil size={16} />
              </IconButton>
              {more?.(one)}
              <IconButton
                label={`Remove ${one.name}`}
                onClick={() => void act(one.id, { do: "remove" }, "Removed. It can be brought back for a week.")}
              >
                <Trash2 size={16} />
              </IconButton>
            </Flex>
          ))}
      </Stack>
      {items
        .filter((one) => one.removedMs !== null)
        .map((one) => (
          <Flex key={one.id} align="center" gap="3" mt="2" fontSize="15px" color="inkSoft">
            <Text flex="1" minW="0" truncate>
              {one.name} was removed.
            </Text>
            <Button
              size="xs"
              variant="outline"
              aria-label={`Bring back ${one.name}`}
              onClick={() => void act(one.id, { do: "restore" }, "It is back.")}
            >
              Bring back
            </Button>
          </Flex>
        ))}
    </>
  );
}

/** Where a file from outside is dropped, or chosen; one after another is sent. */
export function BringIn<T>({
  label,
  button,
  accept,
  path,
  most,
  onAnswer,
  onDone,
  children,
  ...rest
}: Readonly<{
  label: string;
  button: string;
  accept: string;
  /** Where it is sent, as the field `file` of a form. */
  path: string;
  /** What is larger is not sent. */
  most: number;
  onAnswer: (answer: Answer<T>) => void;
  onDone: () => Promise<void>;
  /** What stands above and below the button. */
  children: (button: ReactNode) => ReactNode;
  "aria-labelledby": string;
  "data-testid": string;
}>) {
  const [sending, setSending] = useState<Readonly<{ name: string; share: number }> | null>(null);
  const calling = useRef<AbortController | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const bring = async (files: readonly File[]): Promise<void> => {
    const now = (calling.current = new AbortController());
    for (const file of files) {
      setSending({ name: file.name, share: 0 });
      const onShare = (share: number): void => setSending({ name: file.name, share });
      const answer = await sendFile<T>(path, file, { most, onShare, signal: now.signal });
      if (answer === null) break;
      onAnswer(answer.ok ? answer : { ...answer, words: `${file.name}: ${answer.words}` });
    }
    await onDone();
    setSending(null);
  };
  const { over, handlers } = useDrop((files) => void bring(files));
  return (
    <chakra.section
      {...rest}
      {...handlers}
      borderRadius="10px"
      outline={over ? "2px dashed" : "none"}
      outlineColor="ochre.solid"
      outlineOffset="6px"
    >
      {children(
        <>
          <chakra.input
            ref={field}
            type="file"
            accept={accept}
            aria-label={label}
            position="absolute"
            width="1px"
            height="1px"
            overflow="hidden"
            opacity="0"
            onChange={(e) => {
              const files = [...(e.currentTarget.files ?? [])];
              e.currentTarget.value = "";
              void bring(files);
            }}
          />
          <Button size="sm" variant="outline" loading={sending !== null} onClick={() => field.current?.click()}>
            {button}
          </Button>
          {sending !== null && (
            <Flex role="status" align="center" gap="2" fontSize="15px" color="inkSoft">
              {sending.share < 1 ? `${sending.name}: ${Math.floor(sending.share * 100)} % sent` : `${sending.name} is looked at`}
              {sending.share < 1 && (
                <Button size="xs" variant="ghost" onClick={() => calling.current?.abort()}>
                  Cancel
                </Button>
              )}
            </Flex>
          )}
        </>,
      )}
    </chakra.section>
  );
}
