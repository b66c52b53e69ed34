"use client";
import { Text } from "@chakra-ui/react";

/** It has none: what it changes is the broadcast software's. */
export const StudioLooks = () => (
  <Text>
    Scene changes stand on no overlay: what they change is your broadcast software’s. On an overlay’s stage you can say of each game in
    which scenes it is shown.
  </Text>
);
