import { isIPv6 } from "node:net";

/** A household or a phone company may share an address; nobody needs more than this of one. */
export const mostSockets = 20_000;
export const mostSocketsEach = 300;

/** Whoever has one IPv6 address has the 2^64 beside it: such a network counts as one. */
export const neighbourhood = (address: string): string => {
  if (!isIPv6(address)) return address;
  const [head = "", tail] = address.split("%")[0]?.split("::") ?? [];
  const before = head.split(":").filter((g) => g !== "");
  const after = (tail ?? "").split(":").filter((g) => g !== "");
  const zeros = Array.from({ length: Math.max(0, 8 - before.length - after.length) }, () => "0");
  const groups = [...before, ...zeros, ...after].slice(0, 4).map((g) => Number.parseInt(g, 16).toString(16));
  return `${groups.join(":")}::/64`;
};

/** Who has how many sockets open. `take` gives what gives the seat back (once), or null where there is none left. */
export function seats(all = mostSockets, each = mostSocketsEach) {
  const taken = new Map<string, number>();
  let sum = 0;
  return {
    open: (): number => sum,
    take(asker: Readonly<{ address: string; local: boolean }>): (() => void) | null {
      const who = neighbourhood(asker.address);
      const from = taken.get(who) ?? 0;
      if (sum >= all || (!asker.local && from >= each)) return null;
      taken.set(who, from + 1);
      sum += 1;
      let given = false;
      return () => {
        if (given) return;
        given = true;
        sum -= 1;
        const left = (taken.get(who) ?? 1) - 1;
        if (left <= 0) taken.delete(who);
        else taken.set(who, left);
      };
    },
  };
}
