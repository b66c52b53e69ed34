"use client";
import { Box, Text } from "@chakra-ui/react";
import { type PresentingSettings, replyVariables } from "../../core/games/presenting/settings";
import { TemplateField } from "../../ui/template-field";
import type { LooksProps } from "../shown";

/** What chat is told when somebody is presented. */
export function PresentingReply({ settings, onChange }: LooksProps) {
  const { reply } = settings as PresentingSettings;
  return (
    <Box mt="5">
      <Text as="h3" fontFamily="heading" fontWeight="700" fontSize="17px">
        What chat is told
      </Text>
      <Text color="inkSoft" fontSize="15px" mb="2">
        When somebody is found. Empty: nothing.
      </Text>
      <TemplateField label="What chat is told" value={reply} variables={replyVariables} onSet={(text) => onChange("reply", text)} />
    </Box>
  );
}
