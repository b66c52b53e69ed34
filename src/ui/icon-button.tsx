"use client";
import { Button, type ButtonProps } from "@chakra-ui/react";

/** A small button that shows a sign alone, and says in words what it does to those who hear the screen. */
export const IconButton = ({ label, ...rest }: ButtonProps & Readonly<{ label: string }>) => (
  <Button size="xs" variant="ghost" px="1" aria-label={label} {...rest} />
);
