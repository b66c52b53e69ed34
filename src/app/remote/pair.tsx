"use client";
import { Box, Button, Field, Input, Text } from "@chakra-ui/react";
import { type FormEvent, useEffect, useState } from "react";
import { Wordmark } from "../_frame/top-bar";
import { call } from "../_frame/call";

/** The one-time code that the booth shows, typed or brought by the scanned address. */
export function Pair() {
  const [code, setCode] = useState("");
  const [label, setLabel] = useState("Phone");
  const [trouble, setTrouble] = useState("");
  const [busy, setBusy] = useState(false);
  useEffect(() => {
    // The code stands behind the #, so it is in no request and no log; it is taken out of sight at once.
    const given = location.hash.slice(1);
    if (/^[A-Z0-9]{6,12}$/.test(given)) setCode(given);
    if (location.hash !== "") history.replaceState(null, "", location.pathname);
  }, []);
  const pair = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setBusy(true);
    const done = await call("POST", "/remote/pair", { code, label: label.trim() === "" ? "Phone" : label });
    setBusy(false);
    if (done.ok) location.reload();
    else setTrouble(done.words);
  };
  return (
    <Box as="main" maxW="420px" mx="auto" px="5" pt="8">
      <Wordmark />
      <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="24px" mt="6" mb="2">
        Pair this phone
      </Text>
      <Text color="inkSoft" mb="5">
        In the booth, press the phone sign beside “Waiting for you”. It shows a code that works once, for ten minutes.
      </Text>
      <form onSubmit={(e) => void pair(e)}>
        <Field.Root mb="4" invalid={trouble !== ""}>
          <Field.Label>Code</Field.Label>
          <Input
            size="xl"
            fontFamily="mono"
            fontSize="24px"
            letterSpacing="0.08em"
            autoComplete="off"
            autoCapitalize="characters"
            spellCheck={false}
            maxLength={12}
            value={code}
            onChange={(e) => setCode(e.currentTarget.value.toUpperCase())}
          />
          {trouble !== "" && <Field.ErrorText fontSize="15px">{trouble}</Field.ErrorText>}
        </Field.Root>
        <Field.Root mb="5">
          <Field.Label>What this phone is called in the booth</Field.Label>
          <Input size="lg" maxLength={30} value={label} onChange={(e) => setLabel(e.currentTarget.value)} />
        </Field.Root>
        <Button type="submit" size="xl" width="100%" colorPalette="ochre" fontWeight="700" loading={busy} disabled={code.trim() === ""}>
          Pair
        </Button>
      </form>
    </Box>
  );
}
