"use client";
import { Modal } from "../../ui/modal";
import { Dialog, Portal } from "@chakra-ui/react";
import dynamic from "next/dynamic";
import { useEffect, useMemo, useState } from "react";
import { tinykeys } from "tinykeys";
import { isTyping, keyOf, useActs, useChosenKeys } from "../../ui/keys";
import { Find } from "./find";
import { useRegions } from "./regions";

// Loaded when somebody first opens it. The search is not: who opens it types on at once.
const KeySheet = dynamic(() => import("./key-sheet").then((m) => m.KeySheet), { ssr: false });

/** `kinds`: what kinds of games are called, for the search. Key presses, the keys sheet and the search over every action: all from the one list. */
export function Hands({ kinds }: Readonly<{ kinds: string }>) {
  const lists = useActs((s) => s.lists);
  const chosen = useChosenKeys((s) => s.keys);
  const acts = useMemo(() => Object.values(lists).flat(), [lists]);
  useRegions();
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
    const keys = (): void => setOpen("keys");
    const find = (): void => setOpen("search");
    document.addEventListener("izzam:keys", keys);
    document.addEventListener("izzam:find", find);
    return () => {
      document.removeEventListener("izzam:keys", keys);
      document.removeEventListener("izzam:find", find);
    };
  }, []);

  const close = (): void => setOpen("none");
  return (
    <>
      <Modal title="Keys on this screen" open={open === "keys"} onClose={close}>
        <KeySheet acts={acts} />
      </Modal>
      <Dialog.Root open={open === "search"} onOpenChange={(e) => !e.open && close()} size="md" placement="top" lazyMount unmountOnExit>
        <Portal>
          <Dialog.Backdrop />
          <Dialog.Positioner>
            <Dialog.Content overflow="hidden" aria-label="Find anything">
              <Find acts={acts} kinds={kinds} onDone={close} />
            </Dialog.Content>
          </Dialog.Positioner>
        </Portal>
      </Dialog.Root>
    </>
  );
}
