"use client";
import { Box, Button, Flex, Text } from "@chakra-ui/react";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";

/** Chat and events from the practice rig in one click: made-up viewers, on this computer alone. */
export function PracticeOffer({ instead }: Readonly<{ instead: boolean }>) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const use = async (): Promise<void> => {
    setBusy(true);
    const done = await call("POST", "/practice");
    setBusy(false);
    if (!done.ok) return tellTrouble(done.words);
    tell("Connected to the practice rig. “Chat as a viewer” opens it.");
    router.refresh();
  };
  return (
    <Flex bg="blank" borderRadius="10px" px="4" py="3" mb="4" gap="4" align="center" wrap="wrap">
      <Box flex="1" minW="280px">
        <Text fontWeight="700">Try it without a platform</Text>
        <Text>
          The practice rig plays chat and events with made-up viewers, on this computer.{" "}
          {instead ? "It takes the place of the connection below." : "Nothing needs to be filled in."}
        </Text>
      </Box>
      <Button colorPalette="ochre" fontWeight="700" loading={busy} onClick={() => void use()}>
        Connect to the practice rig
      </Button>
    </Flex>
  );
}
