"use client";
import { Button, chakra, Text } from "@chakra-ui/react";
import { Pencil } from "lucide-react";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { ReviewedShow } from "../../../../../server/ports/review-store";
import { tellTrouble } from "../../../../../ui/toaster";
import { call } from "../../../../_frame/call";

/** What a show is called; without a name it goes by its day. */
export function ShowName({ show }: Readonly<{ show: ReviewedShow }>) {
  const router = useRouter();
  const [name, setName] = useState(show.name);
  const [editing, setEditing] = useState(false);
  const done = async (keep: boolean): Promise<void> => {
    setEditing(false);
    const next = name.trim();
    if (!keep || next === show.name) return setName(show.name);
    const said = await call<null>("POST", `/review/shows/${show.id}`, { do: "name", name: next });
    if (said.ok) router.refresh();
    else tellTrouble(said.words);
  };
  const called = name === "" ? `Show of ${new Date(show.fromMs).toLocaleDateString("en-GB", { day: "numeric", month: "long" })}` : name;
  if (!editing)
    return (
      <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="24px" lineHeight="1.2">
        {called}{" "}
        <Button size="xs" variant="ghost" px="1" aria-label="Name this show" onClick={() => setEditing(true)}>
          <Pencil size={15} aria-hidden="true" />
        </Button>
      </Text>
    );
  return (
    <chakra.input
      autoFocus
      aria-label="Name of this show"
      value={name}
      maxLength={120}
      placeholder={called}
      bg="blank"
      fontFamily="heading"
      fontWeight="700"
      fontSize="22px"
      px="2"
      borderRadius="6px"
      onChange={(e) => setName(e.currentTarget.value)}
      onBlur={() => void done(true)}
      onKeyDown={(e) => {
        if (e.key === "Enter") void done(true);
        if (e.key === "Escape") void done(false);
      }}
    />
  );
}
