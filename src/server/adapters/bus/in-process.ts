import type { Bus } from "../../ports/bus";

type Listener = Parameters<Bus["subscribe"]>[0];

export function inProcessBus(): Bus {
  const listeners = new Set<Listener>();
  return {
    publish: (channel, publication) => {
      for (const listener of listeners) listener(channel, publication);
    },
    subscribe: (listener) => {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
  };
}
