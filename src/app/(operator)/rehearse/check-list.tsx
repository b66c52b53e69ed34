"use client";
import { Box, Flex, Stack, Text } from "@chakra-ui/react";
import { Check as Fine, TriangleAlert, Eye } from "lucide-react";
import Link from "next/link";
import { counted } from "../../../core/words/sentence";
import { useChecks } from "../../_frame/use-checks";

/** Before going live: what will not work, and what may not be what is meant, each with what to do. */
export function CheckList() {
  const checks = useChecks(true);
  const wrong = checks?.filter((c) => c.tone === "wrong").length ?? 0;
  const look = (checks?.length ?? 0) - wrong;
  return (
    <Box as="section" aria-labelledby="before-live" data-testid="check-list">
      <Text as="h2" id="before-live" fontFamily="heading" fontWeight="700" fontSize="19px" mb="1">
        Before going live
      </Text>
      {checks === null ? (
        <Text color="inkSoft">Looking at everything…</Text>
      ) : checks.length === 0 ? (
        <Flex align="center" gap="2" color="mossText" fontWeight="600">
          <Fine size={18} aria-hidden="true" /> All is ready: nothing to set right.
        </Flex>
      ) : (
        <>
          <Text color="inkSoft" fontSize="15px" mb="2">
            {[wrong > 0 ? `${counted(wrong, "thing")} will not work` : "", look > 0 ? `${counted(look, "thing")} worth a look` : ""]
              .filter((t) => t !== "")
              .join(", ")}
            . Seen in the rundown, the settings as published, and how everything stands now.
          </Text>
          <Stack as="ul" gap="0">
            {checks.map((c) => (
              <Flex as="li" key={c.id} listStyleType="none" gap="3" py="2.5" borderTopWidth="1px" borderColor="line" data-check={c.tone}>
                <Box color={c.tone === "wrong" ? "brickText" : "ochreText"} pt="0.5">
                  {c.tone === "wrong" ? (
                    <TriangleAlert size={18} aria-label="Will not work" />
                  ) : (
                    <Eye size={18} aria-label="Worth a look" />
                  )}
                </Box>
                <Box minW="0">
                  <Text fontWeight="700">{c.about}</Text>
                  <Text fontSize="15.5px">{c.words}</Text>
                  <Link href={c.href} style={{ fontSize: "15px" }}>
                    {c.fix}
                  </Link>
                </Box>
              </Flex>
            ))}
          </Stack>
        </>
      )}
    </Box>
  );
}
