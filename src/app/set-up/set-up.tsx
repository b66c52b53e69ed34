"use client";
import { Box, Button, Field, Flex, Input, Stack, Text } from "@chakra-ui/react";
import { type FormEvent, useState } from "react";
import { call } from "../_frame/call";
import { Wordmark } from "../_frame/top-bar";

/** The first start: who owns this installation, and which channel it is for. */
export function SetUp() {
  const [trouble, setTrouble] = useState("");
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    setBusy(true);
    setTrouble("");
    const done = await call("POST", "/set-up", {
      code: form.get("code"),
      login: form.get("login"),
      password: form.get("password"),
      channel: form.get("channel"),
    });
    if (done.ok) return location.assign("/prepare");
    setBusy(false);
    setTrouble(done.words);
  };
  return (
    <Flex minH="100vh" align="center" justify="center" p="6">
      <Box as="main" width="100%" maxW="520px">
        <Wordmark />
        <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="24px" mt="4">
          Your channel, your games
        </Text>
        <Text mt="2" mb="6" color="inkSoft">
          This happens once. You become the owner; moderators can join later.
        </Text>
        <form onSubmit={(e) => void submit(e)}>
          <Stack gap="4">
            <Field.Root required>
              <Field.Label>Set-up code</Field.Label>
              <Input name="code" inputMode="numeric" autoComplete="off" autoFocus maxW="180px" fontFamily="mono" />
              <Field.HelperText fontSize="14px">
                It stands in the window in which Izzam was started, so that nobody else can claim it.
              </Field.HelperText>
            </Field.Root>
            <Field.Root required>
              <Field.Label>Channel name</Field.Label>
              <Input name="channel" autoComplete="off" maxLength={80} />
            </Field.Root>
            <Field.Root required>
              <Field.Label>Your name</Field.Label>
              <Input name="login" autoComplete="username" maxLength={40} />
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
                Create the channel
              </Button>
            </Box>
          </Stack>
        </form>
      </Box>
    </Flex>
  );
}
