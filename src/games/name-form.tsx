"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { inputLook } from "../ui/input-look";

/** A name, and what is done with it. It stays while it did not go through. */
export function NameForm({ label, act, onName }: Readonly<{ label: string; act: string; onName: (name: string) => Promise<boolean> }>) {
  const [name, setName] = useState("");
  const go = async (): Promise<void> => {
    if (name.trim() !== "" && (await onName(name.trim()))) setName("");
  };
  return (
    <Flex
      as="form"
      gap="2"
      mt="1"
      onSubmit={(e) => {
        e.preventDefault();
        void go();
      }}
    >
      <chakra.input
        {...inputLook}
        flex="1"
        minW="0"
        aria-label={label}
        placeholder="a name"
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Button type="submit" size="sm" variant="outline" disabled={name.trim() === ""}>
        {act}
      </Button>
    </Flex>
  );
}
