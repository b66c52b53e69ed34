import { LRUCache } from "lru-cache";
import type { Decoder } from "../decode/decoder";
import type { Sheet } from "../pictures/sheet";
import { RecentIds } from "./recent-ids";

const mostKept = 500;
const mostBytes = 1024 * 1024;

/**
 * The chat platform's own emotes, fetched from the address its settings name, checked like an upload and
 * kept in memory. Only ids that chat has marked lately are fetched, so a page can't make the engine ask
 * for others; redirects are not followed, and size and time are limited.
 */
export class PlatformEmotes {
  private readonly seen = new Map<string, RecentIds>();
  private readonly known = new LRUCache<string, Promise<Sheet | null>>({ max: mostKept });

  constructor(private readonly decoder: Decoder) {}

  saw(channel: string, id: string): void {
    let ids = this.seen.get(channel);
    if (ids === undefined) this.seen.set(channel, (ids = new RecentIds(5_000)));
    ids.add(id);
  }

  async picture(channel: string, template: string, id: string): Promise<Sheet | null> {
    if (template === "" || !/^[A-Za-z0-9_-]{1,64}$/.test(id)) return null;
    if (this.seen.get(channel)?.has(id) !== true) return null;
    const address = template.replaceAll("{id}", encodeURIComponent(id));
    const known = this.known.get(address);
    if (known !== undefined) return known;
    const fetched = fetchPicture(address, this.decoder).then((sheet) => {
      // A failure is asked again after a while, not for every page that wants it.
      if (sheet === null) setTimeout(() => this.known.delete(address), 30_000).unref();
      return sheet;
    });
    this.known.set(address, fetched);
    return fetched;
  }
}

async function fetchPicture(address: string, decoder: Decoder): Promise<Sheet | null> {
  try {
    const response = await fetch(address, { redirect: "error", signal: AbortSignal.timeout(5_000) });
    if (!response.ok || response.body === null) return null;
    const parts: Buffer[] = [];
    let size = 0;
    for await (const part of response.body) {
      size += part.length;
      if (size > mostBytes) return null;
      parts.push(Buffer.from(part));
    }
    const sheet = await decoder.picture(Buffer.concat(parts));
    return sheet.ok ? sheet.value : null;
  } catch {
    return null;
  }
}
