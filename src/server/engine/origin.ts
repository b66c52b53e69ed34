import type { IncomingMessage } from "node:http";
import ipaddr from "ipaddr.js";

/** Who asks, as far as it can be known. */
type Asker = Readonly<{
  address: string;
  /** On this very computer, and not by way of any proxy. */
  local: boolean;
  https: boolean;
}>;
const networkOf = (text: string): readonly [ipaddr.IPv4 | ipaddr.IPv6, number] => {
  if (text.includes("/")) return ipaddr.parseCIDR(text);
  const at = ipaddr.process(text);
  return [at, at.kind() === "ipv6" ? 128 : 32];
};

/**
 * Reads who asks, behind proxies too. What a proxy says of others is believed only of proxies that were
 * named; anybody else may write these headers as they like. The nearest address that is no such proxy counts.
 * Throws at once when a network that was named is none.
 */
export function askers(trusted: readonly string[]): (req: IncomingMessage) => Asker {
  const networks = trusted.map((text) => {
    try {
      return networkOf(text);
    } catch {
      throw new Error(`“${text}” is no address of a proxy, and no network: write 10.0.0.7 or 10.0.0.0/24`);
    }
  });
  const process = (text: string): ipaddr.IPv4 | ipaddr.IPv6 | null => {
    try {
      return ipaddr.process(text.trim().replace(/^\[|\](:\d+)?$/g, ""));
    } catch {
      return null;
    }
  };
  const isTrusted = (at: ipaddr.IPv4 | ipaddr.IPv6 | null): boolean =>
    at !== null && networks.some(([network, bits]) => network.kind() === at.kind() && at.match(network, bits));
  return (req) => {
    const remote = process(req.socket.remoteAddress ?? "");
    const text = (name: string): string => {
      const value = req.headers[name];
      return (Array.isArray(value) ? value.join(",") : (value ?? "")).trim();
    };
    const forwarded = text("x-forwarded-for");
    if (!isTrusted(remote)) {
      const by = forwarded !== "" || text("forwarded") !== "" || text("via") !== "" || text("x-real-ip") !== "";
      return { address: remote?.toString() ?? "unknown", local: remote?.range() === "loopback" && !by, https: false };
    }
    let address = remote;
    for (const hop of forwarded.split(",").reverse()) {
      const at = process(hop);
      if (at === null) break;
      address = at;
      if (!isTrusted(at)) break;
    }
    const proto = text("x-forwarded-proto").split(",").pop()?.trim().toLowerCase();
    return { address: address?.toString() ?? "unknown", local: false, https: proto === "https" };
  };
}

/** Pages of other sites may open a WebSocket or send a form; they can't hide where they come from. */
export function fromHere(origin: string | undefined, host: string | undefined, publicUrl: URL | null): boolean {
  try {
    if (origin === undefined) return false;
    const from = new URL(origin);
    return from.host === host || (publicUrl !== null && from.origin === publicUrl.origin);
  } catch {
    return false;
  }
}
