"use client";
import { Box, Button, Field, Flex, Input, Stack, Text } from "@chakra-ui/react";
import { type FormEvent, type ReactNode, useState } from "react";
import { call } from "./call";
import { Wordmark } from "./top-bar";
import { Trouble } from "./trouble";

/** A page for who has no account yet. */
export const Doorway = ({ title, children }: Readonly<{ title: string; children: ReactNode }>) => (
  <Flex minH="100vh" align="center" justify="center" p="6">
    <Box as="main" width="100%" maxW="520px">
      <Wordmark />
      <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="24px" mt="4">
        {title}
      </Text>
      {children}
    </Box>
  </Flex>
);

/** A name and a password of one's own, and what else `path` asks for; then one is signed in. */
export function NewAccount({
  path,
  also = {},
  button,
  focus = false,
  children,
}: Readonly<{ path: string; also?: Readonly<Record<string, unknown>>; button: string; focus?: boolean; children?: ReactNode }>) {
  const [trouble, setTrouble] = useState("");
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    const given = Object.fromEntries(new FormData(event.currentTarget));
    setBusy(true);
    setTrouble("");
    const done = await call("POST", path, { ...given, ...also });
    if (done.ok) return location.assign("/prepare");
    setBusy(false);
    setTrouble(done.words);
  };
  return (
    <form onSubmit={(e) => void submit(e)}>
      <Stack gap="4">
        {children}
        <Field.Root required>
          <Field.Label>Your name</Field.Label>
          <Input name="login" autoComplete="username" maxLength={40} autoFocus={focus} />
        </Field.Root>
        <Field.Root required>
          <Field.Label>Password</Field.Label>
          <Input name="password" type="password" autoComplete="new-password" minLength={10} />
          <Field.HelperText fontSize="14px">At least 10 characters.</Field.HelperText>
        </Field.Root>
        <Trouble words={trouble} />
        <Box>
          <Button type="submit" colorPalette="ochre" fontWeight="700" loading={busy}>
            {button}
          </Button>
        </Box>
      </Stack>
    </form>
  );
}
