/** The id of what is wanted stays the same until it is answered, over a reload too: so a lost answer never costs twice. */
export function purchaseRequestOf(channel: string, reward: string): Readonly<{ id: string; answered: () => void }> {
  const key = `izzam-wish ${channel} ${reward}`;
  const id = remembered.get(key) ?? stored(key) ?? freshId();
  remembered.set(key, id);
  try {
    sessionStorage.setItem(key, id);
  } catch {
    // Without storage it holds for as long as the page is open.
  }
  const answered = (): void => {
    remembered.delete(key);
    try {
      sessionStorage.removeItem(key);
    } catch {
      // Nothing was stored.
    }
  };
  return { id, answered };
}

const remembered = new Map<string, string>();

const stored = (key: string): string | null => {
  try {
    return sessionStorage.getItem(key);
  } catch {
    return null;
  }
};

const freshId = (): string => `w-${Array.from(crypto.getRandomValues(new Uint32Array(3))).join("-")}`.slice(0, 40);
