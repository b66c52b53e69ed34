"use client";
import { Box, Button, CloseButton, Dialog, Flex, Portal, Text } from "@chakra-ui/react";
import { Command } from "cmdk";
import { useEffect, useMemo, useState } from "react";
import { tinykeys } from "tinykeys";
import { KeyCap } from "../../ui/key-cap";
import { type Act, isTyping, keyLabel, keyOf, useActs, useChosenKeys } from "../../ui/keys";

/** Key presses, the keys sheet and the search over every action: all from the one list. */
export function Hands() {
  const lists = useActs((s) => s.lists);
  const chosen = useChosenKeys((s) => s.keys);
  const acts = useMemo(() => Object.values(lists).flat(), [lists]);
  const [open, setOpen] = useState<"none" | "keys" | "search">("none");

  useEffect(() => {
    const map: Record<string, (event: KeyboardEvent) => void> = {
      "$mod+k": (event) => {
        event.preventDefault();
        setOpen((now) => (now === "search" ? "none" : "search"));
      },
      "Shift+?": (event) => void (!isTyping(event.target) && setOpen("keys")),
    };
    for (const act of acts) {
      const key = keyOf(act, chosen);
      if (key === null) continue;
      map[key] = (event) => {
        if (!key.includes("$mod") && isTyping(event.target)) return;
        if (document.querySelector("[role=dialog][data-state=open]") !== null) return;
        event.preventDefault();
        act.run();
      };
    }
    return tinykeys(window, map);
  }, [acts, chosen]);
  useEffect(() => {
    const show = (): void => setOpen("keys");
    document.addEventListener("izzam:keys", show);
    return () => document.removeEventListener("izzam:keys", show);
  }, []);

  const close = (): void => setOpen("none");
  return (
    <>
      <Dialog.Root
        open={open === "keys"}
        onOpenChange={(e) => !e.open && close()}
        size="md"
        scrollBehavior="inside"
        lazyMount
        unmountOnExit
      >
        <Portal>
          <Dialog.Backdrop />
          <Dialog.Positioner>
            <Dialog.Content>
              <Dialog.Header>
                <Dialog.Title fontFamily="heading">Keys on this screen</Dialog.Title>
              </Dialog.Header>
              <Dialog.Body pb="6">
                <KeySheet acts={acts} />
              </Dialog.Body>
              <Dialog.CloseTrigger asChild>
                <CloseButton aria-label="Close" />
              </Dialog.CloseTrigger>
            </Dialog.Content>
          </Dialog.Positioner>
        </Portal>
      </Dialog.Root>
      <Dialog.Root open={open === "search"} onOpenChange={(e) => !e.open && close()} size="md" placement="top" lazyMount unmountOnExit>
        <Portal>
          <Dialog.Backdrop />
          <Dialog.Positioner>
            <Dialog.Content overflow="hidden" aria-label="Search every action">
              <Search acts={acts} onDone={close} />
            </Dialog.Content>
          </Dialog.Positioner>
        </Portal>
      </Dialog.Root>
    </>
  );
}

function KeySheet({ acts }: { acts: readonly Act[] }) {
  const { keys, set } = useChosenKeys();
  const [asking, setAsking] = useState<string | null>(null);
  useEffect(() => {
    if (asking === null) return;
    const take = (event: KeyboardEvent): void => {
      if (["Shift", "Control", "Alt", "Meta", "Tab"].includes(event.key)) return;
      event.preventDefault();
      event.stopPropagation();
      if (event.key !== "Escape") set(asking, event.key.length === 1 ? event.key.toLowerCase() : event.key);
      setAsking(null);
    };
    window.addEventListener("keydown", take, true);
    return () => window.removeEventListener("keydown", take, true);
  }, [asking, set]);
  const rows = acts.filter((a) => a.key !== undefined || Object.hasOwn(keys, a.id));
  const used = rows.map((a) => keyOf(a, keys));
  return (
    <Box>
      <Text color="inkSoft" mb="3">
        They work anywhere but in a text field. <KeyCap>?</KeyCap> shows this sheet, <KeyCap>Ctrl/⌘ K</KeyCap> searches every action.
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
                Press a key
              </Text>
            ) : key === null ? (
              <Text color="inkSoft">off</Text>
            ) : (
              <KeyCap>{keyLabel(key)}</KeyCap>
            )}
            <Button size="xs" variant="outline" onClick={() => setAsking(act.id)} aria-label={`Change the key for: ${act.label}`}>
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

function Search({ acts, onDone }: { acts: readonly Act[]; onDone: () => void }) {
  const chosen = useChosenKeys((s) => s.keys);
  const groups = [...new Set(acts.map((a) => a.group))];
  return (
    <Box
      css={{
        "& [cmdk-input]": {
          width: "100%",
          padding: "14px 18px",
          fontSize: "17px",
          background: "transparent",
          borderBottom: "1px solid",
          borderColor: "line",
          outline: "none",
        },
        "& [cmdk-list]": { maxHeight: "420px", overflowY: "auto", padding: "8px" },
        "& [cmdk-group-heading]": { color: "inkSoft", fontSize: "14px", padding: "8px 10px 4px" },
        "& [cmdk-item]": {
          padding: "8px 10px",
          borderRadius: "6px",
          display: "flex",
          alignItems: "center",
          gap: "10px",
          cursor: "pointer",
        },
        "& [cmdk-item][data-selected=true]": { background: "blank" },
        "& [cmdk-empty]": { padding: "20px", color: "inkSoft", textAlign: "center" },
      }}
    >
      <Command label="Search every action" loop>
        <Command.Input placeholder="What do you want to do?" autoFocus />
        <Command.List>
          <Command.Empty>Nothing like that here. Try another word.</Command.Empty>
          {groups.map((group) => (
            <Command.Group key={group} heading={group}>
              {acts
                .filter((a) => a.group === group)
                .map((act) => {
                  const key = keyOf(act, chosen);
                  return (
                    <Command.Item
                      key={act.id}
                      value={`${act.label} ${act.id}`}
                      onSelect={() => {
                        onDone();
                        act.run();
                      }}
                    >
                      <span style={{ flex: 1 }}>{act.label}</span>
                      {key !== null && <KeyCap>{keyLabel(key)}</KeyCap>}
                    </Command.Item>
                  );
                })}
            </Command.Group>
          ))}
        </Command.List>
      </Command>
    </Box>
  );
}
