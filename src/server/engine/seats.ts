import ipaddr from "ipaddr.js";

/** A household or a phone company may share an address; nobody needs more than this of one. */
const mostSockets = 20_000;
const mostSocketsEach = 300;

/** Whoever has one IPv6 address has the 2^64 beside it: such a network counts as one. */
export function neighbourhood(address: string): string {
  const bare = address.split("%")[0] ?? "";
  // An IPv4 address in the clothes of the other kind is one address.
  if (ipaddr.isValid(bare)) {
    const plain = ipaddr.process(bare);
    if (plain.kind() === "ipv4") return plain.toString();
  }
  return ipaddr.IPv6.isValid(bare) ? `${ipaddr.IPv6.networkAddressFromCIDR(`${bare}/64`).toString()}/64` : address;
}

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
