import { ChakraProvider } from "@chakra-ui/react";
import { jest } from "@jest/globals";
import { render } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { type ReactNode, useState } from "react";
import { system } from "../ui/theme";

// What a browser has and jsdom lacks.
globalThis.structuredClone ??= <T,>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
globalThis.ResizeObserver ??= class {
  observe = (): void => undefined;
  unobserve = (): void => undefined;
  disconnect = (): void => undefined;
};
globalThis.PointerEvent ??= class extends MouseEvent {} as typeof PointerEvent;
Element.prototype.scrollTo ??= (): void => undefined;
Element.prototype.scrollIntoView ??= (): void => undefined;

/** Something on the screen, in our look, with a person at mouse and keyboard. */
export function shown(what: ReactNode) {
  const user = userEvent.setup();
  const view = render(<ChakraProvider value={system}>{what}</ChakraProvider>);
  return { user, ...view };
}

/** A field that keeps what is set, as whatever it stands in would; `set` hears each value. */
export function kept<T>(first: T, field: (value: T, onSet: (value: T) => void) => ReactNode) {
  const set = jest.fn<(value: T) => void>();
  function Kept() {
    const [value, setValue] = useState(first);
    return field(value, (next) => {
      set(next);
      setValue(next);
    });
  }
  return { ...shown(<Kept />), set };
}
