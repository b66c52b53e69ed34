import { lookup } from "node:dns/promises";
import { request as httpRequest } from "node:http";
import { request as httpsRequest } from "node:https";
import ipaddr from "ipaddr.js";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { cut, wellFormed } from "../../core/kernel/text";

const usualMs = 15_000;
const mostRedirects = 3;

/** Only addresses of the open network: never this computer, its network, or what a router keeps to itself. */
function isOpen(address: string): boolean {
  try {
    const at = ipaddr.process(address);
    if (at.range() !== "unicast") return false;
    // Of IPv6 only what is given out to the world: not what stands for an IPv4 address of any kind.
    if (!(at instanceof ipaddr.IPv6)) return true;
    const first = at.parts[0] ?? 0;
    return first >= 0x2000 && first < 0x4000;
  } catch {
    return false;
  }
}

export type Fetching = Readonly<{
  /** Origins that may be inside after all: the practice rig's own, and those of tests. */
  inside?: readonly string[];
  accept?: string;
  /** For one hop. */
  timeoutMs?: number;
  /** Ends it in the middle: it can't be reached then. */
  signal?: AbortSignal;
}>;
/**
 * Fetches a file by its address, on behalf of an operator. The name is looked up once and the connection
 * made to just that address, so that a name can't point elsewhere in between.
 */
export async function fetchFile(
  address: string,
  mostBytes: number,
  { inside = [], accept = "image/*, audio/*, video/*, application/zip;q=0.9", timeoutMs = usualMs, signal }: Fetching = {},
): Promise<Result<{ bytes: Buffer; name: string }>> {
  let url: URL;
  try {
    url = new URL(address);
  } catch {
    return refused("prop/bad-address");
  }
  for (let hop = 0; hop <= mostRedirects; hop += 1) {
    if (url.protocol !== "http:" && url.protocol !== "https:") return refused("prop/bad-address");
    if (url.username !== "" || url.password !== "") return refused("prop/bad-address");
    const host = url.hostname.replace(/^\[|\]$/g, "");
    let at: { address: string; family: number };
    try {
      at = ipaddr.isValid(host) ? { address: host, family: ipaddr.parse(host).kind() === "ipv6" ? 6 : 4 } : await lookup(host);
    } catch {
      return refused("prop/address-failed", { why: "there is no such name" });
    }
    if (!inside.includes(url.origin) && !isOpen(at.address)) return refused("prop/address-inside");
    const got = await once(url, at, mostBytes, { accept, timeoutMs, signal });
    if ("redirect" in got) {
      try {
        url = new URL(got.redirect, url);
      } catch {
        return refused("prop/address-failed", { why: "it points nowhere" });
      }
      continue;
    }
    if ("why" in got)
      return got.why === "too-large"
        ? refused("prop/too-large", { mostMb: mostBytes / 1024 / 1024 })
        : refused("prop/address-failed", { why: got.why });
    const name = nameIn(url.pathname);
    return ok({ bytes: got.bytes, name: name === "" ? url.hostname : name });
  }
  return refused("prop/address-failed", { why: "it points on and on" });
}

/** The last part of a path; as it stands where its percent signs mean nothing. */
function nameIn(path: string): string {
  const last = path.split("/").pop() ?? "";
  try {
    return cut(wellFormed(decodeURIComponent(last)), 80);
  } catch {
    return cut(last, 80);
  }
}

type Got = Readonly<{ bytes: Buffer }> | Readonly<{ redirect: string }> | Readonly<{ why: string }>;
type How = Readonly<{ accept: string; timeoutMs: number; signal: AbortSignal | undefined }>;
function once(url: URL, at: { address: string; family: number }, mostBytes: number, { accept, timeoutMs, signal }: How): Promise<Got> {
  return new Promise((resolve) => {
    const send = url.protocol === "https:" ? httpsRequest : httpRequest;
    const req = send(
      url,
      {
        timeout: timeoutMs,
        ...(signal === undefined ? {} : { signal }),
        headers: { accept, "user-agent": "Izzam" },
        lookup: (_name, options, done) => {
          if (options.all === true) done(null, [{ address: at.address, family: at.family }]);
          else done(null, at.address, at.family);
        },
      },
      (res) => {
        const { statusCode: status = 0, headers } = res;
        if (status >= 300 && status < 400 && headers.location !== undefined) {
          // What it sends beside is nobody's: it could go on for ever.
          req.destroy();
          return resolve({ redirect: headers.location });
        }
        if (status !== 200) {
          req.destroy();
          return resolve({ why: `it says ${status}` });
        }
        if (Number(headers["content-length"] ?? 0) > mostBytes) {
          req.destroy();
          return resolve({ why: "too-large" });
        }
        const parts: Buffer[] = [];
        let size = 0;
        res.on("data", (part: Buffer) => {
          size += part.length;
          parts.push(part);
          if (size > mostBytes) {
            req.destroy();
            resolve({ why: "too-large" });
          }
        });
        res.on("end", () => resolve({ bytes: Buffer.concat(parts) }));
        res.on("error", () => resolve({ why: "it broke off" }));
      },
    );
    const late = setTimeout(() => req.destroy(new Error("late")), timeoutMs);
    req.on("timeout", () => req.destroy(new Error("late")));
    req.on("error", (error) => resolve({ why: error.message === "late" ? "it took too long" : "it can’t be reached" }));
    req.on("close", () => clearTimeout(late));
    req.end();
  });
}
