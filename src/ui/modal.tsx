"use client";
import { Box, CloseButton, Dialog, Portal } from "@chakra-ui/react";
import type { ReactNode } from "react";

/** A dialog over the screen: its title, what stands in it, and a way out at its corner. */
export function Modal({
  title,
  about,
  open = true,
  size = "md",
  urgent = false,
  trigger,
  onOpen,
  onClose,
  children,
}: Readonly<{
  title: string;
  /** A line under the title. */
  about?: ReactNode;
  open?: boolean;
  size?: "sm" | "md" | "xl";
  /** It asks before something that matters. */
  urgent?: boolean;
  /** What opens it, where it opens itself. */
  trigger?: ReactNode;
  onOpen?: () => void;
  onClose: () => void;
  children: ReactNode;
}>) {
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(e) => (e.open ? onOpen?.() : onClose())}
      size={size}
      role={urgent ? "alertdialog" : "dialog"}
      scrollBehavior="inside"
      lazyMount
      unmountOnExit
    >
      {trigger !== undefined && <Dialog.Trigger asChild>{trigger}</Dialog.Trigger>}
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content>
            <Dialog.Header pb={about === undefined ? undefined : "2"}>
              <Box>
                <Dialog.Title fontFamily="heading">{title}</Dialog.Title>
                {about}
              </Box>
            </Dialog.Header>
            <Dialog.Body pb="6">{children}</Dialog.Body>
            <Dialog.CloseTrigger asChild>
              <CloseButton aria-label="Close" />
            </Dialog.CloseTrigger>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
