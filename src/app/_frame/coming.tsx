import { Box, Text } from "@chakra-ui/react";
import Link from "next/link";

/** An honest empty place: what will be here, and what does the job until then. */
export function Coming({ title, about }: Readonly<{ title: string; about: string }>) {
  return (
    <Box maxW="640px" mx="auto" px="5" pt="16">
      <Text as="h1" fontFamily="heading" fontWeight="700" fontSize="26px" mb="3">
        {title}
      </Text>
      <Text mb="5" fontSize="17px">
        {about}
      </Text>
      <Link href="/prepare">Go to Prepare</Link>
    </Box>
  );
}
