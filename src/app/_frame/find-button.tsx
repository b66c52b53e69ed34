"use client";
import { Button } from "@chakra-ui/react";
import { Search } from "lucide-react";
import { KeyCap } from "../../ui/key-cap";

/** Opens the one search. */
export const FindButton = () => (
  <Button
    size="sm"
    variant="outline"
    fontWeight="500"
    gap="2"
    minW={{ base: "0", lg: "230px" }}
    justifyContent="flex-start"
    onClick={() => document.dispatchEvent(new CustomEvent("izzam:find"))}
  >
    <Search size={16} aria-hidden="true" /> Find anything <KeyCap>Ctrl/⌘ K</KeyCap>
  </Button>
);
