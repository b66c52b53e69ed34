"use client";
import { Field, Input, Text } from "@chakra-ui/react";
import { Doorway, NewAccount } from "../_frame/new-account";

/** The first start: who owns this installation, and which channel it is for. */
export function SetUp() {
  return (
    <Doorway title="Your channel, your games">
      <Text mt="2" mb="6" color="inkSoft">
        This happens once. You become the owner; moderators can join later.
      </Text>
      <NewAccount path="/set-up" button="Create the channel">
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
      </NewAccount>
    </Doorway>
  );
}
