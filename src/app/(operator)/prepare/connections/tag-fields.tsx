"use client";
import { Button, Field, Grid, Input, Text } from "@chakra-ui/react";
import { defaultDialect, type Dialect } from "../../../../core/chat/dialect";

const tags = [
  ["name", "Name to show"],
  ["viewerId", "Account"],
  ["messageId", "Message id"],
  ["roles", "Roles"],
  ["emotes", "Places of emotes"],
  ["paid", "Paid reactions"],
] as const;
const badges = [
  ["member", "Members"],
  ["guest", "Guests of honour"],
  ["moderator", "Moderators"],
  ["streamer", "The streamer"],
] as const;

/** Which message tag carries what: servers differ, so it is a setting. */
export function TagFields({ dialect, onChange }: Readonly<{ dialect: Dialect; onChange: (dialect: Dialect) => void }>) {
  return (
    <>
      <Text color="inkSoft" my="3" maxW="76ch">
        Chat servers put a viewer’s name, roles and emotes into message tags, each under a name of its own. Enter the names your server
        uses; leave one empty if it has none. Emote places are read as start+length=id, counted in characters.
      </Text>
      <Grid templateColumns="repeat(3, 1fr)" gap="4">
        {tags.map(([key, label]) => (
          <Field.Root key={key}>
            <Field.Label>{label}</Field.Label>
            <Input size="sm" fontFamily="mono" value={dialect[key]} onChange={(e) => onChange({ ...dialect, [key]: e.target.value })} />
          </Field.Root>
        ))}
      </Grid>
      <Text mt="4" mb="2" fontWeight="600">
        Which badge means which role
      </Text>
      <Grid templateColumns="repeat(4, 1fr)" gap="4">
        {badges.map(([key, label]) => (
          <Field.Root key={key}>
            <Field.Label>{label}</Field.Label>
            <Input
              size="sm"
              fontFamily="mono"
              value={dialect.badges[key]}
              onChange={(e) => onChange({ ...dialect, badges: { ...dialect.badges, [key]: e.target.value } })}
            />
          </Field.Root>
        ))}
      </Grid>
      <Button mt="3" size="xs" variant="ghost" onClick={() => onChange(defaultDialect)}>
        Use the documented names
      </Button>
    </>
  );
}
