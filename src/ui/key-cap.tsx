import { chakra } from "@chakra-ui/react";

/** A key as it is written on a keyboard. */
export const KeyCap = ({ children }: { children: string }) => (
  <chakra.kbd
    fontFamily="mono"
    fontSize="14px"
    lineHeight="1"
    px="1.5"
    py="1"
    borderWidth="1px"
    borderColor="currentColor"
    borderRadius="5px"
    opacity="0.85"
    aria-hidden="true"
  >
    {children}
  </chakra.kbd>
);
