"use client";
import { IconButton } from "../../../../ui/icon-button";
import { Button, Flex, Input, Text } from "@chakra-ui/react";
import { Pencil, Trash2 } from "lucide-react";
import { useRouter } from "next/navigation";
import { type FormEvent, useState } from "react";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { When } from "../../../../ui/when";
import { call } from "../../../_frame/call";

/** An overlay's name, with what renames and removes it. */
export function OverlayName({ id, name, owner }: Readonly<{ id: string; name: string; owner: boolean }>) {
  const router = useRouter();
  const [text, setText] = useState<string | null>(null);
  const rename = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (text === null || text.trim() === "" || text.trim() === name) return setText(null);
    const done = await call("PATCH", `/overlays/${id}`, { name: text.trim() });
    if (!done.ok) return tellTrouble(done.words);
    setText(null);
    router.refresh();
  };
  const back = async (): Promise<void> => {
    const done = await call("POST", `/overlays/${id}/restore`);
    if (!done.ok) return tellTrouble(done.words);
    router.refresh();
  };
  const remove = async (): Promise<void> => {
    const done = await call("DELETE", `/overlays/${id}`);
    if (!done.ok) return tellTrouble(done.words);
    tell(`${name} was removed. Pages that had it open are empty now.`, () => void back());
    router.refresh();
  };
  if (text !== null)
    return (
      <form onSubmit={(e) => void rename(e)}>
        <Flex gap="2">
          <Input
            size="sm"
            aria-label="Name of the overlay"
            value={text}
            maxLength={80}
            autoFocus
            onFocus={(e) => e.currentTarget.select()}
            onChange={(e) => setText(e.currentTarget.value)}
            onKeyDown={(e) => e.key === "Escape" && setText(null)}
          />
          <Button size="sm" type="submit">
            Rename
          </Button>
        </Flex>
      </form>
    );
  return (
    <Flex align="center" gap="1">
      <Text fontWeight="700" fontSize="17px">
        {name}
      </Text>
      {owner && (
        <>
          <IconButton label={`Rename ${name}`} onClick={() => setText(name)}>
            <Pencil size={15} />
          </IconButton>
          <IconButton label={`Remove ${name}`} onClick={() => void remove()}>
            <Trash2 size={15} />
          </IconButton>
        </>
      )}
    </Flex>
  );
}

/** Overlays that were removed, each to be brought back with its link. */
export function RemovedOverlays({ removed }: Readonly<{ removed: readonly Readonly<{ id: string; name: string; removedMs: number }>[] }>) {
  const router = useRouter();
  const back = async (id: string): Promise<void> => {
    const done = await call("POST", `/overlays/${id}/restore`);
    if (!done.ok) return tellTrouble(done.words);
    router.refresh();
  };
  if (removed.length === 0) return null;
  return (
    <section aria-label="Removed overlays">
      <Text as="h2" fontFamily="heading" fontWeight="700" fontSize="17px" mt="5" mb="1">
        Removed
      </Text>
      {removed.map((r) => (
        <Flex key={r.id} align="center" gap="3" py="1" fontSize="15.5px" data-removed={r.id}>
          <Text fontWeight="600">{r.name}</Text>
          <Text color="inkSoft" flex="1">
            removed <When atMs={r.removedMs} />
          </Text>
          <Button size="xs" variant="outline" onClick={() => void back(r.id)}>
            Bring back
          </Button>
        </Flex>
      ))}
    </section>
  );
}
