"use client";
import { Box, Button, Flex, Menu, Portal, Text } from "@chakra-ui/react";
import { ChevronDown } from "lucide-react";
import { useState } from "react";
import { type Cue } from "../../../../core/cues/settings";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";
import { CopyField } from "../../../_frame/copy-field";

/** The address any button device can call. Its token is the whole secret, so it is copied without being shown. */
export function TriggerAddress({
  cue,
  owner,
  linked,
  onLinked,
}: Readonly<{ cue: Cue; owner: boolean; linked: boolean; onLinked: (on: boolean) => void }>) {
  const [byHand, setByHand] = useState("");
  if (!owner) return <Text color="inkSoft">Only the owner may make or copy a trigger address.</Text>;
  const act = async (what: "copy" | "replace" | "revoke"): Promise<void> => {
    const done = await call<{ token: string } | null>("POST", `/cues/${cue.id}/link`, { do: what });
    if (!done.ok) return tellTrouble(done.words);
    onLinked(what !== "revoke");
    if (what === "revoke") return tell("The trigger address is off. Whoever calls it now fires nothing.");
    const url = `${location.origin}/trigger/${done.value?.token ?? ""}`;
    try {
      await navigator.clipboard.writeText(url);
      setByHand("");
      tell("Trigger address copied, without being shown.");
    } catch {
      setByHand(url);
    }
  };
  return (
    <Box>
      <Flex gap="2" align="center" wrap="wrap">
        <Text>
          <b>Trigger address</b>{" "}
          <Text as="span" fontFamily="mono" color="inkSoft" fontSize="14.5px">
            {linked ? "…/trigger/••••••••••••" : "none yet"}
          </Text>
        </Text>
        <Button size="xs" variant="outline" onClick={() => void act(linked ? "copy" : "replace")}>
          {linked ? "Copy" : "Make one"}
        </Button>
        {linked && (
          <Menu.Root positioning={{ placement: "bottom-start" }}>
            <Menu.Trigger asChild>
              <Button size="xs" variant="ghost">
                Leaked? <ChevronDown size={14} aria-hidden="true" />
              </Button>
            </Menu.Trigger>
            <Portal>
              <Menu.Positioner>
                <Menu.Content>
                  <Menu.Item value="replace" onClick={() => void act("replace")}>
                    Replace it: the old one fires nothing
                  </Menu.Item>
                  <Menu.Item value="revoke" color="brickText" onClick={() => void act("revoke")}>
                    Turn it off
                  </Menu.Item>
                </Menu.Content>
              </Menu.Positioner>
            </Portal>
          </Menu.Root>
        )}
        <Text color="inkSoft" fontSize="15px" lineHeight="1.4">
          Any device that can call an address fires the cue by it, with GET or POST.
        </Text>
      </Flex>
      {byHand !== "" && <CopyField label="The trigger address, hidden" value={byHand} onDone={() => setByHand("")} />}
    </Box>
  );
}
