"use client";
import { Box, Button, chakra, Flex, Text } from "@chakra-ui/react";
import { type DragEvent, type ReactNode, useRef, useState } from "react";

/** Files are dropped anywhere on what carries `handlers`; `over` while some hang above it. */
export function useDrop(onFiles: (files: File[]) => void) {
  const [over, setOver] = useState(false);
  return {
    over,
    handlers: {
      onDragOver: (e: DragEvent) => {
        e.preventDefault();
        setOver(true);
      },
      onDragLeave: (e: DragEvent) => void (e.currentTarget.contains(e.relatedTarget as Node | null) || setOver(false)),
      onDrop: (e: DragEvent) => {
        e.preventDefault();
        setOver(false);
        onFiles([...e.dataTransfer.files]);
      },
    },
  } as const;
}

/** Where files are added: dropped, or chosen. */
export function DropArea({
  title,
  about,
  accept,
  label,
  button,
  over,
  onFiles,
  beside,
  children,
}: Readonly<{
  title: string;
  about: string;
  accept: string;
  /** Of the file field, for those who hear it. */
  label: string;
  button: string;
  over: boolean;
  onFiles: (files: File[]) => void;
  /** Another way to begin, left of the button. */
  beside?: ReactNode;
  children?: ReactNode;
}>) {
  const picker = useRef<HTMLInputElement>(null);
  return (
    <Box
      borderWidth="2px"
      borderStyle="dashed"
      borderColor={over ? "ochre.solid" : "line"}
      bg={over ? "blank" : "transparent"}
      borderRadius="10px"
      p="4"
      mb="5"
    >
      <Flex gap="4" align="center" wrap="wrap">
        <Box flex="1" minW="280px">
          <Text fontWeight="700">{title}</Text>
          <Text color="inkSoft">{about}</Text>
        </Box>
        <chakra.input
          ref={picker}
          type="file"
          multiple
          accept={accept}
          display="none"
          aria-label={label}
          onChange={(e) => {
            onFiles([...(e.currentTarget.files ?? [])]);
            e.currentTarget.value = "";
          }}
        />
        {beside}
        <Button colorPalette="ochre" fontWeight="700" onClick={() => picker.current?.click()}>
          {button}
        </Button>
      </Flex>
      {children}
    </Box>
  );
}
