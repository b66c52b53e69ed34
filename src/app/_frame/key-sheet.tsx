"use client";
import { Box, Button, Flex, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { KeyCap } from "../../ui/key-cap";
import { type Act, keyLabel, keyOf, useChosenKeys } from "../../ui/keys";

/** The keys of the screen one is on, each to be changed: a key that is taken says by whom before it is given away. */
export function KeySheet({ acts }: { acts: readonly Act[] }) {
  const { keys, set } = useChosenKeys();
  const [asking, setAsking] = useState<string | null>(null);
  const [taken, setTaken] = useState<Readonly<{ key: string; by: string; id: string }> | null>(null);
  useEffect(() => {
    if (asking === null) return;
    const take = (event: KeyboardEvent): void => {
      if (["Shift", "Control", "Alt", "Meta", "Tab"].includes(event.key)) return;
      event.preventDefault();
      event.stopPropagation();
      if (event.key === "Escape") {
        setAsking(null);
        return setTaken(null);
      }
      const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
      const owner = acts.find((a) => a.id !== asking && keyOf(a, keys) === key);
      // Pressed once more it changes hands.
      if (owner !== undefined && taken?.key !== key) return setTaken({ key, by: owner.label, id: owner.id });
      if (owner !== undefined) set(owner.id, null);
      set(asking, key);
      setAsking(null);
      setTaken(null);
    };
    window.addEventListener("keydown", take, true);
    return () => window.removeEventListener("keydown", take, true);
  }, [asking, taken, acts, keys, set]);
  const rows = acts.filter((a) => a.key !== undefined || Object.hasOwn(keys, a.id));
  const used = rows.map((a) => keyOf(a, keys));
  return (
    <Box>
      <Text color="inkSoft" mb="3">
        They work anywhere but in a text field. <KeyCap>?</KeyCap> shows this sheet, <KeyCap>Ctrl/⌘ K</KeyCap> searches every action,{" "}
        <KeyCap>F6</KeyCap> goes to the next part of the screen. In lists of buttons, arrows move.
      </Text>
      {rows.map((act) => {
        const key = keyOf(act, keys);
        const twice = key !== null && used.filter((k) => k === key).length > 1;
        return (
          <Flex key={act.id} align="center" gap="3" py="1.5" borderBottomWidth="1px" borderColor="line">
            <Text flex="1">
              {act.label}
              {twice && (
                <Text as="span" color="brickText">
                  {" "}
                  (this key is used twice)
                </Text>
              )}
            </Text>
            {asking === act.id ? (
              <Text color="ochreText" fontWeight="700" role="status">
                {taken === null ? "Press a key" : `${keyLabel(taken.key)} is “${taken.by}”. Press it again to take it from there`}
              </Text>
            ) : key === null ? (
              <Text color="inkSoft">off</Text>
            ) : (
              <KeyCap>{keyLabel(key)}</KeyCap>
            )}
            <Button
              size="xs"
              variant="outline"
              onClick={() => (setTaken(null), setAsking(act.id))}
              aria-label={`Change the key for: ${act.label}`}
            >
              Change
            </Button>
            {Object.hasOwn(keys, act.id) ? (
              <Button size="xs" variant="ghost" onClick={() => set(act.id, undefined)} aria-label={`Usual key for: ${act.label}`}>
                Usual
              </Button>
            ) : (
              <Button size="xs" variant="ghost" onClick={() => set(act.id, null)} aria-label={`No key for: ${act.label}`}>
                Off
              </Button>
            )}
          </Flex>
        );
      })}
    </Box>
  );
}
