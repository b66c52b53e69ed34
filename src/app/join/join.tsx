"use client";
import { Box, Button, Field, Flex, Input, Stack, Text } from "@chakra-ui/react";
import { type FormEvent, useEffect, useState } from "react";
import { call } from "../_frame/call";
import { Wordmark } from "../_frame/top-bar";

/** Somebody was invited: a name and a password of their own, and they are a moderator. */
export function Join() {
  // Behind the #, so that the token is in no request for a page and in no log.
  const [token, setToken] = useState<string | null>(null);
  const [trouble, setTrouble] = useState("");
  const [busy, setBusy] = useState(false);
  useEffect(() => setToken(location.hash.slice(1)), []);
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    setBusy(true);
    setTrouble("");
    const done = await call("POST", "/join", { token, login: form.get("login"), password: form.get("password") });
    if (done.ok) return location.assign("/prepare");
    setBusy(false);
    setTrouble(done.words);
  };
  const good = token !== null && /^[A-Za-z0-9_-]{20,64}$/.test(token);
  return (
    <Flex minH="100vh" align="center" justify="center" p="6">
      <Box as="main" width="100%" maxW="520px">
        <Wordmark />
        <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="24px" mt="4">
          You are invited to help run a channel
        </Text>
        {token !== null && !good ? (
          <Text mt="3" role="alert">
            This address holds no invitation. Open the whole link that you were sent, to its last letter.
          </Text>
        ) : (
          <>
            <Text mt="2" mb="6" color="inkSoft">
              As a moderator you set up games and run them during the show. Links and connections stay with the owner. The invitation works
              once.
            </Text>
            <form onSubmit={(e) => void submit(e)}>
              <Stack gap="4">
                <Field.Root required>
                  <Field.Label>Your name</Field.Label>
                  <Input name="login" autoComplete="username" maxLength={40} autoFocus />
                </Field.Root>
                <Field.Root required>
                  <Field.Label>Password</Field.Label>
                  <Input name="password" type="password" autoComplete="new-password" minLength={10} />
                  <Field.HelperText fontSize="14px">At least 10 characters.</Field.HelperText>
                </Field.Root>
                {trouble !== "" && (
                  <Text role="alert" color="brickText" fontWeight="600">
                    {trouble}
                  </Text>
                )}
                <Box>
                  <Button type="submit" colorPalette="ochre" fontWeight="700" loading={busy}>
                    Join
                  </Button>
                </Box>
              </Stack>
            </form>
          </>
        )}
      </Box>
    </Flex>
  );
}
