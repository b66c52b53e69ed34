"use client";
import { chakra } from "@chakra-ui/react";
import { useState } from "react";
import { tell, tellTrouble } from "../../../../../ui/toaster";
import { call } from "../../../../_frame/call";

/** The game's name, edited where it stands. */
export function GameName({
  id,
  name,
  fresh,
}: Readonly<{ id: string; name: string; /** It was just added: the cursor is in its name. */ fresh: boolean }>) {
  const [kept, setKept] = useState(name);
  const [text, setText] = useState(name);
  const save = async (next: string): Promise<void> => {
    if (next.trim() === "" || next.trim() === kept) return setText(kept);
    const before = kept;
    const done = await call("PATCH", `/games/${id}`, { name: next.trim() });
    if (!done.ok) {
      setText(kept);
      return tellTrouble(done.words);
    }
    setKept(next.trim());
    setText(next.trim());
    tell(
      `Renamed to ${next.trim()}.`,
      () => void call("PATCH", `/games/${id}`, { name: before }).then((r) => r.ok && (setKept(before), setText(before))),
    );
  };
  return (
    <chakra.h1 fontSize="20px" minW="0">
      <chakra.input
        aria-label="Name of the game"
        autoFocus={fresh}
        onFocus={(e) => fresh && e.currentTarget.select()}
        value={text}
        maxLength={80}
        fontFamily="heading"
        fontWeight="700"
        bg="transparent"
        borderBottomWidth="2px"
        borderColor="transparent"
        _hover={{ borderColor: "line" }}
        _focus={{ borderColor: "ochreText" }}
        maxW="340px"
        minW="80px"
        css={{ fieldSizing: "content" }}
        onChange={(e) => setText(e.currentTarget.value)}
        onBlur={(e) => void save(e.currentTarget.value)}
        onKeyDown={(e) => {
          if (e.key === "Enter") e.currentTarget.blur();
          if (e.key === "Escape") setText(kept);
        }}
      />
    </chakra.h1>
  );
}
