"use client";
import { Button, createToaster, Flex, Portal, Text, Toast, Toaster as ChakraToaster } from "@chakra-ui/react";

export const toaster = createToaster({ placement: "bottom", pauseOnPageIdle: true, max: 3 });

/** What happened, and where it can be undone, how. */
export function tell(title: string, undo?: () => void): void {
  toaster.create({ title, duration: undo ? 12_000 : 5_000, type: "info", ...(undo ? { action: { label: "Undo", onClick: undo } } : {}) });
}
export const tellTrouble = (title: string): void => void toaster.create({ title, duration: 12_000, type: "error" });

/** A "not now" that is over in a moment: it need not stand in the way for long. */
export const tellBriefly = (title: string): void => void toaster.create({ title, duration: 4_000, type: "error" });

export function Toasts() {
  return (
    <Portal>
      <ChakraToaster toaster={toaster} insetInline="4">
        {(toast) => (
          <Toast.Root
            bg="ink"
            color="ground"
            borderLeftWidth="6px"
            borderLeftColor={toast.type === "error" ? "brick.solid" : "ochre.solid"}
            width={{ base: "auto", md: "420px" }}
            // What it covers can be clicked through it: it is in nobody's way, and a pointer that rests there does not keep it.
            css={{
              pointerEvents: "none !important",
              "& button": { pointerEvents: "auto", "@media (pointer: coarse)": { minHeight: "44px", minWidth: "44px" } },
            }}
          >
            <Flex align="center" gap="3" flex="1">
              <Text flex="1">{toast.title}</Text>
              {toast.action && (
                <Button
                  size="sm"
                  variant="outline"
                  color="ground"
                  borderColor="currentColor"
                  _hover={{ bg: "whiteAlpha.300" }}
                  onClick={() => {
                    toast.action?.onClick();
                    toaster.dismiss(toast.id);
                  }}
                >
                  {toast.action.label}
                </Button>
              )}
              <Toast.CloseTrigger position="static" color="ground" aria-label="Close this message" />
            </Flex>
          </Toast.Root>
        )}
      </ChakraToaster>
    </Portal>
  );
}
